import { readWithLeaves } from '../leaves.js';
import { MILL_SADDLE } from '../parts.js';
import { squareCheck } from '../squareCheck.js';
import { say } from '../sums.js';

const bySquare = squareCheck({
  id: 'axis-squareness',
  title: 'Squareness of the axes',
  question: 'Are the two table motions square to each other?',
  choose: 'Once nothing is slack: play looks like an angle.',
  machines: ['mill'],
  part: MILL_SADDLE,
  limit: [-65, 65],
  moves: ['scrape', 'way-shims', 'swivel', 'trucks'],
  sides: {
    A: ['the right', 'the left'],
    B: ['the column side', 'your side'],
    drawn: 'up',
    words: {
      plus: 'running off to the left toward the column',
      minus: 'running off to the right toward the column',
      movePlus: 'to the left at the column end',
      moveMinus: 'to the right at the column end',
    },
  },
  hangsOn: ['table-level', 'knee-gib-play', 'saddle-gib-play', 'table-gib-play', 'motion-straightness-x', 'motion-straightness-y'],
  knows: [{ quantity: 'squareness', name: 'squareness' }],
  fromJob: {
    'hole-pattern': ({ error, length }) => {
      const slope = (1000 * error) / length;
      return [{ quantity: 'squareness', zone: [-slope, slope], sum: `${say(error)} µm over ${say(length)} mm = ${say(slope)} µm/m` }];
    },
  },
  cannotSee: ['Play of the slides.'],
});

export const axisSquareness = readWithLeaves(bySquare, {
  under: 'the square',
  label: 'Read the gap beside the legs with leaves, without a dial',
});
