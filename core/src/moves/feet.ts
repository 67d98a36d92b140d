import * as z from 'zod';
import { measure, optionalMeasure, optionalNumber } from '../fields.js';
import { defineMove } from './define.js';
import { chooseLeaves, stockSchema } from './shimLeaves.js';

/**
 * Levelling feet at one end: raise the low side, half up on one side and half down on the other.
 * `roll` µm/m to be given (signed), `track` mm across the pair of feet, screw `pitch` mm.
 *
 * @returns `raise` across the track, `each` foot (µm, signed like the roll), `turns` of each screw.
 */
export const feet = defineMove({
  kind: 'feet',
  title: 'Turn the levelling feet',
  amountKey: 'roll',
  signed: true,
  input: z.strictObject({
    roll: measure('slope', { label: 'Roll to give', example: '40 um/m' }),
    track: measure('length', { label: 'Across the feet', above: 0, example: '450 mm' }),
    pitch: measure('length', { label: 'Foot screw pitch', above: 0, example: '2 mm' }),
    gain: optionalNumber({ label: 'Gain', above: 0, example: '1', help: 'A bed is springy: what it moves for what the feet should do.' }),
  }),
  plan: ({ roll, track, pitch, gain = 1 }) => {
    const raise = (roll * track) / 1000;
    const each = raise / 2;
    return { raise, each, turns: each / (pitch * 1000 * gain) };
  },
});

/**
 * Pull a way over at its two ends with jack screws against clamps: amounts there from the offset at
 * the first end and the slope, read on two indicators at once.
 */
export const pull = defineMove({
  kind: 'pull',
  title: 'Pull the way over at its two ends',
  amountKey: 'slope',
  signed: true,
  input: z.strictObject({
    slope: measure('slope', { label: 'Slope to give', example: '-30 um/m' }),
    offset: measure('deviation', { label: 'Offset to give at the near end', example: '0' }),
    length: measure('length', { label: 'Between the two jacks', above: 0, example: '900 mm' }),
    pitch: measure('length', { label: 'Jack screw pitch', above: 0, example: '1.5 mm' }),
  }),
  plan: ({ slope, offset, length, pitch }) => {
    const far = offset + (slope * length) / 1000;
    return { near: offset, far, nearTurns: offset / (pitch * 1000), farTurns: far / (pitch * 1000) };
  },
});

/**
 * Shims under the low feet of a machine without levelling screws: the whole raise goes under one side,
 * because a shim cannot lower the other.
 *
 * @returns `raise` across the track (µm, signed like the roll), with the leaves for its size when there is a stock.
 */
export const feetShims = defineMove({
  kind: 'feet-shims',
  title: 'Shim the low feet',
  amountKey: 'roll',
  signed: true,
  input: z.strictObject({
    roll: measure('slope', { label: 'Roll to give', example: '40 um/m' }),
    track: measure('length', { label: 'Across the feet', above: 0, example: '450 mm' }),
    stock: stockSchema.optional(),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
  }),
  plan: ({ roll, track, stock, tolerance }) => {
    const raise = (roll * track) / 1000;
    return { raise, ...(stock && raise !== 0 && chooseLeaves(Math.abs(raise), stock, tolerance)) };
  },
});
