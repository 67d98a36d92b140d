import { defineTraverse } from '../generalTraverse.js';
import { TURRET } from '../parts.js';
import { FACING } from '../words.js';

export const turretFace = defineTraverse({
  id: 'turret-face',
  title: 'Turret face',
  question: 'Does a ground flat of the turret run parallel to the travel?',
  choose: 'Before its pockets: a turret that is turned tips every pocket.',
  machines: ['turning-centre'],
  subject: 'Turret face',
  words: FACING,
  slope: [-50, 50],
  part: TURRET,
  moves: ['shim-leaves', 'scrape'],
  hangsOn: ['bed-twist', 'spindle-axis'],
  after: ['chuck-test-cut'],
  cautions: ['A turret indexes without warning: lock out before hands go in.'],
  cannotSee: ['An error of the indexing itself: read more than one face.'],
  advice: ['Index away and back before reading, as it is used.'],
});
