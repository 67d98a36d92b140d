/** Twice the signed area of the turn a, b, c: + when it goes left. */
const turn = (x: ArrayLike<number>, y: ArrayLike<number>, a: number, b: number, c: number): number =>
  (x[b] - x[a]) * (y[c] - y[a]) - (y[b] - y[a]) * (x[c] - x[a]);

/** Indices of the lower (side 1) or upper (side −1) hull of points sorted by x. */
function chain(x: ArrayLike<number>, y: ArrayLike<number>, side: 1 | -1): number[] {
  const kept: number[] = [];
  for (let i = 0; i < x.length; i++) {
    while (kept.length > 1 && side * turn(x, y, kept[kept.length - 2], kept[kept.length - 1], i) <= 0) kept.pop();
    kept.push(i);
  }
  return kept;
}

/** Narrowest gap between lines along the edges of one hull and the corners of the other. */
function narrowestAlong(x: ArrayLike<number>, y: ArrayLike<number>, edges: readonly number[], others: readonly number[]): number {
  let narrowest = Infinity;
  for (let i = 1; i < edges.length; i++) {
    const [a, b] = [edges[i - 1], edges[i]];
    if (x[b] === x[a]) continue;
    const slope = (y[b] - y[a]) / (x[b] - x[a]);
    let gap = 0;
    for (const k of others) gap = Math.max(gap, Math.abs(y[k] - y[a] - slope * (x[k] - x[a])));
    narrowest = Math.min(narrowest, gap);
  }
  return narrowest;
}

/**
 * Height (along y) of the narrowest pair of parallel lines that holds every point: the minimum zone
 * of a profile, from its convex hull. Exact for slopes small against one, as profiles in µm over mm are.
 *
 * @param x places, ascending. @param y heights.
 */
export function minimumZone(x: ArrayLike<number>, y: ArrayLike<number>): number {
  if (x.length < 3) return 0;
  const lower = chain(x, y, 1);
  const upper = chain(x, y, -1);
  const narrowest = Math.min(narrowestAlong(x, y, lower, upper), narrowestAlong(x, y, upper, lower));
  return narrowest === Infinity ? 0 : narrowest;
}
