import { choice } from '../../input/fields.js';
import { POWERED } from '../cautions.js';
import { SUB } from '../parts.js';
import { centreSweep } from '../centreSweep.js';

export const subSpindle = centreSweep({
  id: 'sub-spindle',
  title: 'Sub-spindle',
  question: 'Does the sub-spindle meet the main spindle?',
  choose: 'After the guide bush; every station based on it follows.',
  subject: 'The sub-spindle',
  part: SUB,
  known: 'sub',
  carried: 'sub',
  radial: 8,
  against: choice({
    label: 'Swept against',
    choices: [
      { value: 'main', label: 'the main spindle' },
      { value: 'bush', label: 'the guide bush' },
    ],
    help: 'Bar work is guided by the bush, and passed on where the bush holds it: sweep that too.',
  }),
  needs: ['sub-spindle'],
  hangsOn: ['bed-twist', 'spindle-axis', 'guide-bush'],
  cautions: [POWERED],
});
