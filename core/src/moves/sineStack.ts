import * as z from 'zod';
import { count, measure, optionalMeasure } from '../input/fields.js';
import { defineMove, refuse } from './define.js';
import { chooseLeaves, stockSchema } from './shimLeaves.js';

/**
 * Stack under one roll of a sine plate: (slope − zeroSlope) × distance between the rolls, µm, signed: + raises the
 * roll that the slope rises toward. `zeroSlope` is what the block reads with the plate closed.
 *
 * @returns `stack`; with a stock the leaves that make it and the slope they leave over, µm/m.
 */
export const sineStack = defineMove({
  kind: 'sine-stack',
  title: 'Set a sine plate',
  name: 'on a sine plate',
  verb: 'Set it over by',
  slopeKey: 'slope',
  signed: true,
  leaves: true,
  input: z.strictObject({
    slope: optionalMeasure('slope', { label: 'Slope', example: '120 um/m' }),
    error: optionalMeasure('deviation', { label: 'Error', example: '24 um' }),
    over: optionalMeasure('length', { label: 'Over', above: 0, example: '200 mm' }),
    zeroSlope: optionalMeasure('slope', {
      label: 'The block reads with the plate closed',
      example: '0',
      help: '+ the same way as the slope.',
    }),
    rolls: measure('length', { label: 'Between the rolls', above: 0, example: '100 mm' }),
    stock: stockSchema.optional(),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    maxLeaves: count({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
  }),
  plan: ({ slope, error, over, zeroSlope = 0, rolls, stock, tolerance, maxLeaves }) => {
    const given = error !== undefined && over !== undefined ? (error * 1000) / over : undefined;
    const tilt = slope ?? given;
    if (tilt === undefined || (slope !== undefined && given !== undefined)) {
      return refuse('slope', 'give either the slope, or an error and the length it is over', '120 um/m');
    }
    const stack = ((tilt - zeroSlope) * rolls) / 1000;
    if (!stock || stack === 0) return { stack };
    const pile = chooseLeaves(Math.abs(stack), stock, tolerance, maxLeaves);
    const residual = (total: number): number => tilt - zeroSlope - (Math.sign(stack) * total * 1000) / rolls;
    return { stack, ...pile, ...(pile.leaves && { residual: residual(pile.total) }) };
  },
  example: { slope: '120 um/m', rolls: 100 },
});
