import type { Zone } from './verdict.js';
import { coverageFactor } from './studentT.js';

/** A value that was read at a time: ms since 1970, and its standard uncertainty in its own unit. */
export interface TrendPoint {
  readonly at: number;
  readonly value: number;
  readonly u: number;
}

/** When a value will have left its zone: where its line meets the bound, and the range in which it does (95 %). */
export interface Leaving {
  readonly bound: number;
  readonly at: number;
  readonly from: number;
  /** Null where the band of the line never reaches the bound. */
  readonly to: number | null;
}

/** What values of one quantity over time say together. */
export type Trend =
  /** One value, or none. */
  | { readonly kind: 'nothing' }
  /** Two values make no trend: only whether they differ by more than both doubts. */
  | { readonly kind: 'two'; readonly difference: number; readonly expanded: number; readonly differ: boolean }
  | {
      readonly kind: 'line';
      /** Per year, with its expanded uncertainty. */
      readonly slope: number;
      readonly expanded: number;
      /** Whether it drifts: a slope that is smaller than its doubt is none. */
      readonly drifts: boolean;
      /** The values scatter by more than their doubts allow, by this factor; 1 where they do not. */
      readonly scatter: number;
      /** Slowing down or speeding up, where five values or more say so. */
      readonly bends: 'settling' | 'growing' | null;
      readonly leaves: Leaving | null;
      /** Days after which it is well read again; null where nothing drifts out. */
      readonly readAgainAfter: number | null;
      /** The line: its value at a time. */
      readonly line: (at: number) => number;
      /** Half the width of its 95 % band at a time. */
      readonly band: (at: number) => number;
    };

export const YEAR = 365.25 * 86_400_000;
const DAY = 86_400_000;
/** A re-check is due no sooner than after a month, and no later than after three years, days. */
const [SOONEST, LATEST] = [30, 1096];
/** Values that a bend wants. */
const BENDS = 5;
/** A line wants a degree of freedom more than its two figures. */
const LINE = 3;

interface Weighted {
  /** Years from the weighted middle. */
  readonly x: number;
  readonly y: number;
  readonly w: number;
}

const sum = (points: readonly Weighted[], of: (point: Weighted) => number): number =>
  points.reduce((total, point) => total + point.w * of(point), 0);

/** Whether the line bends: the third figure of a parabola, beside its own doubt. Its sign against the slope tells which way. */
function bendOf(points: readonly Weighted[], slope: number): 'settling' | 'growing' | null {
  if (points.length < BENDS) return null;
  const all = sum(points, () => 1);
  // Square to what a line can follow already: what is left of x².
  const [xx, x3] = [sum(points, ({ x }) => x * x), sum(points, ({ x }) => x ** 3)];
  const bow = points.map(({ x }) => x * x - xx / all - (x3 / xx) * x);
  const norm = points.reduce((total, { w }, i) => total + w * bow[i] ** 2, 0);
  if (!(norm > 1e-9 * sum(points, ({ x }) => x ** 4))) return null;
  const mean = sum(points, ({ y }) => y) / all;
  const c = points.reduce((total, { w, y }, i) => total + w * bow[i] * y, 0) / norm;
  const left = points.map(({ x, y }, i) => y - mean - slope * x - c * bow[i]);
  const degrees = points.length - 3;
  const chi = Math.max(1, points.reduce((total, { w }, i) => total + w * left[i] ** 2, 0) / degrees);
  const k = chi > 1 ? coverageFactor(degrees) : 2;
  if (Math.abs(c) <= k * Math.sqrt(chi / norm)) return null;
  return c * slope < 0 ? 'settling' : 'growing';
}

/**
 * Values of one quantity at one place under like conditions, since the last move that upsets it: whether they drift, and when the
 * value leaves its zone. Weighted least squares on time; where the values scatter by more than their doubts, those are widened by
 * √(χ²/ν).
 *
 * @param points in any order; those of one time count each. @param zone in the unit of the values.
 * Source: docs/methods/trends.md.
 */
export function trendOf(points: readonly TrendPoint[], zone: Zone): Trend {
  const sorted = [...points].filter(({ value, u }) => Number.isFinite(value) && u > 0).sort((one, other) => one.at - other.at);
  if (sorted.length < 2) return { kind: 'nothing' };
  if (sorted.length < LINE || sorted[0].at === sorted[sorted.length - 1].at) return twoOf(sorted);
  const weights = sorted.map(({ u }) => 1 / u ** 2);
  const all = weights.reduce((total, w) => total + w, 0);
  const middle = sorted.reduce((total, { at }, i) => total + weights[i] * at, 0) / all;
  const weighted = sorted.map(({ at, value }, i): Weighted => ({ x: (at - middle) / YEAR, y: value, w: weights[i] }));
  const [mean, xx] = [sum(weighted, ({ y }) => y) / all, sum(weighted, ({ x }) => x * x)];
  const slope = sum(weighted, ({ x, y }) => x * (y - mean)) / xx;
  const degrees = sorted.length - 2;
  const chi = sum(weighted, ({ x, y }) => (y - mean - slope * x) ** 2) / degrees;
  const scatter = Math.sqrt(Math.max(1, chi));
  const spread = (scatter > 1 ? coverageFactor(degrees) : 2) * scatter;
  const expanded = spread / Math.sqrt(xx);
  const drifts = Math.abs(slope) > expanded;
  const leaves = drifts ? leavingOf({ slope, mean, all, xx, spread, middle }, zone) : null;
  const last = sorted[sorted.length - 1].at;
  return {
    ...{ kind: 'line', slope, expanded, drifts, scatter, leaves },
    bends: bendOf(weighted, slope),
    readAgainAfter: leaves && Math.min(LATEST, Math.max(SOONEST, Math.floor((leaves.from - last) / 2 / DAY))),
    line: (at) => mean + (slope * (at - middle)) / YEAR,
    band: (at) => spread * Math.sqrt(1 / all + ((at - middle) / YEAR) ** 2 / xx),
  };
}

/** The first value against the last: two make no trend. */
function twoOf(sorted: readonly TrendPoint[]): Trend {
  const [first, last] = [sorted[0], sorted[sorted.length - 1]];
  const [difference, expanded] = [last.value - first.value, 2 * Math.hypot(first.u, last.u)];
  return { kind: 'two', difference, expanded, differ: Math.abs(difference) > expanded };
}

interface Line {
  readonly slope: number;
  readonly mean: number;
  /** Σ w, and Σ w·x² with x in years from the middle. */
  readonly all: number;
  readonly xx: number;
  /** Coverage factor with what the scatter adds. */
  readonly spread: number;
  readonly middle: number;
}

/**
 * Where a line that drifts meets the bound ahead of it, and where the 95 % band of the line does:
 * (mean + slope·x − bound)² = k²·(1/Σw + x²/Σw·x²).
 */
function leavingOf({ slope, mean, all, xx, spread, middle }: Line, [low, high]: Zone): Leaving | null {
  const bound = slope > 0 ? high : low;
  if (bound === null) return null;
  const off = mean - bound;
  const [a, b, c] = [slope ** 2 - spread ** 2 / xx, slope * off, off ** 2 - spread ** 2 / all];
  const root = Math.sqrt(Math.max(0, b * b - a * c));
  const time = (x: number): number => middle + x * YEAR;
  const [one, other] = [(-b - root) / a, (-b + root) / a];
  // A slope that is larger than its doubt has both: the earlier is where its upper edge arrives.
  return { bound, at: time(-off / slope), from: time(Math.min(one, other)), to: a > 0 ? time(Math.max(one, other)) : null };
}
