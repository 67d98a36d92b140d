import { leastSquaresWeights } from './linearSystem.js';

/** Weights of mean, cosine and sine part of readings round a circle. */
export interface HarmonicWeights {
  readonly mean: readonly number[];
  readonly cosine: readonly number[];
  readonly sine: readonly number[];
}

/**
 * Least-squares first harmonic `m(θ) = mean + cosine·cos θ + sine·sin θ` as weights on the readings.
 *
 * @param degrees angles of the readings; at least three different ones that span the circle.
 * @returns undefined when the angles do not fix the harmonic.
 */
export function harmonicWeights(degrees: readonly number[]): HarmonicWeights | undefined {
  if (degrees.length < 3) return undefined;
  const design = degrees.map((angle) => [1, Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)]);
  const weights = leastSquaresWeights(design);
  if (!weights || weights.some((row) => row.some((weight) => Math.abs(weight) > 1e3))) return undefined;
  return { mean: weights[0], cosine: weights[1], sine: weights[2] };
}
