import { SADDLE } from '../parts.js';
import { squareCheck } from '../squareCheck.js';

export const saddleSquareness = squareCheck({
  id: 'saddle-squareness',
  title: 'Squareness of the saddle',
  question: 'Is the cross slide square to the carriage?',
  choose: 'Tells what a headstock move will do to facing, before anything is scraped.',
  machines: ['lathe'],
  part: SADDLE,
  limit: [-20, 20],
  moves: ['scrape'],
  hangsOn: ['bed-twist', 'way-straightness', 'dovetail-over-pins'],
  after: ['tailstock-test-cut'],
  knows: [{ quantity: 'squareness', name: 'saddle' }],
  cannotSee: ['Where the spindle points.'],
});
