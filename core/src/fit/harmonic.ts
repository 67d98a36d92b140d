import { leastSquaresWeights } from './linearSystem.js';

/** Weights of mean, cosine and sine part of readings round a circle. */
export interface HarmonicWeights {
  /** Of each zero of the dial its own, in the order in which they come. */
  readonly means: readonly (readonly number[])[];
  readonly cosine: readonly number[];
  readonly sine: readonly number[];
}

/**
 * Least-squares first harmonic `m(θ) = mean + cosine·cos θ + sine·sin θ` as weights on the readings.
 *
 * @param degrees angles of the readings; at least three different ones that span the circle.
 * @param zeros number of the zero of the dial at each reading: readings of two zeros have nothing but the harmonic in common.
 * @returns undefined when the angles do not fix the harmonic.
 */
export function harmonicWeights(degrees: readonly number[], zeros: readonly number[] = degrees.map(() => 1)): HarmonicWeights | undefined {
  const known = [...new Set(zeros)];
  if (degrees.length < known.length + 2) return undefined;
  const weights = leastSquaresWeights(degrees.map((angle, i) => harmonicRow(angle, zeros[i], known)));
  if (!weights || weights.some((row) => row.some((weight) => Math.abs(weight) > 1e3))) return undefined;
  return { means: weights.slice(0, known.length), cosine: weights[known.length], sine: weights[known.length + 1] };
}

/** What one reading is made of: the mean of its zero, cosine and sine. @param known all zeros, in the order of their means. */
export function harmonicRow(degrees: number, zero: number, known: readonly number[]): number[] {
  const radians = (degrees * Math.PI) / 180;
  return [...known.map((other) => (other === zero ? 1 : 0)), Math.cos(radians), Math.sin(radians)];
}
