import { POWERED } from '../cautions.js';
import { BUSH } from '../parts.js';
import { centreSweep } from '../centreSweep.js';

export const guideBush = centreSweep({
  id: 'guide-bush',
  title: 'Guide bush',
  question: 'Is the guide bush on the spindle axis?',
  choose: 'Before the sub-spindle.',
  subject: 'The bush',
  part: BUSH,
  bolted: true,
  known: 'bush',
  radial: 8,
  needs: ['guide-bush'],
  hangsOn: ['bed-twist', 'spindle-axis'],
  after: ['turret-bore'],
  cautions: [POWERED],
});
