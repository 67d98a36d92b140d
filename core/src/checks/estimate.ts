import { dot } from '../fit/line.js';

/** A doubt that does not come from reading the dial: a bar, a certificate, a grip. */
export interface Doubt {
  /** Short name shown in the budget. */
  readonly source: string;
  /** Standard uncertainty in the unit of the quantity. */
  readonly u: number;
}

/**
 * A quantity as a function of the slot values of one set-up.
 * `weights` are its exact sensitivities (linear quantities) or those at the values (magnitudes).
 */
export interface Estimate {
  readonly name: string;
  /** From slot values (µm or µm/m) to the quantity in its own unit, corrections included. */
  readonly evaluate: (values: ArrayLike<number>) => number;
  readonly weights: readonly number[];
  /** Corrections already in the value: the amount that each has added. */
  readonly terms: Readonly<Record<string, number>>;
  readonly doubts: readonly Doubt[];
  /** A size that cannot be negative: first-order uncertainty fails near zero. */
  readonly magnitude?: boolean;
  /** Other numbers worth showing beside it. */
  readonly detail?: Readonly<Record<string, number | string>>;
}

interface LinearParts {
  readonly terms?: Readonly<Record<string, number>>;
  readonly doubts?: readonly Doubt[];
  readonly detail?: Readonly<Record<string, number | string>>;
}

/** `value = Σ wᵢ·mᵢ + Σ terms`. */
export function linearEstimate(name: string, weights: readonly number[], parts: LinearParts = {}): Estimate {
  const terms = parts.terms ?? {};
  const constant = Object.values(terms).reduce((sum, term) => sum + term, 0);
  return {
    name,
    weights,
    terms,
    doubts: parts.doubts ?? [],
    detail: parts.detail,
    evaluate: (values) => dot(weights, values) + constant,
  };
}

/** √(a² + b²) of two linear quantities, a size. */
export function vectorEstimate(name: string, a: Estimate, b: Estimate, values: ArrayLike<number>): Estimate {
  const [x, y] = [a.evaluate(values), b.evaluate(values)];
  const length = Math.hypot(x, y) || 1;
  return {
    name,
    weights: a.weights.map((weight, i) => (weight * x + b.weights[i] * y) / length),
    terms: {},
    doubts: [
      ...a.doubts.map((doubt) => ({ source: doubt.source, u: (doubt.u * Math.abs(x)) / length })),
      ...b.doubts.map((doubt) => ({ source: doubt.source, u: (doubt.u * Math.abs(y)) / length })),
    ],
    magnitude: true,
    evaluate: (now) => Math.hypot(a.evaluate(now), b.evaluate(now)),
  };
}

/** Largest minus smallest of several linear forms (residuals, steps): a size. */
export function rangeEstimate(
  name: string,
  forms: readonly (readonly number[])[],
  constants: readonly number[],
  values: ArrayLike<number>,
): Estimate {
  const at = (now: ArrayLike<number>) => forms.map((form, i) => dot(form, now) + constants[i]);
  const now = at(values);
  const high = now.indexOf(Math.max(...now));
  const low = now.indexOf(Math.min(...now));
  return {
    name,
    weights: forms[high].map((weight, i) => weight - forms[low][i]),
    terms: {},
    doubts: [],
    magnitude: true,
    evaluate: (later) => {
      const forms = at(later);
      return Math.max(...forms) - Math.min(...forms);
    },
  };
}
