import { dot, slopeWeights } from '../fit/line.js';
import { slotsWhere, mean, type Slot } from '../instruments/slots.js';
import { linearEstimate, type Estimate, type Form, type HeightAt } from './estimate.js';
import { halvesOf, openText, type Halves } from './reversal.js';

/** Keys of a reading along something; the reference may have been turned half round, or its ends swapped. */
export interface TraverseKeys {
  readonly at: number;
  readonly plane?: 'h' | 'v';
  /** Of a place of a grid: across the travel, mm. */
  readonly across?: number;
  readonly turn?: 0 | 180;
  readonly swapped?: boolean;
}

/** A line read along something: the least-squares slope as weights on all slots (µm per mm). */
export interface TraverseLine {
  readonly weights: readonly number[];
  /** One entry for each way round the reference was read at two places or more, each summing over its own slots. */
  readonly byWay: readonly (readonly number[])[];
  /** Slots read in each way round. */
  readonly ways: readonly (readonly number[])[];
  /** What has still to be read of a reversal. */
  readonly open: string | undefined;
  /** The same place read both ways: turned half round, ends swapped. */
  readonly turned: Halves;
  readonly swapped: Halves;
}

type Slots = readonly Slot<TraverseKeys>[];

function waysOf(slots: Slots, used: readonly number[]): number[][] {
  const ways = new Map<number, number[]>();
  for (const i of used) {
    const { turn = 0, swapped = false } = slots[i].keys;
    const key = turn + (swapped ? 1 : 0);
    const way = ways.get(key);
    if (way) way.push(i);
    else ways.set(key, [i]);
  }
  return [...ways.values()];
}

/** Whether some of the slots lie at two different places. */
function spansPlaces(slots: Slots, indices: readonly number[]): boolean {
  return indices.some((i) => slots[i].keys.at !== slots[indices[0]].keys.at);
}

/** One finished spot of a rough bar, read at the head and, its ends swapped, at the tail: no place is read twice, and none has to be. */
const spotCarried = (slots: Slots, ways: readonly (readonly number[])[], swapped: Halves): boolean =>
  swapped.reversed &&
  swapped.pairs.length === 0 &&
  ways.length === 2 &&
  ways.every((way) => !spansPlaces(slots, way)) &&
  slots[ways[0][0]].keys.at !== slots[ways[1][0]].keys.at;

const TURN = 'turn the reference half round and read there again';
const SWAP = 'swap the ends of the bar and read there again';

/**
 * Fit the line of a traverse. The reference may have been read two ways round (turned half a turn,
 * ends swapped): each way gets its own slope and their mean is the machine. A reversal that is half done
 * leaves the line open: it is worked out from the ways that tell a slope, and not judged.
 *
 * @returns undefined when no way has two different places, and no finished spot was carried from one end to the other.
 */
export function traverseLine(slots: Slots, use: (slot: Slot<TraverseKeys>) => boolean = () => true): TraverseLine | undefined {
  const used = slotsWhere(slots, use);
  if (used.length === 0) return undefined;
  const turned = halvesOf(slots, 'turn', [0, 180], ['plane', 'at', 'swapped'], use);
  const swapped = halvesOf(slots, 'swapped', [false, true], ['plane', 'at', 'turn'], use);
  const all = waysOf(slots, used);
  const carried = spotCarried(slots, all, swapped);
  const ways = carried ? [all.flat()] : all.filter((way) => spansPlaces(slots, way));
  if (ways.length === 0) return undefined;
  const byWay = ways.map((indices) => {
    const weights = new Array<number>(slots.length).fill(0);
    slopeWeights(indices.map((i) => slots[i].keys.at)).forEach((weight, k) => (weights[indices[k]] = weight));
    return weights;
  });
  const weights = byWay.length === 1 ? byWay[0] : slots.map((_, i) => byWay.reduce((sum, way) => sum + way[i], 0) / byWay.length);
  const open = openText(turned, TURN) ?? (carried ? undefined : openText(swapped, SWAP));
  return { weights, byWay, ways, open, turned, swapped };
}

/** Mean readings of the machine at each place, whichever way round they were read. */
interface PlacesRead {
  readonly places: readonly number[];
  /** Slots read at each place. */
  readonly slotsAt: readonly (readonly number[])[];
}

function placesRead(slots: Slots, line: TraverseLine): PlacesRead {
  const here = new Map<number, number[]>();
  for (const i of line.ways.flat()) {
    const known = here.get(slots[i].keys.at);
    if (known) known.push(i);
    else here.set(slots[i].keys.at, [i]);
  }
  const places = [...here.keys()].sort((a, b) => a - b);
  return { places, slotsAt: places.map((place) => here.get(place) ?? []) };
}

/**
 * Range of the residuals about the least-squares line through the places, as a size: the evaluation
 * is over all places, the weights are those of the highest and the lowest one now.
 */
export function residualRange(name: string, slots: Slots, line: TraverseLine): Estimate & { readonly places: number } {
  const { places, slotsAt } = placesRead(slots, line);
  const slope = slopeWeights(places);
  const centre = mean(places);
  const residuals = (values: ArrayLike<number>): number[] => {
    const heights = slotsAt.map((indices) => indices.reduce((sum, i) => sum + values[i], 0) / indices.length);
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
  const { open } = line;
  return { name, weights, terms: {}, doubts: [], magnitude: true, evaluate: range, places: places.length, ...(open && { open }) };
}

/** Mean readings of the machine at each place, µm; none when there are not two different places. */
export function traverseHeights(slots: Slots, side: 1 | -1): HeightAt[] {
  const line = traverseLine(slots);
  if (!line) return [];
  const { places, slotsAt } = placesRead(slots, line);
  return places.map((at, k) => ({ at, height: side * mean(slotsAt[k].map((i) => slots[i].value)) }));
}

/** Half the difference between two ways round at each shared place: the reference's own error there. */
export function reversalForms(slots: Slots, { pairs }: Halves): { readonly place: number; readonly form: Form }[] {
  return pairs.map(([i, j]) => ({
    place: slots[i].keys.at,
    form: [
      [i, 0.5],
      [j, -0.5],
    ],
  }));
}

/** Half the difference of the slopes of two ways round, in the unit of `factor`: what the reference itself is out by. */
export function referenceSlope(name: string, line: TraverseLine, factor: number): Estimate[] {
  if (line.byWay.length !== 2) return [];
  const [a, b] = line.byWay;
  return [
    linearEstimate(
      name,
      a.map((weight, i) => (factor * (weight - b[i])) / 2),
    ),
  ];
}
