/**
 * Weights of the least-squares slope: `slope = Σ wᵢ·yᵢ`, in y per x.
 *
 * @param x abscissae; at least two different ones.
 * @throws RangeError when all x are the same.
 * @example slopeWeights([0, 10]) // [-0.1, 0.1]
 */
export function slopeWeights(x: readonly number[]): number[] {
  const centre = x.reduce((sum, value) => sum + value, 0) / x.length;
  const spread = x.reduce((sum, value) => sum + (value - centre) ** 2, 0);
  if (!(spread > 0)) throw new RangeError('a slope needs two different places');
  return x.map((value) => (value - centre) / spread);
}

/** Σ aᵢ·bᵢ. */
export function dot(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

/** A least-squares line through (x, y): slope, height at x = 0, residuals and their range. */
export function fitLine(x: readonly number[], y: readonly number[]) {
  const weights = slopeWeights(x);
  const slope = dot(weights, y);
  const at0 = (y.reduce((sum, value) => sum + value, 0) - slope * x.reduce((sum, value) => sum + value, 0)) / x.length;
  const residuals = y.map((value, i) => value - at0 - slope * x[i]);
  return { slope, at0, residuals, range: Math.max(...residuals) - Math.min(...residuals) };
}
