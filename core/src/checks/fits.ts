import { harmonicRow } from '../fit/harmonic.js';
import type { Slot } from '../instruments/slots.js';
import type { Estimate, Form } from './estimate.js';
import type { TraverseKeys, TraverseLine } from './traverse.js';
import { zeroOf } from './sweep.js';

/** One thing that a model of the round predicts: a reading, or a combination of readings at one place. */
export interface Observation {
  /** Slots and their weights: one slot with weight 1 for a plain reading. */
  readonly form: Form;
  /** Values of the model's basis functions here. */
  readonly row: readonly number[];
  /** Corrections to add to the combination before it is fitted (droop, push, diameters), in the unit of the readings. */
  readonly added?: number;
  /** Its own standard uncertainty where the dial does not tell it (feeler leaves), in the unit of the readings. */
  readonly u?: number;
}

/** What the readings should lie on if nothing was misread. */
export type Shape = 'line' | 'plane' | 'circle' | 'level-zero' | 'same-runout';

/**
 * A linear model that a round must obey, with more readings than unknowns as a rule: a line through three places, a plane,
 * a circle, one zero for all stations of a level. It serves to notice a reading that contradicts the others.
 */
export interface Fit {
  readonly shape: Shape;
  /** Its dial may have been zeroed again between two pairs of places; where that is so, the set-up says it. */
  readonly zeroed?: true;
  readonly observations: readonly Observation[];
  /** Standard uncertainty of the reference at each place (form of a bar), in the unit of the readings. */
  readonly form?: number;
  /** Quantities whose uncertainty grows when the readings do not follow the model. */
  readonly widens: readonly string[];
  /** The departure from the model is itself what the check measures: it is no news. */
  readonly measured?: true;
}

/** Whether a fit has more observations than unknowns, so that it can be contradicted. */
export const redundant = ({ observations }: Fit): boolean => observations.length > (observations[0]?.row.length ?? 0);

interface LineOptions extends Pick<Fit, 'form' | 'widens' | 'measured'> {
  /** Correction of the reading of one slot. */
  readonly added?: (slot: number) => number;
}

/**
 * Fits of a line that was read along something. A reference that was turned half round has a form of its own at each place, so
 * that only the means of both ways must lie on a line; ways that were not paired are lines by themselves.
 */
export function lineFits(
  slots: readonly Slot<TraverseKeys>[],
  line: TraverseLine,
  { added = () => 0, ...options }: LineOptions,
): readonly Fit[] {
  const { pairs } = line.turned;
  if (pairs.length) {
    const observations = pairs.map(([i, j]): Observation => ({
      form: [
        [i, 0.5],
        [j, 0.5],
      ],
      row: [1, slots[i].keys.at],
      added: (added(i) + added(j)) / 2,
    }));
    const fit: Fit = { shape: 'line', observations, ...options };
    return [fit].filter(redundant);
  }
  return line.ways.flatMap((way) => plainLine(way, (i) => slots[i].keys.at, { added, ...options }));
}

/** A line through some slots over any abscissa. */
export function plainLine(indices: readonly number[], abscissa: (slot: number) => number, options: LineOptions): readonly Fit[] {
  const { added, ...rest } = options;
  return [
    {
      shape: 'line' as const,
      observations: indices.map((i): Observation => ({ form: [[i, 1]], row: [1, abscissa(i)], ...(added && { added: added(i) }) })),
      ...rest,
    },
  ].filter(redundant);
}

/** A circle (first harmonic) or plane through readings round a circle, degrees. */
export function roundFit(
  shape: 'circle' | 'plane',
  indices: readonly number[],
  keysOf: (slot: number) => { readonly angle: number; readonly zero?: number | undefined },
  widens: readonly string[],
): readonly Fit[] {
  const zeros = [...new Set(indices.map((i) => zeroOf(keysOf(i))))];
  return [
    {
      shape,
      zeroed: true as const,
      observations: indices.map((i): Observation => {
        const keys = keysOf(i);
        return { form: [[i, 1]], row: harmonicRow(keys.angle, zeroOf(keys), zeros) };
      }),
      widens,
    },
  ].filter(redundant);
}

/** Names of some estimates: what a fit of them widens. */
export const namesOf = (estimates: readonly Estimate[]): string[] => [...new Set(estimates.map(({ name }) => name))];
