import { SADDLE } from '../parts.js';
import { squareCheck } from '../squareCheck.js';
import { inBothPersons } from '../persons.js';

export const saddleSquareness = squareCheck({
  id: 'saddle-squareness',
  title: 'Squareness of the saddle',
  question: 'Is the cross slide square to the carriage?',
  choose: 'Shows what a headstock move will do to facing, before anything is scraped.',
  machines: ['lathe'],
  part: SADDLE,
  limit: [-20, 20],
  moves: ['scrape'],
  sides: {
    A: ['the tailstock side', 'the headstock side'],
    B: ["the operator's side", 'the rear'],
    drawn: 'down',
    words: inBothPersons(({ who }) => ({
      plus: `running off toward the headstock as it comes toward ${who}`,
      minus: `running off toward the tailstock as it comes toward ${who}`,
      movePlus: `toward the headstock at the end near ${who}`,
      moveMinus: `toward the tailstock at the end near ${who}`,
    })),
  },
  hangsOn: ['bed-twist', 'way-straightness', 'dovetail-over-pins'],
  after: ['tailstock-test-cut'],
  knows: [{ quantity: 'squareness', name: 'saddle' }],
  cannotSee: ['Where the spindle points.'],
});
