import { solve, type Constraint } from 'yalps';
import { freeValue, freeVariables } from '../fit/freeVariables.js';

/** A place read on a plate or along stations: where, mm; how high and how surely, µm; whether it must bear. */
export interface PlacePoint {
  readonly x: number;
  readonly y: number;
  readonly height: number;
  readonly doubt: number;
  readonly bear: boolean;
}

/** A plane: µm at x = y = 0, and µm/m along each axis. */
export interface Plane {
  readonly offset: number;
  readonly x: number;
  readonly y: number;
}

export interface BestPlane {
  readonly plane: Plane;
  /** µm to take off each place. */
  readonly depths: readonly number[];
  readonly total: number;
}

const at = ({ offset, x, y }: Plane, point: { readonly x: number; readonly y: number }): number =>
  offset + (x * point.x + y * point.y) / 1000;

/** Highest plane of a given tilt that no bearing place stands under. */
function lowered(points: readonly PlacePoint[], tilt: { readonly x: number; readonly y: number }): Plane {
  const offset = points.reduce((least, point) => Math.min(least, point.height + point.doubt - at({ offset: 0, ...tilt }, point)), Infinity);
  return { offset, x: tilt.x, y: tilt.y };
}

/** The plane with the largest sum over the bearing places that no one of them stands under by more than its doubt: a linear program. */
function highest(points: readonly PlacePoint[]): Plane | undefined {
  const n = points.length;
  const middle = { x: points.reduce((sum, { x }) => sum + x, 0) / n, y: points.reduce((sum, { y }) => sum + y, 0) / n };
  const size = Math.max(1, ...points.flatMap(({ x, y }) => [Math.abs(x - middle.x), Math.abs(y - middle.y)]));
  const low = Math.min(...points.map(({ height, doubt }) => height + doubt));
  const constraints = new Map<string, Constraint>();
  const columns: Record<'o' | 'x' | 'y', Map<string, number>> = { o: new Map(), x: new Map(), y: new Map() };
  let [sumX, sumY] = [0, 0];
  points.forEach(({ x, y, height, doubt }, i) => {
    const [u, v] = [(x - middle.x) / size, (y - middle.y) / size];
    constraints.set(`p${i}`, { max: height + doubt - low });
    columns.o.set(`p${i}`, 1);
    columns.x.set(`p${i}`, u);
    columns.y.set(`p${i}`, v);
    sumX += u;
    sumY += v;
  });
  columns.o.set('sum', n);
  columns.x.set('sum', sumX);
  columns.y.set('sum', sumY);
  const variables = freeVariables(columns);
  const solution = solve(
    { direction: 'maximize', objective: 'sum', constraints, variables },
    { precision: 1e-10, tolerance: 0, maxPivots: 50_000 },
  );
  if (solution.status !== 'optimal') return undefined;
  const found = new Map(solution.variables);
  const [x, y] = [(1000 * freeValue(found, 'x')) / size, (1000 * freeValue(found, 'y')) / size];
  // What the program left to its own precision is made exact: no bearing place may stand under the plane.
  return lowered(points, { x, y });
}

/**
 * The plane that needs only removal and the least of it over the places that must bear: it maximises Σ planeᵢ with
 * planeᵢ ≤ hᵢ + Uᵢ. Where alignment asks for a tilt, only its height is free.
 *
 * @returns undefined when no place bears. Source: docs/methods/scraping.md.
 */
export function planeToScrape(points: readonly PlacePoint[], tilt?: { readonly x: number; readonly y: number }): BestPlane | undefined {
  const bearing = points.filter(({ bear }) => bear);
  if (bearing.length === 0) return undefined;
  const plane = tilt ? lowered(bearing, tilt) : highest(bearing);
  if (!plane) return undefined;
  const depths = points.map((point) => (point.bear ? Math.max(0, point.height - at(plane, point)) : 0));
  return { plane, depths, total: depths.reduce((sum, depth) => sum + depth, 0) };
}

/** What leaving each place out would save in total, µm: only a place that the plane rests on has a price. */
export function pricesOf(points: readonly PlacePoint[], best: BestPlane, tilt?: { readonly x: number; readonly y: number }): number[] {
  return points.map((point, i) => {
    const resting = point.bear && at(best.plane, point) >= point.height + point.doubt - 1e-6;
    if (!resting) return 0;
    const without = planeToScrape(
      points.map((other, k) => (k === i ? { ...other, bear: false } : other)),
      tilt,
    );
    return without ? Math.max(0, best.total - without.total) : 0;
  });
}
