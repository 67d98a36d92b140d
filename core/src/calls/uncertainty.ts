import type { Estimate } from '../checks/estimate.js';
import type { Instrument } from '../instruments/instrument.js';
import type { Slot } from '../instruments/slots.js';
import { mean } from '../instruments/slots.js';
import { coverageFactor } from './studentT.js';

/** One line of an uncertainty budget: standard uncertainty in the quantity's unit and its share of u². */
export interface BudgetLine {
  readonly source: string;
  readonly u: number;
  readonly share: number;
}

/** The doubt about one quantity: u, U = t·u and where it comes from, largest first. */
export interface Uncertainty {
  readonly u: number;
  readonly expanded: number;
  readonly degreesOfFreedom: number;
  readonly budget: readonly BudgetLine[];
}

/** Scatter of re-reading one place, pooled over the round: s (undefined without repeats) and its degrees of freedom. */
export interface Repeatability {
  readonly s: number | undefined;
  readonly degreesOfFreedom: number;
}

/** Pool the scatter of all repeated slots. */
export function pooledRepeatability(slots: readonly Slot[]): Repeatability {
  let squares = 0;
  let degreesOfFreedom = 0;
  for (const { repeats, value } of slots) {
    for (const repeat of repeats) squares += (repeat - value) ** 2;
    degreesOfFreedom += repeats.length - 1;
  }
  return { s: degreesOfFreedom > 0 ? Math.sqrt(squares / degreesOfFreedom) : undefined, degreesOfFreedom };
}

/** Standard uncertainty of reading one slot, without the instrument's own accuracy: resolution and repeatability. */
export function slotScatter(slot: Slot, instrument: Instrument, pooled: Repeatability): { resolution: number; repeatability: number } {
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
export function accuracyFraction(slots: readonly Slot[], weights: readonly number[], instrument: Instrument): number {
  if (instrument.range === undefined) return 1;
  const used = slots.filter((_, i) => weights[i] !== 0).map((slot) => slot.value);
  if (used.length < 2) return 1;
  return Math.min(1, (Math.max(...used) - Math.min(...used)) / (instrument.range * instrument.graduation));
}

export interface UncertaintyInput {
  readonly estimate: Estimate;
  readonly slots: readonly Slot[];
  readonly instrument: Instrument;
  readonly pooled: Repeatability;
  /** The quantity's value in each set-up. */
  readonly bySet: readonly number[];
  /** Later minus earlier of places read again, µm: what wandered during the round. */
  readonly drift?: number;
}

/**
 * First-order uncertainty of one quantity.
 * u² = Σ (cᵢ·uᵢ)² over the slots, plus accuracy once, plus the doubts of the check, plus the spread
 * of the set-ups. U = t·u with t for 95 % from the effective degrees of freedom.
 *
 * Source: docs/methods/uncertainty.md.
 */
export function uncertaintyOf({ estimate, slots, instrument, pooled, bySet, drift = 0 }: UncertaintyInput): Uncertainty {
  let resolution = 0;
  let repeatability = 0;
  let span = 0;
  for (const [i, slot] of slots.entries()) {
    const weight = estimate.weights[i];
    if (weight === 0) continue;
    const scatter = slotScatter(slot, instrument, pooled);
    resolution += (weight * scatter.resolution) ** 2;
    repeatability += (weight * scatter.repeatability) ** 2;
    span += Math.abs(weight) / 2;
  }
  const accuracy = span * (instrument.accuracy / Math.sqrt(3)) * accuracyFraction(slots, estimate.weights, instrument);
  const lines: { source: string; u: number; dof: number }[] = [
    { source: 'reading the dial', u: Math.sqrt(resolution), dof: Infinity },
    { source: 'repeating a reading', u: Math.sqrt(repeatability), dof: pooled.s === undefined ? Infinity : pooled.degreesOfFreedom },
    { source: 'instrument accuracy', u: accuracy, dof: Infinity },
    { source: 'wandering during the round', u: (span * Math.abs(drift)) / Math.sqrt(12), dof: Infinity },
    ...estimate.doubts.map((doubt) => ({ ...doubt, dof: Infinity })),
  ];
  if (bySet.length > 1) {
    const middle = mean(bySet);
    const s = Math.sqrt(bySet.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (bySet.length - 1));
    lines.push({ source: 'setting up again', u: s / Math.sqrt(bySet.length), dof: bySet.length - 1 });
  }
  return combine(lines);
}

function combine(lines: readonly { source: string; u: number; dof: number }[]): Uncertainty {
  const variance = lines.reduce((sum, line) => sum + line.u ** 2, 0);
  const u = Math.sqrt(variance);
  const weakness = lines.reduce((sum, line) => sum + (line.u === 0 ? 0 : line.u ** 4 / line.dof), 0);
  const degreesOfFreedom = weakness > 0 ? variance ** 2 / weakness : Infinity;
  const budget = lines
    .filter((line) => line.u > 1e-6 * u)
    .map(({ source, u: part }) => ({ source, u: part, share: part ** 2 / variance }))
    .sort((a, b) => b.share - a.share);
  return { u, expanded: coverageFactor(degreesOfFreedom) * u, degreesOfFreedom, budget };
}
