import type { LimitSheet } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { factsOf } from '@isometra/work';
import { boundsOf } from './ghosts';

/** What is known of a mill at one time, µm/m; undefined where nothing has been measured. */
export interface KnownMill {
  /** + rises toward the right, toward the column. */
  readonly tableX?: number;
  readonly tableY?: number;
  /** + where the angle between the motions to the right and to the column is obtuse. */
  readonly squareness?: number;
  /** + leans to the right, toward the operator. */
  readonly leanX?: number;
  readonly leanY?: number;
  /** + leans to the right, nods toward the operator. */
  readonly tilt?: number;
  readonly nod?: number;
}

/** What of a mill is drawn, by the names under which the checks make it known. */
const FACTS = ['tableX', 'tableY', 'squareness', 'leanX', 'leanY', 'tilt', 'nod'] as const;

/** What was known of a mill after the rounds so far: the latest word on each. */
export const knownMill = (rounds: readonly RoundHead[]): KnownMill => factsOf(rounds, FACTS);

/** Depth of the table in the plan, drawing units. */
export const TABLE_DEPTH = 110;

export interface MillPicture {
  /** Seen by the operator: turns in degrees, clockwise. */
  readonly front: { readonly table: number; readonly column: number; readonly head: number };
  /** Seen from the right, the operator on the left. */
  readonly side: { readonly table: number; readonly column: number; readonly head: number };
  /** From above, the operator at the bottom: how far the column's end of the table lies to the right of square, drawing units. */
  readonly shear: number;
}

/**
 * A mill bent by what is known of it.
 *
 * @param factor exaggeration, printed on the picture: an angle of 1 µm/m is drawn as `factor` µm/m.
 */
export function millPictureOf(known: KnownMill, factor: number): MillPicture {
  const turn = (slope = 0): number => (slope / 1e6) * factor * (180 / Math.PI);
  return {
    // Rising to the right turns against the clock; leaning to the right turns with it.
    front: { table: -turn(known.tableX), column: turn(known.leanX), head: turn(known.tilt) },
    // The operator stands on the left: leaning toward them turns against the clock, and so does rising to the column.
    side: { table: -turn(known.tableY), column: -turn(known.leanY), head: -turn(known.nod) },
    // An obtuse angle takes the column's end to the left.
    shear: -((known.squareness ?? 0) / 1e6) * factor * TABLE_DEPTH,
  };
}

/** A factor that turns the worst angle by about ten degrees, within ×100 to ×5000. */
export function millFittingFactor(known: KnownMill): number {
  const worst = Math.max(1, ...Object.values(known as Record<string, number>).map(Math.abs));
  return [5000, 2000, 1000, 500, 200, 100].find((factor) => (worst / 1e6) * factor <= 0.18) ?? 100;
}

/** Pictures of a mill at both bounds of each limit, for the ghost lines. */
export function millGhosts(judge: LimitSheet | undefined, factor: number): Readonly<Record<keyof KnownMill, readonly MillPicture[]>> {
  const bounds = (name: keyof KnownMill) => boundsOf(judge, name).map((bound) => millPictureOf({ [name]: bound }, factor));
  return Object.fromEntries(FACTS.map((name) => [name, bounds(name)])) as Record<keyof KnownMill, MillPicture[]>;
}
