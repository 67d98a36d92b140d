/** Twice the signed area of the turn a, b, c: + when it goes left. */
const turn = (x: ArrayLike<number>, y: ArrayLike<number>, a: number, b: number, c: number): number =>
  (x[b] - x[a]) * (y[c] - y[a]) - (y[b] - y[a]) * (x[c] - x[a]);

/** Indices of the lower (side 1) or upper (side −1) hull of points sorted by x, written into `kept`; how many. */
function chain(x: ArrayLike<number>, y: ArrayLike<number>, side: 1 | -1, kept: Int32Array): number {
  let size = 0;
  for (let i = 0; i < x.length; i++) {
    while (size > 1 && side * turn(x, y, kept[size - 2], kept[size - 1], i) <= 0) size--;
    kept[size++] = i;
  }
  return size;
}

/** Narrowest gap between lines along the edges of one hull and the corners of the other. */
function narrowestAlong(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  edges: Int32Array,
  edgeCount: number,
  others: Int32Array,
  otherCount: number,
): number {
  let narrowest = Infinity;
  for (let i = 1; i < edgeCount; i++) {
    const a = edges[i - 1];
    const b = edges[i];
    if (x[b] === x[a]) continue;
    const slope = (y[b] - y[a]) / (x[b] - x[a]);
    let gap = 0;
    for (let j = 0; j < otherCount; j++) gap = Math.max(gap, Math.abs(y[others[j]] - y[a] - slope * (x[others[j]] - x[a])));
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
  const lower = new Int32Array(x.length);
  const upper = new Int32Array(x.length);
  const [lowerCount, upperCount] = [chain(x, y, 1, lower), chain(x, y, -1, upper)];
  const narrowest = Math.min(
    narrowestAlong(x, y, lower, lowerCount, upper, upperCount),
    narrowestAlong(x, y, upper, upperCount, lower, lowerCount),
  );
  return narrowest === Infinity ? 0 : narrowest;
}

/** A pair of parallel lines: their slope (y per x) and the heights of both at x = 0. */
export interface ZoneLines {
  readonly slope: number;
  readonly low: number;
  readonly high: number;
}

/**
 * The narrowest pair of parallel lines that holds every point, to be drawn: one of them runs along an
 * edge of the hull.
 *
 * @param x places, ascending, at least two different ones. @param y heights.
 */
export function minimumZoneLines(x: readonly number[], y: readonly number[]): ZoneLines {
  const sides = ([1, -1] as const).map((side) => {
    const kept = new Int32Array(x.length);
    return kept.subarray(0, chain(x, y, side, kept));
  });
  const slopes = sides.flatMap((kept) =>
    [...kept.subarray(1)].flatMap((b, i) => (x[b] === x[kept[i]] ? [] : [(y[b] - y[kept[i]]) / (x[b] - x[kept[i]])])),
  );
  const along = (slope: number): ZoneLines => {
    const heights = y.map((height, i) => height - slope * x[i]);
    return { slope, low: Math.min(...heights), high: Math.max(...heights) };
  };
  return slopes.map(along).reduce((best, lines) => (lines.high - lines.low < best.high - best.low ? lines : best));
}
