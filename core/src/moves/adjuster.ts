import * as z from 'zod';
import { measure, optionalMeasure, optionalNumber, quantitySchema, plainNumber } from '../fields.js';
import { overDistance } from './angles.js';
import { defineMove } from './define.js';

/** Travel of a screw that turns a part by a slope, µm/m, at a distance from its pivot, mm. */
const travelFor = (slope: number | undefined, over: number | undefined): number =>
  overDistance(
    slope,
    over,
    ['amount', 'is missing: give the amount, or the slope and how far the screw is from the pivot', '21 um'],
    ['over', 'is missing: give the distance from the pivot to the screw, which turns the angle into travel', '150 mm'],
  );

/**
 * Opposed screws or any other screw: turns = amount / (pitch · gain), and where the needle must stop.
 * `amount` µm signed like the quantity; turns and degrees carry its sign; `target` in divisions.
 */
export const adjuster = defineMove({
  kind: 'adjuster',
  title: 'Turn the adjusting screws',
  amountKey: 'amount',
  slopeKey: 'slope',
  signed: true,
  input: z.strictObject({
    amount: optionalMeasure('deviation', { label: 'Amount', example: '21 um' }),
    slope: optionalMeasure('slope', { label: 'Angle to give', example: '80 um/m' }),
    over: optionalMeasure('length', { label: 'From the pivot to the screw', above: 0, example: '150 mm' }),
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
  plan: ({ amount: straight, slope, over, pitch, gain = 1, indicator }) => {
    const amount = straight ?? travelFor(slope, over);
    const turns = amount / (pitch * 1000 * gain);
    return {
      turns,
      degrees: turns * 360,
      ...(indicator && { target: indicator.now + ((indicator.rises ? 1 : -1) * amount) / indicator.graduation }),
    };
  },
});
