/** Far enough to be beyond every picture, px². */
const FAR = 1e12;

/** Squared distances along one line to the nearest source, each with the cost that it begins with: the lower envelope of parabolas. */
function alongLine(cost: Float64Array, n: number, out: Float64Array, roots: Int32Array, bounds: Float64Array): void {
  let last = 0;
  roots[0] = 0;
  bounds[0] = -Infinity;
  bounds[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let cut = 0;
    for (;;) {
      const root = roots[last];
      cut = (cost[q] + q * q - (cost[root] + root * root)) / (2 * (q - root));
      if (cut > bounds[last]) break;
      last--;
    }
    roots[++last] = q;
    bounds[last] = cut;
    bounds[last + 1] = Infinity;
  }
  for (let q = 0, k = 0; q < n; q++) {
    while (bounds[k + 1] < q) k++;
    const away = q - roots[k];
    out[q] = away * away + cost[roots[k]];
  }
}

/**
 * How far the place that is farthest from every closed one lies from them: the radius, px, of the largest circle that fits
 * between them and inside the picture. 0 where everything is closed.
 *
 * Exact, by two passes over the lines (distance transform of sampled functions). Closed pixels reach to their edges.
 */
export function largestCircle(closed: Uint8Array, width: number, height: number): number {
  // A frame of closed pixels all round: a circle stays inside the picture.
  const [w, h] = [width + 2, height + 2];
  const grid = new Float64Array(w * h);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (!closed[y * width + x]) grid[(y + 1) * w + x + 1] = FAR;
  const most = Math.max(w, h);
  const [line, out, roots, bounds] = [new Float64Array(most), new Float64Array(most), new Int32Array(most), new Float64Array(most + 1)];
  for (let x = 0; x < w; x++) {
    for (let y = 0; y < h; y++) line[y] = grid[y * w + x];
    alongLine(line, h, out, roots, bounds);
    for (let y = 0; y < h; y++) grid[y * w + x] = out[y];
  }
  let farthest = 0;
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) line[x] = grid[y * w + x];
    alongLine(line, w, out, roots, bounds);
    for (let x = 0; x < w; x++) if (out[x] > farthest) farthest = out[x];
  }
  return farthest === 0 ? 0 : Math.sqrt(farthest) - 0.5;
}
