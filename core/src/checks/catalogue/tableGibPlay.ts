import { gibPlay } from '../gibPlay.js';

export const tableGibPlay = gibPlay('table', {
  needs: ['slideways'],
  choose: 'Before any squareness is read: the table carries the work.',
  hangsOn: ['table-level'],
  after: ['saddle-gib-play'],
});
