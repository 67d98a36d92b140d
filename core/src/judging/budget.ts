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
  /** What setting up brings in. */
  readonly settingUp: SettingUp;
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

/** Degrees of freedom that the usual spread counts as, beside what a shop has learned. */
const PRIOR_DEGREES = 10;

/** Spread between set-ups that was learned elsewhere: pooled standard deviation, in the unit of the readings, and its degrees of freedom. */
export interface SetupSpread {
  readonly s: number;
  readonly degrees: number;
}

/** Spreads as one: their squares weigh by their degrees of freedom. */
export function poolSpreads(groups: readonly SetupSpread[]): SetupSpread {
  const degrees = groups.reduce((sum, group) => sum + group.degrees, 0);
  return { s: Math.sqrt(groups.reduce((sum, { s, degrees: nu }) => sum + nu * s ** 2, 0) / degrees), degrees };
}

/**
 * Spread of one set-up, in the unit of the readings: the usual one, what was learned elsewhere and the set-ups of this round, pooled by
 * their degrees of freedom.
 *
 * @param prior standard deviation before anything is learned. @param own sum of squares of this round's set-ups about their mean.
 */
export function pooledSpread(prior: number, learned: SetupSpread | undefined, own: SetupSpread | undefined): SetupSpread {
  return poolSpreads([{ s: prior, degrees: PRIOR_DEGREES }, ...(learned ? [learned] : []), ...(own ? [own] : [])]);
}

/** How a quantity varies from set-up to set-up. */
export interface SettingUp {
  /** Spread of one set-up in the unit of the readings, with its degrees of freedom. */
  readonly spread: SetupSpread;
  /** Standard uncertainty of the mean over this round's set-ups, in the quantity's unit. */
  readonly u: number;
  readonly sets: number;
  /** What the set-ups of this round showed by themselves. */
  readonly own?: SetupSpread;
}

/**
 * What setting up brings into a quantity, from the first set-up on: s_p/√n times how far the readings count in it.
 *
 * @param bySet the quantity in each set-up.
 * Source: docs/methods/uncertainty.md, "Set-ups".
 */
export function settingUpOf(
  weights: readonly number[],
  bySet: readonly number[],
  prior: number,
  learned: SetupSpread | undefined,
): SettingUp {
  const sets = bySet.length;
  // The weights of merged set-ups share one sum: together they are those of one set-up.
  const each = spanOfWeights(weights);
  const middle = mean(bySet);
  const squares = bySet.reduce((sum, value) => sum + (value - middle) ** 2, 0);
  const own = sets > 1 && each > 0 ? { s: Math.sqrt(squares / (sets - 1)) / each, degrees: sets - 1 } : undefined;
  const spread = pooledSpread(prior, learned, own);
  return { spread, u: (spread.s * each) / Math.sqrt(sets), sets, ...(own && { own }) };
}

export interface UncertaintyInput {
  readonly estimate: Estimate;
  readonly slots: readonly Slot<object>[];
  readonly instrument: Instrument;
  readonly pooled: Repeatability;
  /** The quantity's value in each set-up. */
  readonly bySet: readonly number[];
  /** Spread of reseating before anything is learned, in the unit of the readings; 0 where nothing is reseated. */
  readonly reseatSpread?: number;
  /** What earlier rounds have shown of it. */
  readonly learnedSpread?: SetupSpread;
  /** Later minus earlier of places read again, µm: what wandered during the round. */
  readonly drift?: number;
  /** The readings do not follow their model: their part grows by this factor. */
  readonly widening?: { readonly factor: number; readonly degreesOfFreedom: number };
}

/**
 * First-order uncertainty of one quantity.
 * u² = Σ (cᵢ·uᵢ)² over the slots, plus accuracy once, plus the doubts of the check, plus setting up, s_p²/n. U = t·u with t
 * for 95 % from the effective degrees of freedom, and for a size never below what its doubts alone would make it.
 *
 * Source: docs/methods/uncertainty.md.
 */
export function uncertaintyOf(input: UncertaintyInput): Uncertainty {
  const { estimate, slots, instrument, pooled, bySet, reseatSpread = 0, learnedSpread, drift = 0, widening } = input;
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
  const settingUp = settingUpOf(estimate.weights, bySet, reseatSpread, learnedSpread);
  const lines: Line[] = [
    { source: 'dial', u: Math.sqrt(resolution), dof: Infinity },
    { source: 'repeating', u: Math.sqrt(repeatability), dof: pooled.s === undefined ? Infinity : pooled.degreesOfFreedom },
    { source: 'accuracy', u: accuracy, dof: Infinity },
    { source: 'wandering', u: (span * Math.abs(drift)) / Math.sqrt(12), dof: Infinity },
    ...estimate.doubts.map((doubt) => ({ ...doubt, dof: Infinity })),
  ];
  if (widening && widening.factor > 1) {
    const u = Math.sqrt(lines.reduce((sum, line) => sum + line.u ** 2, 0) * (widening.factor ** 2 - 1));
    lines.push({ source: 'shape', u, dof: widening.degreesOfFreedom });
  }
  if (settingUp.u > 0) lines.push({ source: 'setting-up', u: settingUp.u, dof: settingUp.spread.degrees });
  const floor = estimate.magnitude ? noiseFloor(estimate, scatters, lines) : 0;
  return { ...combine(lines, floor), settingUp };
}

interface Line {
  readonly source: DoubtCode;
  readonly u: number;
  readonly dof: number;
}

function combine(lines: readonly Line[], floor: number): Omit<Uncertainty, 'settingUp'> {
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
