import * as z from 'zod';
import { count, fieldRegistry, optionalMeasure, quantitySchema } from '../fields.js';
import { overDistance } from './angles.js';
import { defineMove } from './define.js';

/** Shim stock of one thickness (µm) and how many leaves of it there are. */
export interface Stock {
  readonly thickness: number;
  readonly count: number;
}

interface Pile {
  readonly leaves: readonly number[];
  readonly total: number;
}

/** Every pile of at most `maxLeaves` leaves that the stock allows, thickest leaf first. */
function* piles(stock: readonly Stock[], maxLeaves: number): Generator<Pile> {
  const thicknesses = [...stock].sort((a, b) => b.thickness - a.thickness);
  function* from(index: number, leaves: readonly number[], total: number): Generator<Pile> {
    if (leaves.length) yield { leaves, total };
    if (leaves.length === maxLeaves) return;
    for (let i = index; i < thicknesses.length; i++) {
      const { thickness, count } = thicknesses[i];
      const used = leaves.filter((leaf) => leaf === thickness).length;
      if (used < count) yield* from(i, [...leaves, thickness], total + thickness);
    }
  }
  yield* from(0, [], 0);
}

const CLOSE = 1e-9;

/**
 * Choose leaves for a thickness: the fewest within tolerance, and of those the nearest.
 *
 * @param thickness µm, positive. @param tolerance ± µm.
 * @returns leaves thickest first with total and error (total − thickness), or the nearest piles
 *   below and above when nothing fits (null where there is none).
 */
export function chooseLeaves(thickness: number, stock: readonly Stock[], tolerance = 5, maxLeaves = 4) {
  let best: Pile | undefined;
  let below: Pile | undefined;
  let above: Pile | undefined;
  const merged = mergeStock(stock);
  for (const pile of piles(merged, maxLeaves)) {
    const error = Math.abs(pile.total - thickness);
    if (error <= tolerance + CLOSE) {
      const fewer = !best || pile.leaves.length < best.leaves.length;
      const nearer = best && pile.leaves.length === best.leaves.length && error < Math.abs(best.total - thickness) - CLOSE;
      if (fewer || nearer) best = pile;
    }
    if (pile.total < thickness && better(pile, below, thickness)) below = pile;
    if (pile.total > thickness && better(pile, above, thickness)) above = pile;
  }
  if (best) return { leaves: best.leaves, total: best.total, error: best.total - thickness };
  return { leaves: null, below: described(below, thickness), above: described(above, thickness) };
}

function better(pile: Pile, than: Pile | undefined, thickness: number): boolean {
  if (!than) return true;
  const [a, b] = [Math.abs(pile.total - thickness), Math.abs(than.total - thickness)];
  return a < b - CLOSE || (a < b + CLOSE && pile.leaves.length < than.leaves.length);
}

function described(pile: Pile | undefined, thickness: number) {
  return pile ? { leaves: pile.leaves, total: pile.total, error: pile.total - thickness } : null;
}

function mergeStock(stock: readonly Stock[]): Stock[] {
  const counts = new Map<number, number>();
  for (const { thickness, count } of stock) counts.set(thickness, (counts.get(thickness) ?? 0) + count);
  return [...counts].map(([thickness, count]) => ({ thickness, count }));
}

export const stockSchema = z
  .array(
    z.strictObject({
      thickness: quantitySchema('deviation', { above: 0 }, '0.05 mm'),
      count: z.int({ error: 'must be a whole number of leaves' }).min(0, { error: 'must be 0 or more leaves' }).max(999),
    }),
  )
  .max(60, { error: 'must have at most 60 thicknesses' })
  .register(fieldRegistry, { label: 'Shim stock', group: true });

/** Thickness of a shim that gives a slope, µm/m, over the distance between the supports, mm. */
const thicknessFor = (slope: number | undefined, over: number | undefined): number =>
  overDistance(
    slope,
    over,
    ['thickness', 'is missing: give the thickness, or the slope and over what distance', '0.12 mm'],
    ['over', 'is missing: give the distance between the supports, which turns the angle into a thickness', '320 mm'],
  );

/** Leaves out of the user's stock for a thickness. */
export const shimLeaves = defineMove({
  kind: 'shim-leaves',
  title: 'Put shims under',
  amountKey: 'thickness',
  slopeKey: 'slope',
  input: z.strictObject({
    thickness: optionalMeasure('deviation', { label: 'Thickness', above: 0, example: '0.12 mm' }),
    slope: optionalMeasure('slope', { label: 'Angle to give', above: 0, example: '80 um/m' }),
    over: optionalMeasure('length', { label: 'Between the supports', above: 0, example: '320 mm' }),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    stock: stockSchema,
    maxLeaves: count({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
  }),
  plan: ({ thickness, slope, over, stock, tolerance, maxLeaves }) => {
    const straight = thickness ?? thicknessFor(slope, over);
    return { ...(thickness === undefined && { thickness: straight }), ...chooseLeaves(straight, stock, tolerance, maxLeaves) };
  },
});
