interface Point {
  readonly x: number;
  readonly y: number;
}

/** Twice the signed area of a turn: + when a, b, c turn left. */
const turn = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

function chain(points: readonly Point[], side: 1 | -1): Point[] {
  const kept: Point[] = [];
  for (const point of points) {
    while (kept.length > 1 && side * turn(kept[kept.length - 2], kept[kept.length - 1], point) <= 0) kept.pop();
    kept.push(point);
  }
  return kept;
}

/**
 * Height (along y) of the narrowest pair of parallel lines that holds every point: the minimum zone
 * of a profile, from its convex hull. Exact for slopes small against one, as profiles in µm over mm are.
 *
 * @param x places, any order. @param y heights.
 */
export function minimumZone(x: readonly number[], y: readonly number[]): number {
  const points = x.map((place, i) => ({ x: place, y: y[i] })).sort((a, b) => a.x - b.x || a.y - b.y);
  if (points.length < 3) return 0;
  const lower = chain(points, 1);
  const upper = chain(points, -1);
  let narrowest = Infinity;
  for (const [edges, others] of [
    [lower, upper],
    [upper, lower],
  ]) {
    for (let i = 1; i < edges.length; i++) {
      const [a, b] = [edges[i - 1], edges[i]];
      if (b.x === a.x) continue;
      const slope = (b.y - a.y) / (b.x - a.x);
      const gap = others.reduce((most, point) => Math.max(most, Math.abs(point.y - (a.y + slope * (point.x - a.x)))), 0);
      narrowest = Math.min(narrowest, gap);
    }
  }
  return narrowest === Infinity ? 0 : narrowest;
}
