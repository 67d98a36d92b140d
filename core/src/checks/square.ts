import { optionalMeasure } from '../input/fields.js';
import { slopeWeights } from '../fit/line.js';
import { slotsWhere, type Slot } from '../instruments/slots.js';
import type { Doubt } from './estimate.js';

/** Half widths of what a square may hide, µm/m, evenly likely: with a certificate, and until it has been turned. */
const CERTIFIED = 5;
const UNCERTIFIED = 25;

/** What the square itself brings in, when it was not turned. */
export const squareDoubt = (certified: boolean): Doubt => ({ source: 'square', u: (certified ? CERTIFIED : UNCERTIFIED) / Math.sqrt(3) });

/** The error of the square, + obtuse, as it stands. */
export const certificate = (label = 'Error of the square') =>
  optionalMeasure('slope', { label, example: '-12 um/m', help: 'From its certificate, + obtuse, as it stands.', kit: 'square' });

/** Slope of some slots along `at` as weights on all, µm/m. */
export function legSlope<Keys extends { readonly at: number }>(
  slots: readonly Slot<Keys>[],
  use: (slot: Slot<Keys>) => boolean,
): number[] | undefined {
  const indices = slotsWhere(slots, use);
  const places = indices.map((i) => slots[i].keys.at);
  if (!places.some((place) => place !== places[0])) return undefined;
  const weights = new Array<number>(slots.length).fill(0);
  slopeWeights(places).forEach((weight, k) => (weights[indices[k]] = 1000 * weight));
  return weights;
}
