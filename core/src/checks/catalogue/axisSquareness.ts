import { MILL_SADDLE } from '../parts.js';
import { squareCheck } from '../squareCheck.js';
import { say } from '../sums.js';

export const axisSquareness = squareCheck({
  id: 'axis-squareness',
  title: 'Squareness of the axes',
  question: 'Are the two table motions square to each other?',
  choose: 'After the gibs: slack looks like an angle.',
  machines: ['mill'],
  part: MILL_SADDLE,
  limit: [-65, 65],
  moves: ['scrape'],
  hangsOn: ['table-level', 'knee-gib-play', 'saddle-gib-play', 'table-gib-play', 'motion-straightness-x', 'motion-straightness-y'],
  knows: [{ quantity: 'squareness', name: 'squareness' }],
  fromJob: {
    'hole-pattern': ({ error, length }) => {
      const slope = (1000 * error) / length;
      return [{ quantity: 'squareness', zone: [-slope, slope], sum: `${say(error)} µm over ${say(length)} mm = ${say(slope)} µm/m` }];
    },
  },
  cannotSee: ['Play of the gibs.'],
});
