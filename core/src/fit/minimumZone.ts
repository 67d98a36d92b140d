import { solve, type Constraint } from 'yalps';
import { freeVariables } from './freeVariables.js';

/** A height over a plane, µm, at a place, mm. */
export interface HeightOver {
  readonly x: number;
  readonly y: number;
  readonly height: number;
}

/** Beyond so many places the program takes longer than a key may. */
const MOST = 400;

/**
 * Distance of the two closest parallel planes that hold all places between them, µm: the flatness of what was read, as a
 * linear program (minimise t with |heightᵢ − planeᵢ| ≤ t).
 *
 * @param places x and y in mm, heights in µm.
 * @returns undefined for fewer than four places, for more than 400, or where none can be told.
 */
export function minimumZone(places: readonly HeightOver[]): number | undefined {
  if (places.length < 4 || places.length > MOST) return undefined;
  const size = Math.max(1, ...places.flatMap(({ x, y }) => [Math.abs(x), Math.abs(y)]));
  const middle = places.reduce((sum, { height }) => sum + height, 0) / places.length;
  const constraints = new Map<string, Constraint>();
  const columns: Record<'o' | 'x' | 'y', Map<string, number>> = { o: new Map(), x: new Map(), y: new Map() };
  const zone = new Map<string, number>([['t', 1]]);
  places.forEach(({ x, y, height }, i) => {
    // height − plane ≤ t, and plane − height ≤ t.
    for (const [row, sign] of [
      [`over${i}`, 1],
      [`under${i}`, -1],
    ] as const) {
      constraints.set(row, { min: sign * (height - middle) });
      columns.o.set(row, sign);
      columns.x.set(row, (sign * x) / size);
      columns.y.set(row, (sign * y) / size);
      zone.set(row, 1);
    }
  });
  const variables = freeVariables(columns).set('zone', zone);
  const solution = solve(
    { direction: 'minimize', objective: 't', constraints, variables },
    { precision: 1e-10, tolerance: 0, maxPivots: 50_000 },
  );
  return solution.status === 'optimal' ? 2 * solution.result : undefined;
}
