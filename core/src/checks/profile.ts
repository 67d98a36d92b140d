import { minimumZone } from '../fit/hull.js';
import { dot, fitLine, slopeWeights } from '../fit/line.js';
import { mean, type Slot } from '../instruments/slots.js';
import type { HeightAt } from './define.js';
import type { Estimate } from './estimate.js';

/** Heights along a way as forms on the slots: `height = Σ wᵢ·mᵢ + constant`, µm. */
export interface ProfilePoint {
  readonly at: number;
  readonly weights: readonly number[];
  readonly constant: number;
}

/** Heights of a profile as it was read, places ascending. */
export function heightsOf(points: readonly ProfilePoint[], slots: readonly Slot[]): HeightAt[] {
  const values = slots.map((slot) => slot.value);
  return [...points].sort((a, b) => a.at - b.at).map(({ at, weights, constant }) => ({ at, height: dot(weights, values) + constant }));
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

/**
 * Straightness of a profile, places ascending: the range about the least-squares line and the minimum zone, both sizes.
 * The detail names the shape and the worst place.
 */
export function straightnessEstimates(points: readonly ProfilePoint[], values: readonly number[]): Estimate[] {
  const x = points.map((point) => point.at);
  const slope = slopeWeights(x);
  const centre = mean(x);
  const room = new Float64Array(points.length);
  // The forms are mostly zeros: keep what is not, in flat arrays, because heights are asked for 100 000 times.
  const parts = points.map((point) => point.weights.flatMap((weight, i) => (weight === 0 ? [] : [[i, weight] as const])));
  const starts = parts.reduce<number[]>((all, part) => [...all, all[all.length - 1] + part.length], [0]);
  const slots = Int32Array.from(parts.flat(), ([slot]) => slot);
  const factors = Float64Array.from(parts.flat(), ([, weight]) => weight);
  const constants = Float64Array.from(points, (point) => point.constant);
  const heights = (now: ArrayLike<number>): Float64Array => {
    for (let k = 0; k < room.length; k++) {
      let height = constants[k];
      for (let e = starts[k]; e < starts[k + 1]; e++) height += factors[e] * now[slots[e]];
      room[k] = height;
    }
    return room;
  };
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
  const [high, low] = [residuals.indexOf(Math.max(...residuals)), residuals.indexOf(Math.min(...residuals))];
  const own = points.map((_, k) => (k === high ? 1 : 0) - (k === low ? 1 : 0) - slope[k] * (x[high] - x[low]));
  const weights = points[0].weights.map((_, i) => points.reduce((sum, point, k) => sum + own[k] * point.weights[i], 0));
  const worst = Math.abs(residuals[high]) >= Math.abs(residuals[low]) ? high : low;
  const size = { weights, terms: {}, doubts: [], magnitude: true, detail: { shape: profileShape(x, y), worstAt: x[worst] } } as const;
  return [
    { ...size, name: 'straightness', evaluate: range },
    { ...size, name: 'minimumZone', evaluate: (now) => minimumZone(x, heights(now)) },
  ];
}
