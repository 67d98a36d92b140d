import * as z from 'zod';
import { measure, optionalNumber, quantitySchema, plainNumber } from '../fields.js';
import { defineMove } from './define.js';

/**
 * Opposed screws or any other screw: turns = amount / (pitch · gain), and where the needle must stop.
 * `amount` µm signed like the quantity; turns and degrees carry its sign; `target` in divisions.
 */
export const adjuster = defineMove({
  kind: 'adjuster',
  title: 'Turn the adjusting screws',
  amountKey: 'amount',
  signed: true,
  input: z.strictObject({
    amount: measure('deviation', { label: 'Amount', example: '21 um' }),
    pitch: measure('length', { label: 'Screw pitch', above: 0, example: '1.5 mm' }),
    gain: optionalNumber({ label: 'Gain', above: 0, example: '1', help: 'Learned: what the screw really moves for what it should.' }),
    indicator: z
      .strictObject({
        now: plainNumber({ label: 'Needle now', example: '0' }),
        graduation: quantitySchema('deviation', { above: 0 }, '0.01 mm'),
        rises: z.boolean({ error: 'must be true or false: does the needle count up as it moves?' }),
      })
      .optional(),
  }),
  plan: ({ amount, pitch, gain = 1, indicator }) => {
    const turns = amount / (pitch * 1000 * gain);
    return {
      turns,
      degrees: turns * 360,
      ...(indicator && { target: indicator.now + ((indicator.rises ? 1 : -1) * amount) / indicator.graduation }),
    };
  },
});
