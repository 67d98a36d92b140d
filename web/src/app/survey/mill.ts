import type { KnownMill } from '@isometra/work';

/** Depth of the table in the plan, drawing units. */
export const TABLE_DEPTH = 110;

export interface MillPicture {
  /** Seen by the operator: turns in degrees, clockwise. */
  readonly front: { readonly table: number; readonly column: number; readonly head: number };
  /** Seen from the right, the operator on the left. */
  readonly side: { readonly table: number; readonly column: number; readonly head: number };
  /** From above: turns of the slot and of the jaw, degrees, clockwise. */
  readonly plan: { readonly slot: number; readonly vice: number };
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
    // Seen from above the operator is below: a right end that runs toward them turns with the clock.
    plan: { slot: turn(known.slot), vice: turn(known.vice) },
    // An obtuse angle takes the column's end to the left.
    shear: -((known.squareness ?? 0) / 1e6) * factor * TABLE_DEPTH,
  };
}

/** A factor that turns the worst angle by about ten degrees, within ×100 to ×5000. */
export function millFittingFactor(known: KnownMill): number {
  const worst = Math.max(1, ...Object.values(known as Record<string, number>).map(Math.abs));
  return [5000, 2000, 1000, 500, 200, 100].find((factor) => (worst / 1e6) * factor <= 0.18) ?? 100;
}
