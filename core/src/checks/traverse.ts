import { dot, slopeWeights } from '../fit/line.js';
import type { Slot } from '../instruments/slots.js';

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
    const key = JSON.stringify(wayKeys.map((name) => slot.keys[name] ?? 0));
    ways.set(key, [...(ways.get(key) ?? []), i]);
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

/**
 * Residuals of the machine about its line: means over the ways at each place, as forms on the slots.
 *
 * @returns places in order, and for each the residual as weights.
 */
export function residualForms(slots: readonly Slot[], line: TraverseLine): { places: number[]; forms: number[][] } {
  const places = [...new Set(line.ways.flat().map((i) => at(slots[i])))].sort((a, b) => a - b);
  const heights = places.map((place) => {
    const here = line.ways.flat().filter((i) => at(slots[i]) === place);
    const form = new Array<number>(slots.length).fill(0);
    for (const i of here) form[i] = 1 / here.length;
    return form;
  });
  const centre = places.reduce((sum, place) => sum + place, 0) / places.length;
  const middle = slots.map((_, i) => heights.reduce((sum, form) => sum + form[i], 0) / places.length);
  const slope = slots.map((_, i) =>
    dot(
      slopeWeights(places),
      heights.map((form) => form[i]),
    ),
  );
  const forms = heights.map((form, k) => form.map((weight, i) => weight - middle[i] - slope[i] * (places[k] - centre)));
  return { places, forms };
}

/** Half the difference between two ways round at each shared place: the reference's own error. */
export function reversalForms(slots: readonly Slot[], line: TraverseLine): { place: number; form: number[] }[] {
  if (line.ways.length !== 2) return [];
  const [first, second] = line.ways;
  return first.flatMap((i) => {
    const j = second.find((other) => at(slots[other]) === at(slots[i]));
    if (j === undefined) return [];
    const form = new Array<number>(slots.length).fill(0);
    form[i] = 0.5;
    form[j] = -0.5;
    return [{ place: at(slots[i]), form }];
  });
}
