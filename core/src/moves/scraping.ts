import * as z from 'zod';
import { count, measure, optionalMeasure } from '../fields.js';
import { defineMove, refuse } from './define.js';

/**
 * Scrape a wedge off in steps: n = round(t/e) zones of equal length, zone k gets k passes. The first
 * pass covers the high zone only, each next pass takes in one zone more. `straightDown` passes over
 * the whole length come on top.
 *
 * @returns zones from the low end with their passes; passes in working order; zone-passes in all.
 */
export const stepScrape = defineMove({
  kind: 'step-scrape',
  title: 'Scrape in steps',
  amountKey: 'wedge',
  input: z.strictObject({
    wedge: measure('deviation', { label: 'Height of the wedge', above: 0, example: '40 um' }),
    length: measure('length', { label: 'Length of the face', above: 0, example: '300 mm' }),
    passDepth: measure('deviation', { label: 'Depth of a pass', above: 0, example: '5 um' }),
    straightDown: count({ label: 'Passes straight down', min: 0, max: 500, example: '0' }),
  }),
  plan: ({ wedge, length, passDepth, straightDown = 0 }) => {
    const n = Math.max(1, Math.round(wedge / passDepth));
    const step = length / n;
    const zones = Array.from({ length: n }, (_, k) => ({
      from: k * step,
      to: k === n - 1 ? length : (k + 1) * step,
      passes: k + 1 + straightDown,
    }));
    const tilt = Array.from({ length: n }, (_, k) => ({ from: (n - 1 - k) * step, to: length }));
    const down = Array.from({ length: straightDown }, () => ({ from: 0, to: length }));
    return { zones, passes: [...tilt, ...down], zonePasses: zones.reduce((sum, zone) => sum + zone.passes, 0) };
  },
});

/** Stack under one roll of a sine plate: slope × distance between the rolls, µm. */
export const sineStack = defineMove({
  kind: 'sine-stack',
  title: 'Set a sine plate',
  amountKey: 'slope',
  input: z.strictObject({
    slope: optionalMeasure('slope', { label: 'Slope', example: '120 um/m' }),
    error: optionalMeasure('deviation', { label: 'Error', example: '24 um' }),
    over: optionalMeasure('length', { label: 'Over', above: 0, example: '200 mm' }),
    rolls: measure('length', { label: 'Between the rolls', above: 0, example: '100 mm' }),
  }),
  plan: ({ slope, error, over, rolls }) => {
    const given = error !== undefined && over !== undefined ? (error * 1000) / over : undefined;
    const tilt = slope ?? given;
    if (tilt === undefined || (slope !== undefined && given !== undefined)) {
      return refuse('slope', 'give either the slope, or an error and the length it is over', '120 um/m');
    }
    return { stack: (tilt * rolls) / 1000 };
  },
});
