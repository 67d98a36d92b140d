import { defineTraverse } from '../generalTraverse.js';
import { TURRET } from '../parts.js';
import * as z from 'zod';
import { choice, fieldRegistry } from '../../input/fields.js';

const WORDS = {
  plus: 'with the far end of the flat toward the operator',
  minus: 'with the far end of the flat away from the operator',
  movePlus: 'so that the far end of the flat comes toward the operator',
  moveMinus: 'so that the far end of the flat goes away from the operator',
};

export const turretFace = defineTraverse({
  id: 'turret-face',
  title: 'Turret face',
  question: 'Does a ground flat of the turret run parallel to the travel?',
  choose: 'Before its pockets: a turret that is turned tips every pocket.',
  machines: ['turning-centre'],
  needs: ['turret'],
  subject: 'Turret face',
  words: WORDS,
  conditions: z.strictObject({
    flat: z
      .string({ error: 'must be a text' })
      .max(60)
      .optional()
      .register(fieldRegistry, { label: 'Ground flat that is read', example: 'front of station 3' }),
    travel: choice({
      label: 'Read along',
      choices: [
        { value: 'z', label: 'the spindle' },
        { value: 'x', label: 'the slide' },
      ],
    }),
  }),
  slope: [-50, 50],
  part: TURRET,
  moves: ['nudge', 'shim-leaves'],
  hangsOn: ['bed-twist', 'spindle-axis'],
  after: ['chuck-test-cut'],
  cautions: ['A turret indexes without warning: lock out before hands go in.'],
  cannotSee: ['An error of the indexing itself: read more than one face.'],
  advice: ['Index away and back before reading, as it is used.'],
});
