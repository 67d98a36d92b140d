import * as z from 'zod';
import { measure, optionalMeasure, optionalNumber } from '../fields.js';
import { defineMove, refuse } from './define.js';
import { chooseLeaves, stockSchema } from './shimLeaves.js';

/**
 * Thickness under the front (headstock end) and rear of a tailstock base so that its centre comes up
 * by `lift` and the barrel turns by `slope`: equal when the barrel only comes up, different when it turns too.
 *
 * @param lift µm wanted at the centre point, + up; undefined when only the slope matters: then one end
 *   is left on the base and the other comes up, since a shim cannot lower.
 * @param slope change of the barrel's slope, µm/m, + raises its free end.
 * @param length base length between the two shim lines, mm.
 * @param overhang mm from the front shim line forward to the centre point.
 * @returns front and rear thickness, and the lift of the centre that comes with them, µm.
 */
export function baseShimThickness(lift: number | undefined, slope: number, length: number, overhang: number) {
  const wedge = (slope * length) / 1000;
  const front = lift === undefined ? Math.max(0, wedge) : lift - (slope * overhang) / 1000;
  return { front, rear: front - wedge, lift: lift ?? front + (slope * overhang) / 1000 };
}

/** Shims under the front and the rear of a base. */
export const baseShims = defineMove({
  kind: 'base-shims',
  title: 'Shim the base front and rear',
  amountKey: 'lift',
  slopeKey: 'slope',
  signed: true,
  input: z.strictObject({
    lift: optionalMeasure('deviation', { label: 'Lift at the centre', example: '30 um' }),
    slope: optionalMeasure('slope', { label: 'Change of barrel slope', example: '0' }),
    length: measure('length', { label: 'Base length', above: 0, example: '160 mm' }),
    overhang: optionalMeasure('length', { label: 'Centre beyond the base', min: 0, example: '60 mm' }),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    maxLeaves: optionalNumber({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
    stock: stockSchema.optional(),
  }),
  plan: ({ lift, slope, length, overhang = 0, stock, tolerance, maxLeaves }) => {
    if (lift === undefined && slope === undefined)
      refuse('lift', 'is missing: give the lift of the centre, the change of slope, or both', '30 um');
    const thickness = baseShimThickness(lift, slope ?? 0, length, overhang);
    const { front, rear } = thickness;
    if (front < 0 || rear < 0) {
      refuse(
        'lift',
        `would need ${Math.min(front, rear).toFixed(1)} µm under one end: shims cannot lower it, scrape or grind that end instead`,
        '30 um',
      );
    }
    const leaves = (needed: number) => (stock && needed > 0 ? chooseLeaves(needed, stock, tolerance, maxLeaves) : undefined);
    return { ...thickness, frontLeaves: leaves(front), rearLeaves: leaves(rear) };
  },
});
