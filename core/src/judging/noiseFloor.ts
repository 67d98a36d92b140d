import { seededRandom } from '../fit/random.js';
import type { DoubtCode } from '../checks/doubts.js';
import type { Estimate } from '../checks/estimate.js';

/** Doubts of reading the slots themselves: drawn slot by slot, not as one. */
const OF_SLOTS: readonly DoubtCode[] = ['dial', 'repeating'];
/** Draws for a few slots; fewer for many, so that a long round is answered at once. */
const DRAWS = 300;
const LEAST_DRAWS = 60;
const WORK = 40_000;

/** The same draws serve every size: made once, they cost nothing with the next reading. */
let drawn: Float64Array | undefined;

/** So many normal numbers, always the same ones. */
function normals(count: number): Float64Array {
  if (drawn && drawn.length >= count) return drawn;
  const random = seededRandom(1);
  const made = Float64Array.from({ length: Math.max(count, WORK) }, () => random.normal());
  // What a very long round needs is not kept.
  if (count <= 2 * WORK) drawn = made;
  return made;
}

/**
 * What a size would be of its doubts alone: the 95 % point of the same size when its readings carry nothing else.
 * Equal readings of a coarse dial are not a size of 0 ± 0.
 *
 * @param scatters standard uncertainty of reading each slot. @param lines the other doubts, in the quantity's unit.
 * Source: docs/methods/uncertainty.md.
 */
export function noiseFloor(
  estimate: Estimate,
  scatters: Float64Array,
  lines: readonly { readonly source: DoubtCode; readonly u: number }[],
): number {
  const size = estimate.bare ?? estimate.evaluate;
  const other = Math.sqrt(lines.reduce((sum, { source, u }) => (OF_SLOTS.includes(source) ? sum : sum + u ** 2), 0));
  const draws = Math.max(LEAST_DRAWS, Math.min(DRAWS, Math.floor(WORK / Math.max(1, scatters.length))));
  const now = new Float64Array(scatters.length);
  const sizes = new Float64Array(draws);
  const draw = normals(draws * (now.length + 1));
  for (let k = 0, next = 0; k < draws; k++) {
    for (let i = 0; i < now.length; i++) now[i] = scatters[i] * draw[next++];
    sizes[k] = Math.abs(size(now) + other * draw[next++]);
  }
  sizes.sort();
  return sizes[Math.floor(0.95 * (draws - 1))];
}
