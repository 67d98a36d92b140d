import type { DoubtCode } from '../checks/doubts.js';
import type { Estimate } from '../checks/estimate.js';
import type { Instrument } from '../instruments/instrument.js';
import { mean, type Slot } from '../instruments/slots.js';
import { noiseFloor } from './noiseFloor.js';
import { coverageFactor } from './studentT.js';

/** One line of an uncertainty budget: standard uncertainty in the quantity's unit and its share of u². */
export interface BudgetLine {
  readonly source: DoubtCode;
  readonly u: number;
  readonly share: number;
}

/** The doubt about one quantity: u, U = t·u and where it comes from, largest first. */
export interface Uncertainty {
  readonly u: number;
  readonly expanded: number;
  readonly degreesOfFreedom: number;
  readonly budget: readonly BudgetLine[];
  /** Of a size: what its doubts alone would make it, 95 times of a hundred; 0 for other quantities. */
  readonly floor: number;
  /** What reseating by the usual spread would add to u². */
  readonly reseating: number;
}

/** Scatter of re-reading one place, pooled over the round: s (undefined without repeats) and its degrees of freedom. */
export interface Repeatability {
  readonly s: number | undefined;
  readonly degreesOfFreedom: number;
}

/** Pool the scatter of all repeated slots. */
export function pooledRepeatability(slots: readonly Slot<object>[]): Repeatability {
  let squares = 0;
  let degreesOfFreedom = 0;
  for (const { repeats, value } of slots) {
    for (const repeat of repeats) squares += (repeat - value) ** 2;
    degreesOfFreedom += repeats.length - 1;
  }
  return { s: degreesOfFreedom > 0 ? Math.sqrt(squares / degreesOfFreedom) : undefined, degreesOfFreedom };
}

/** Standard uncertainty of reading one slot, without the instrument's own accuracy: resolution and repeatability. */
export function slotScatter(
  slot: Slot<object>,
  instrument: Instrument,
  pooled: Repeatability,
): { resolution: number; repeatability: number } {
  const { graduation, readTo } = instrument;
  return {
    resolution: 0.29 * readTo * graduation,
    repeatability: pooled.s === undefined ? graduation / 4 : Math.max(pooled.s / Math.sqrt(slot.repeats.length), graduation / 8),
  };
}

/**
 * How much of the instrument's accuracy enters: one error shared by neighbouring readings, so a
 * difference of two readings takes it once, in proportion to the part of the range that was used.
 */
export function accuracyFraction(slots: readonly Slot<object>[], weights: readonly number[], instrument: Instrument): number {
  if (instrument.range === undefined) return 1;
  let [low, high] = [Infinity, -Infinity];
  slots.forEach(({ value }, i) => {
    if (weights[i] === 0) return;
    if (value < low) low = value;
    if (value > high) high = value;
  });
  return high > low ? Math.min(1, (high - low) / (instrument.range * instrument.graduation)) : 1;
}

/** Half of what all weights come to: how much of one shared error a difference takes. */
export function spanOfWeights(weights: readonly number[]): number {
  let sum = 0;
  for (const weight of weights) sum += Math.abs(weight);
  return sum / 2;
}

/** Spread of a result when a bar is reseated or a thing clamped again, µm of its readings, until earlier rounds tell better. */
export const RESEAT_SPREAD = 3;

export interface UncertaintyInput {
  readonly estimate: Estimate;
  readonly slots: readonly Slot<object>[];
  readonly instrument: Instrument;
  readonly pooled: Repeatability;
  /** The quantity's value in each set-up. */
  readonly bySet: readonly number[];
  /** Spread of reseating, in the unit of the readings. */
  readonly reseatSpread?: number;
  /** Later minus earlier of places read again, µm: what wandered during the round. */
  readonly drift?: number;
}

/**
 * First-order uncertainty of one quantity.
 * u² = Σ (cᵢ·uᵢ)² over the slots, plus accuracy once, plus the doubts of the check, plus the spread
 * of the set-ups, (s₀² + (n − 1)·s²)/n² with n degrees of freedom. U = t·u with t for 95 % from the effective
 * degrees of freedom, and for a size never below what its doubts alone would make it.
 *
 * Source: docs/methods/uncertainty.md.
 */
export function uncertaintyOf(input: UncertaintyInput): Uncertainty {
  const { estimate, slots, instrument, pooled, bySet, reseatSpread = RESEAT_SPREAD, drift = 0 } = input;
  let resolution = 0;
  let repeatability = 0;
  const scatters = new Float64Array(slots.length);
  slots.forEach((slot, i) => {
    const scatter = slotScatter(slot, instrument, pooled);
    scatters[i] = Math.hypot(scatter.resolution, scatter.repeatability);
    const weight = estimate.weights[i];
    if (weight === 0) return;
    resolution += (weight * scatter.resolution) ** 2;
    repeatability += (weight * scatter.repeatability) ** 2;
  });
  const span = spanOfWeights(estimate.weights);
  const accuracy = span * (instrument.accuracy / Math.sqrt(3)) * accuracyFraction(slots, estimate.weights, instrument);
  const lines: Line[] = [
    { source: 'dial', u: Math.sqrt(resolution), dof: Infinity },
    { source: 'repeating', u: Math.sqrt(repeatability), dof: pooled.s === undefined ? Infinity : pooled.degreesOfFreedom },
    { source: 'accuracy', u: accuracy, dof: Infinity },
    { source: 'wandering', u: (span * Math.abs(drift)) / Math.sqrt(12), dof: Infinity },
    ...estimate.doubts.map((doubt) => ({ ...doubt, dof: Infinity })),
  ];
  const usual = reseatSpread * span;
  const n = bySet.length;
  if (n > 1) {
    const middle = mean(bySet);
    const squares = bySet.reduce((sum, value) => sum + (value - middle) ** 2, 0);
    lines.push({ source: 'setting-up', u: Math.sqrt(usual ** 2 + squares) / n, dof: n });
  }
  const floor = estimate.magnitude ? noiseFloor(estimate, scatters, lines) : 0;
  return { ...combine(lines, floor), reseating: usual ** 2 };
}

interface Line {
  readonly source: DoubtCode;
  readonly u: number;
  readonly dof: number;
}

function combine(lines: readonly Line[], floor: number): Omit<Uncertainty, 'reseating'> {
  // In parts of the largest: squares of what is tiny or huge are nothing or no number any more.
  const largest = Math.max(0, ...lines.map((line) => line.u));
  const parts = lines.map((line) => ({ ...line, part: largest > 0 ? line.u / largest : 0 }));
  const variance = parts.reduce((sum, { part }) => sum + part ** 2, 0);
  const u = largest * Math.sqrt(variance);
  const weakness = parts.reduce((sum, { part, dof }) => sum + part ** 4 / dof, 0);
  const degreesOfFreedom = weakness > 0 ? variance ** 2 / weakness : Infinity;
  const budget = parts
    .filter((line) => line.u > 1e-6 * u)
    .map(({ source, u: own, part }) => ({ source, u: own, share: part ** 2 / variance }))
    .sort((a, b) => b.share - a.share);
  return { u, floor, expanded: Math.max(coverageFactor(degreesOfFreedom) * u, floor), degreesOfFreedom, budget };
}
