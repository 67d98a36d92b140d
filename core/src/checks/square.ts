import { optionalMeasure } from '../fields.js';
import { slopeWeights } from '../fit/line.js';
import type { Slot } from '../instruments/slots.js';

/** Standard uncertainty of a shop square that has no certificate: ±5 µm/m, evenly likely. */
export const SQUARE_DOUBT = 5 / Math.sqrt(3);

/** The error of the square, + obtuse, as it stands. */
export const certificate = (label = 'Error of the square') =>
  optionalMeasure('slope', { label, example: '-12 um/m', help: 'From its certificate, + obtuse, as it stands.', kit: 'square' });

/** Slope of some slots along `at` as weights on all, µm/m. */
export function legSlope(slots: readonly Slot[], use: (slot: Slot) => boolean): number[] | undefined {
  const indices = slots.flatMap((slot, i) => (use(slot) ? [i] : []));
  const places = indices.map((i) => slots[i].keys['at'] as number);
  if (new Set(places).size < 2) return undefined;
  const weights = new Array<number>(slots.length).fill(0);
  slopeWeights(places).forEach((weight, k) => (weights[indices[k]] = 1000 * weight));
  return weights;
}
