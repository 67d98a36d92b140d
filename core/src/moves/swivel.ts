import * as z from 'zod';
import { fieldRegistry } from '../input/fields.js';
import { defineMove } from './define.js';
import { after, ISOLATE, watch } from './jobSteps.js';

/** A table on a swivelling saddle is turned on its own joint: eased, tapped over by the needle, drawn down again. */
export const swivel = defineMove({
  kind: 'swivel',
  title: 'Swivel the table',
  name: 'swivel it on its joint',
  verb: 'Swivel it',
  machines: ['mill'],
  ifOnCard: true,
  input: z.strictObject({}),
  card: {
    swivels: z.boolean({ error: 'must be true or false' }).optional().register(fieldRegistry, { label: 'The table swivels on its saddle' }),
  },
  hardware: ({ card }) => (card.swivels === true ? {} : undefined),
  steps: (facts) => [
    { text: 'Loosen the bolts of the swivel to snug, never free. Do not rely on its scale.', caution: ISOLATE },
    watch(facts),
    { text: `Tap it over with a soft mallet, ${facts.direction}, by ${facts.size}.`, needle: true },
    ...after,
  ],
});
