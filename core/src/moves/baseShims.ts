import * as z from 'zod';
import { measure, optionalMeasure, optionalNumber } from '../fields.js';
import { defineMove, refuse } from './define.js';
import { chooseLeaves, stockSchema } from './shimLeaves.js';

/**
 * Thickness under the front (headstock end) and rear of a tailstock base so that its centre comes up
 * by `lift` and the barrel turns by `slope`: equal when the barrel is level, different when it slopes too.
 *
 * @param lift µm wanted at the centre point, + up. @param slope change of the barrel's slope, µm/m,
 *   + raises the end toward the tailstock handwheel.
 * @param length base length between the two shim lines, mm. @param overhang mm from the front shim
 *   line forward to the centre point.
 * @returns front and rear thickness in µm.
 */
export function baseShimThickness(lift: number, slope: number, length: number, overhang: number) {
  const front = lift + (slope * overhang) / 1000;
  const rear = front + (slope * length) / 1000;
  return { front, rear };
}

/** Shims under the front and the rear of a base. */
export const baseShims = defineMove({
  kind: 'base-shims',
  title: 'Shim the base front and rear',
  amountKey: 'lift',
  input: z.strictObject({
    lift: measure('deviation', { label: 'Lift at the centre', example: '30 um' }),
    slope: optionalMeasure('slope', { label: 'Change of barrel slope', example: '0' }),
    length: measure('length', { label: 'Base length', above: 0, example: '160 mm' }),
    overhang: optionalMeasure('length', { label: 'Centre beyond the base', min: 0, example: '60 mm' }),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    maxLeaves: optionalNumber({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
    stock: stockSchema.optional(),
  }),
  plan: ({ lift, slope = 0, length, overhang = 0, stock, tolerance, maxLeaves }) => {
    const { front, rear } = baseShimThickness(lift, slope, length, overhang);
    if (front < 0 || rear < 0) {
      refuse(
        'lift',
        `would need ${Math.min(front, rear).toFixed(1)} µm under one end: shims cannot lower it, scrape or grind that end instead`,
        '30 um',
      );
    }
    const leaves = (thickness: number) => (stock && thickness > 0 ? chooseLeaves(thickness, stock, tolerance, maxLeaves) : undefined);
    return { front, rear, frontLeaves: leaves(front), rearLeaves: leaves(rear) };
  },
});
