import { gibPlay } from '../gibPlay.js';

export const kneeGibPlay = gibPlay('knee', {
  needs: ['knee'],
  choose: 'Before any squareness is read: the knee carries everything else.',
  hangsOn: ['table-level'],
  after: ['seat'],
});
