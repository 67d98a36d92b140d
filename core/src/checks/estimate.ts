import { dot } from '../fit/line.js';
import type { DoubtCode } from './doubts.js';
import type { Zone } from './zone.js';

/** A doubt that does not come from reading the dial: a bar, a certificate, a grip. */
export interface Doubt {
  readonly source: DoubtCode;
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
  /** Of a size: what it would be of these values alone, without corrections; told when `evaluate` has constants. */
  readonly bare?: (values: ArrayLike<number>) => number;
  /** What has still to be read before it may be judged: it belongs to a reversal that is half done. */
  readonly open?: string;
  /** What it can never be called, whatever the readings say: evidence that proves itself. */
  readonly never?: 'in';
  /** Why it may not be judged although it can be worked out. */
  readonly unsure?: true;
  /** What limits it where nothing else does: one line of a place that is limited as a whole. */
  readonly zone?: Zone;
  /** Other numbers worth showing beside it. */
  readonly detail?: Readonly<Record<string, number | string>>;
}

interface LinearParts extends Pick<Estimate, 'open' | 'never' | 'unsure'> {
  readonly terms?: Readonly<Record<string, number>>;
  readonly doubts?: readonly Doubt[];
  readonly detail?: Readonly<Record<string, number | string>>;
}

/** `value = Σ wᵢ·mᵢ + Σ terms`. */
export function linearEstimate(
  name: string,
  weights: readonly number[],
  { terms = {}, doubts = [], ...parts }: LinearParts = {},
): Estimate {
  const constant = Object.values(terms).reduce((sum, term) => sum + term, 0);
  return { name, weights, terms, doubts, ...parts, evaluate: (values) => dot(weights, values) + constant };
}

/** A swing: the size of a linear form, whichever way round it was read. */
export function swingEstimate(name: string, weights: readonly number[], parts: LinearParts = {}): Estimate {
  return {
    ...linearEstimate(name, weights, parts),
    magnitude: true,
    evaluate: (values) => Math.abs(dot(weights, values)),
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
    open: a.open ?? b.open,
    evaluate: (now) => Math.hypot(a.evaluate(now), b.evaluate(now)),
    bare: (now) => Math.hypot(dot(a.weights, now), dot(b.weights, now)),
  };
}

/** A size times a factor: half of a swing, both sides of an offset. */
export function scaledEstimate(name: string, estimate: Estimate, factor: number): Estimate {
  const { evaluate, bare } = estimate;
  return {
    ...estimate,
    name,
    weights: estimate.weights.map((weight) => weight * factor),
    terms: Object.fromEntries(Object.entries(estimate.terms).map(([term, amount]) => [term, amount * factor])),
    doubts: estimate.doubts.map(({ source, u }) => ({ source, u: u * Math.abs(factor) })),
    evaluate: (values) => factor * evaluate(values),
    ...(bare && { bare: (values) => factor * bare(values) }),
  };
}

/** A few slots and their weights: most forms weigh two or three of thousands. */
export type Form = readonly (readonly [slot: number, weight: number])[];

/** Σ over a form. */
export function formValue(form: Form, values: ArrayLike<number>): number {
  let sum = 0;
  for (let k = 0; k < form.length; k++) sum += form[k][1] * values[form[k][0]];
  return sum;
}

/** A form as weights on all slots. */
export function formWeights(form: Form, size: number): number[] {
  const weights = new Array<number>(size).fill(0);
  for (const [slot, weight] of form) weights[slot] += weight;
  return weights;
}

/** Largest minus smallest of several forms (sizes, steps): a size. */
export function rangeEstimate(name: string, forms: readonly Form[], values: ArrayLike<number>): Estimate {
  const ends = (now: ArrayLike<number>): [high: number, low: number] => {
    let [high, low] = [0, 0];
    let [most, least] = [-Infinity, Infinity];
    forms.forEach((form, k) => {
      const value = formValue(form, now);
      if (value > most) [most, high] = [value, k];
      if (value < least) [least, low] = [value, k];
    });
    return [high, low];
  };
  const range = (now: ArrayLike<number>): number => {
    const [high, low] = ends(now);
    return formValue(forms[high], now) - formValue(forms[low], now);
  };
  const [high, low] = ends(values);
  const weights = formWeights([...forms[high], ...forms[low].map(([slot, weight]) => [slot, -weight] as const)], values.length);
  return { name, weights, terms: {}, doubts: [], magnitude: true, evaluate: range };
}

/** The largest of several forms, whichever way each goes: a size. `worst` tells which. */
export function largestEstimate(name: string, forms: readonly Form[], values: ArrayLike<number>): Estimate & { readonly worst: number } {
  const largest = (now: ArrayLike<number>): [index: number, size: number] => {
    let found: [number, number] = [0, -1];
    forms.forEach((form, k) => {
      const size = Math.abs(formValue(form, now));
      if (size > found[1]) found = [k, size];
    });
    return found;
  };
  const [worst] = largest(values);
  const sign = formValue(forms[worst], values) < 0 ? -1 : 1;
  return {
    name,
    worst,
    weights: formWeights(
      forms[worst].map(([slot, weight]) => [slot, sign * weight] as const),
      values.length,
    ),
    terms: {},
    doubts: [],
    magnitude: true,
    evaluate: (now) => largest(now)[1],
  };
}

/** Height of one place of a profile. */
export interface HeightAt {
  /** mm. */
  readonly at: number;
  /** µm. */
  readonly height: number;
}
