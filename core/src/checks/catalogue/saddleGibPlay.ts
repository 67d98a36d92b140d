import { gibPlay } from '../gibPlay.js';

export const saddleGibPlay = gibPlay('saddle', {
  needs: ['slideways'],
  choose: 'Before any squareness is read: the saddle carries the table.',
  hangsOn: ['table-level'],
  after: ['knee-gib-play'],
});
