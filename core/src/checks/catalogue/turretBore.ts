import { POWERED } from '../cautions.js';
import { POCKET } from '../parts.js';
import { centreSweep } from '../centreSweep.js';

export const turretBore = centreSweep({
  id: 'turret-bore',
  title: 'Turret pocket',
  question: 'Is the pocket on the spindle axis?',
  choose: 'After the face of the turret.',
  subject: 'The pocket',
  part: POCKET,
  known: 'turret',
  carried: 'turret',
  stations: true,
  radial: 10,
  needs: ['turret'],
  hangsOn: ['bed-twist', 'spindle-axis', 'turret-face'],
  cautions: ['A turret indexes without warning: lock out.', POWERED],
});
