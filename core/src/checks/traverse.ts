import { dot, slopeWeights } from '../fit/line.js';
import { mean, type Slot } from '../instruments/slots.js';
import type { HeightAt } from './define.js';
import type { Estimate } from './estimate.js';

/** A line read along something: which slots, and the least-squares slope as weights on all slots (µm per mm). */
export interface TraverseLine {
  readonly weights: readonly number[];
  /** One entry for each way round the reference was read, each summing over its own slots. */
  readonly byWay: readonly (readonly number[])[];
  /** Places read in each way round, for pairing. */
  readonly ways: readonly (readonly number[])[];
}

const at = (slot: Slot): number => slot.keys['at'] as number;

function waysOf(slots: readonly Slot[], wayKeys: readonly string[], use: (slot: Slot) => boolean): number[][] {
  const ways = new Map<string, number[]>();
  slots.forEach((slot, i) => {
    if (!use(slot)) return;
    const key = wayKeys.map((name) => String(slot.keys[name] ?? 0)).join('|');
    const way = ways.get(key);
    if (way) way.push(i);
    else ways.set(key, [i]);
  });
  return [...ways.values()];
}

/** Whether some of the slots lie at two different places. */
export function spansPlaces(slots: readonly Slot[], indices: readonly number[]): boolean {
  return new Set(indices.map((i) => at(slots[i]))).size > 1;
}

/**
 * Fit the line of a traverse. The reference may have been read two ways round (turned half a turn,
 * ends swapped): each way gets its own slope and their mean is the machine. When one way alone has
 * too few places, all are fitted together.
 *
 * @returns undefined when there are not two different places.
 */
export function traverseLine(
  slots: readonly Slot[],
  wayKeys: readonly string[],
  use: (slot: Slot) => boolean = () => true,
): TraverseLine | undefined {
  let ways = waysOf(slots, wayKeys, use);
  if (!ways.every((indices) => spansPlaces(slots, indices))) ways = [ways.flat()];
  if (ways[0] === undefined || !spansPlaces(slots, ways[0])) return undefined;
  const byWay = ways.map((indices) => {
    const weights = new Array<number>(slots.length).fill(0);
    slopeWeights(indices.map((i) => at(slots[i]))).forEach((weight, k) => (weights[indices[k]] = weight));
    return weights;
  });
  const weights = slots.map((_, i) => byWay.reduce((sum, way) => sum + way[i], 0) / byWay.length);
  return { weights, byWay, ways };
}

/** Mean readings of the machine at each place, whichever way round they were read. */
interface Profile {
  readonly places: readonly number[];
  /** Slots read at each place. */
  readonly slotsAt: readonly (readonly number[])[];
}

function profile(slots: readonly Slot[], line: TraverseLine): Profile {
  const here = new Map<number, number[]>();
  for (const i of line.ways.flat()) {
    const known = here.get(at(slots[i]));
    if (known) known.push(i);
    else here.set(at(slots[i]), [i]);
  }
  const places = [...here.keys()].sort((a, b) => a - b);
  return { places, slotsAt: places.map((place) => here.get(place) ?? []) };
}

/**
 * Range of the residuals about the least-squares line through the places, as a size: the evaluation
 * is over all places, the weights are those of the highest and the lowest one now.
 */
export function residualRange(name: string, slots: readonly Slot[], line: TraverseLine): Estimate & { readonly places: number } {
  const { places, slotsAt } = profile(slots, line);
  const slope = slopeWeights(places);
  const centre = mean(places);
  const residuals = (values: ArrayLike<number>): number[] => {
    const heights = slotsAt.map((indices) => mean(indices.map((i) => values[i])));
    const middle = mean(heights);
    const gradient = dot(slope, heights);
    return heights.map((height, k) => height - middle - gradient * (places[k] - centre));
  };
  const range = (values: ArrayLike<number>): number => {
    const now = residuals(values);
    return Math.max(...now) - Math.min(...now);
  };
  const now = residuals(slots.map((slot) => slot.value));
  const [high, low] = [now.indexOf(Math.max(...now)), now.indexOf(Math.min(...now))];
  const weights = new Array<number>(slots.length).fill(0);
  slotsAt.forEach((indices, k) => {
    const own = (k === high ? 1 : 0) - (k === low ? 1 : 0) - slope[k] * (places[high] - places[low]);
    for (const i of indices) weights[i] = own / indices.length;
  });
  return { name, weights, terms: {}, doubts: [], magnitude: true, evaluate: range, places: places.length };
}

/** Mean readings of the machine at each place, µm; none when there are not two different places. */
export function traverseHeights(slots: readonly Slot[], side: 1 | -1): HeightAt[] {
  const line = traverseLine(slots, ['turn']);
  if (!line) return [];
  const { places, slotsAt } = profile(slots, line);
  return places.map((at, k) => ({ at, height: side * mean(slotsAt[k].map((i) => slots[i].value)) }));
}

/** Half the difference between two ways round at each shared place: the reference's own error. */
export function reversalForms(slots: readonly Slot[], line: TraverseLine): { place: number; form: number[] }[] {
  if (line.ways.length !== 2) return [];
  const [first, second] = line.ways;
  const opposite = new Map(second.map((other) => [at(slots[other]), other]));
  return first.flatMap((i) => {
    const j = opposite.get(at(slots[i]));
    if (j === undefined) return [];
    const form = new Array<number>(slots.length).fill(0);
    form[i] = 0.5;
    form[j] = -0.5;
    return [{ place: at(slots[i]), form }];
  });
}
