import { minimumZone } from '../fit/hull.js';
import { dot, fitLine, slopeWeights } from '../fit/line.js';
import { mean, type Slot } from '../instruments/slots.js';
import type { Estimate, HeightAt } from './estimate.js';

/** Heights along something, worked out from slot values: µm at ascending places, mm. */
export interface Profile {
  readonly at: readonly number[];
  readonly heights: (values: ArrayLike<number>) => Float64Array;
  /** Σ ownₖ·heightₖ as weights on the slots. */
  readonly weigh: (own: readonly number[]) => number[];
}

/** Heights of a profile as it was read, places ascending. */
export function heightsOf(profile: Profile, slots: readonly Slot<object>[]): HeightAt[] {
  const heights = profile.heights(slots.map((slot) => slot.value));
  return profile.at.map((at, k) => ({ at, height: heights[k] }));
}

export type Shape = 'hollow' | 'crowned' | 'mixed';

/**
 * Shape of a profile: hollow when its ends stand high, crowned when its middle does; mixed when a
 * parabola explains less than half of what is left after the line.
 */
export function profileShape(x: readonly number[], y: readonly number[]): Shape {
  if (x.length < 3) return 'mixed';
  const { residuals } = fitLine(x, y);
  const middle = mean(x);
  const bend = fitLine(
    x,
    x.map((place) => (place - middle) ** 2),
  ).residuals;
  const size = dot(bend, bend);
  if (!(size > 0)) return 'mixed';
  const factor = dot(bend, residuals) / size;
  const explained = factor ** 2 * size;
  if (!(explained > dot(residuals, residuals) / 2)) return 'mixed';
  return factor > 0 ? 'hollow' : 'crowned';
}

/** Index of the highest and of the lowest of some values. */
function endsOf(values: ArrayLike<number>): [high: number, low: number] {
  let [high, low] = [0, 0];
  for (let k = 1; k < values.length; k++) {
    if (values[k] > values[high]) high = k;
    if (values[k] < values[low]) low = k;
  }
  return [high, low];
}

/**
 * Straightness of a profile: the range about the least-squares line and the minimum zone, both sizes.
 * The detail names the shape and the worst place.
 */
export function straightnessEstimates(profile: Profile, values: readonly number[], open?: string): Estimate[] {
  const { at: x, heights, weigh } = profile;
  const slope = slopeWeights(x);
  const centre = mean(x);
  /** Range about the least-squares line, without making anything: it is asked for 100 000 times. */
  const range = (now: ArrayLike<number>): number => {
    const here = heights(now);
    const gradient = dot(slope, here);
    let [high, low] = [-Infinity, Infinity];
    for (let k = 0; k < here.length; k++) {
      const residual = here[k] - gradient * (x[k] - centre);
      if (residual > high) high = residual;
      if (residual < low) low = residual;
    }
    return high - low;
  };
  const y = Array.from(heights(values));
  const { residuals } = fitLine(x, y);
  const [high, low] = endsOf(residuals);
  const own = x.map((_, k) => (k === high ? 1 : 0) - (k === low ? 1 : 0) - slope[k] * (x[high] - x[low]));
  const worst = Math.abs(residuals[high]) >= Math.abs(residuals[low]) ? high : low;
  const size = {
    weights: weigh(own),
    terms: {},
    doubts: [],
    magnitude: true,
    detail: { shape: profileShape(x, y), worstAt: x[worst] },
    ...(open !== undefined && { open }),
  } as const;
  return [
    { ...size, name: 'straightness', evaluate: range },
    { ...size, name: 'minimumZone', evaluate: (now) => minimumZone(x, heights(now)) },
  ];
}
