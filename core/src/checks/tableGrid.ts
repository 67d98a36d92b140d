import { dot } from '../fit/line.js';
import { leastSquaresWeights } from '../fit/linearSystem.js';
import { minimumZone } from '../fit/minimumZone.js';
import { count, optionalMeasure } from '../input/fields.js';
import type { Slot } from '../instruments/slots.js';
import type { Estimates, PlannedSlot } from './define.js';
import { linearEstimate } from './estimate.js';
import { tooFew } from './notes.js';
import { evenly } from './stations.js';

/** Keys of a place of a grid beside `at`. */
export const gridReading = {
  across: optionalMeasure('length', { label: 'Across the travel', example: '0 mm' }),
};
/** What a plan needs to lay rows beside each other. */
export const gridPlan = {
  rows: count({ label: 'Rows, for the whole table as a grid', min: 1, max: 12, example: '1' }),
  width: optionalMeasure('length', { label: 'From the first row to the last', above: 0, example: '150 mm' }),
};

interface GridKeys {
  readonly at: number;
  readonly across?: number;
}

/** Whether places were read in more than one row. */
export const isGrid = (slots: readonly Slot<GridKeys>[]): boolean => new Set(slots.map(({ keys }) => keys.across ?? 0)).size > 1;

/** Places of a grid in the order of the hand: there along the first row, back along the next. */
export function gridSlots(places: readonly number[], rows: number, width: number): PlannedSlot[] {
  return evenly(0, width, rows).flatMap((across, row) =>
    (row % 2 ? [...places].reverse() : places).map((at) => ({ keys: { at, across }, label: (size) => `Row at ${size(across, 'length')}` })),
  );
}

/**
 * A table read at places of a grid: the least-squares plane, its slope along the travel and across it, and what is left of
 * the heights over it; beside that the distance of the two closest planes that hold all of them.
 */
export function gridEstimate(slots: readonly Slot<GridKeys>[]): Estimates {
  const design = slots.map(({ keys: { at, across = 0 } }) => [1, at, across]);
  const fit = leastSquaresWeights(design);
  if (!fit) return { estimates: [], notes: [tooFew('three places that do not lie in one line')] };
  const [, along, across] = fit;
  const slopes = [
    linearEstimate(
      'slope',
      along.map((weight) => 1000 * weight),
    ),
    linearEstimate(
      'slopeAcross',
      across.map((weight) => 1000 * weight),
    ),
  ];
  if (slots.length < 4) return { estimates: slopes, notes: [] };
  const left = (values: ArrayLike<number>): number[] => {
    const plane = fit.map((row) => dot(row, values));
    return design.map((row, i) => values[i] - dot(row, plane));
  };
  const range = (values: ArrayLike<number>): number => {
    const now = left(values);
    return Math.max(...now) - Math.min(...now);
  };
  const now = left(slots.map(({ value }) => value));
  const [high, low] = [now.indexOf(Math.max(...now)), now.indexOf(Math.min(...now))];
  const weights = slots.map(
    (_, i) =>
      (i === high ? 1 : 0) - (i === low ? 1 : 0) - design[high].reduce((sum, term, k) => sum + (term - design[low][k]) * fit[k][i], 0),
  );
  const zone = minimumZone(slots.map(({ keys: { at, across: y = 0 }, value }) => ({ x: at, y, height: value })));
  const detail = zone === undefined ? {} : { detail: { minimumZone: zone } };
  return {
    estimates: [...slopes, { name: 'range', weights, terms: {}, doubts: [], magnitude: true, evaluate: range, ...detail }],
    notes: [],
    fits: [{ shape: 'plane', observations: design.map((row, i) => ({ form: [[i, 1]], row })), widens: ['slope', 'slopeAcross'] }],
  };
}
