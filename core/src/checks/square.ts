import { optionalMeasure } from '../input/fields.js';
import { slopeWeights } from '../fit/line.js';
import { slotsWhere, type Slot } from '../instruments/slots.js';
import type { Doubt } from './estimate.js';
import { redundant, type Fit } from './fits.js';

/** Half widths of what a square may hide, µm/m, evenly likely: with a certificate, and until it has been turned. */
const CERTIFIED = 5;
const UNCERTIFIED = 25;

/** What the square itself brings in, when it was not turned. */
export const squareDoubt = (certified: boolean): Doubt => ({ source: 'square', u: (certified ? CERTIFIED : UNCERTIFIED) / Math.sqrt(3) });

/** The error of the square, + obtuse, as it stands. */
export const certificate = (label = 'Error of the square') =>
  optionalMeasure('slope', { label, example: '-12 um/m', help: 'From its certificate, + obtuse, as it is set up.', kit: 'square' });

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

/** Each leg is a straight line, in each way the square lies: slots grouped by what tells the lines apart. */
export function legFits<Keys extends { readonly at: number }>(
  slots: readonly Slot<Keys>[],
  lineOf: (keys: Keys) => string,
  {
    own = () => undefined,
    widens,
  }: { readonly own?: (keys: Keys) => number | undefined; readonly widens: (line: string) => readonly string[] },
): readonly Fit[] {
  const lines = new Map<string, number[]>();
  slots.forEach(({ keys }, i) => lines.set(lineOf(keys), [...(lines.get(lineOf(keys)) ?? []), i]));
  return [...lines]
    .map(([line, indices]): Fit => ({
      shape: 'line',
      observations: indices.map((i) => {
        const u = own(slots[i].keys);
        return { form: [[i, 1]], row: [1, slots[i].keys.at], ...(u !== undefined && { u }) };
      }),
      widens: widens(line),
    }))
    .filter(redundant);
}
