import { seededRandom } from '../practice/random.js';
import type { Estimate } from '../checks/estimate.js';
import { groupReadings, type Slot } from '../instruments/slots.js';
import { readSheet, type Sheet } from '../sheet.js';
import { accuracyFraction, pooledRepeatability, slotScatter } from './uncertainty.js';

/** What many draws say of one quantity, in its own unit. */
export interface DrawnUncertainty {
  readonly mean: number;
  readonly u: number;
  /** 95 % of the draws lie between these: the interval to report for a size near zero. */
  readonly low: number;
  readonly high: number;
}

export interface MonteCarloRun {
  /** Do some of the draws; returns how many are done in all. */
  readonly step: (draws: number) => number;
  readonly result: () => Readonly<Record<string, DrawnUncertainty>>;
}

interface Drawn {
  readonly estimate: Estimate;
  readonly values: Float64Array;
  readonly accuracy: number;
}

/** An even draw between ±half with standard deviation u. */
const EVEN = Math.sqrt(12);

/**
 * A Monte Carlo of a sheet: every slot is drawn with its resolution and repeatability, the
 * instrument's accuracy once for the whole, each doubt of the check by itself, and the quantity is
 * worked out anew from the drawn slots. Runs in steps, so that it can show progress and be stopped.
 *
 * @param raw a sheet with an instrument. @param draws how many at most.
 * @throws FaultError when the sheet makes no sense.
 */
export function monteCarlo(raw: unknown, draws: number, seed = 1): MonteCarloRun {
  const sheet = readSheet(raw);
  const { slots } = groupReadings(sheet.readings, sheet.check.slotKeys);
  const estimates = estimatesOf(sheet, slots);
  const random = seededRandom(seed);
  const instrument = sheet.instrument;
  const pooled = pooledRepeatability(slots);
  const scatter = slots.map((slot) => (instrument ? slotScatter(slot, instrument, pooled) : { resolution: 0, repeatability: 0 }));
  const drawn: Drawn[] = estimates.map((estimate) => ({
    estimate,
    values: new Float64Array(draws),
    accuracy: instrument
      ? accuracySpan(estimate) * (instrument.accuracy / Math.sqrt(3)) * accuracyFraction(slots, estimate.weights, instrument)
      : 0,
  }));
  const centre = slots.map((slot) => slot.value);
  const now = new Float64Array(slots.length);
  let done = 0;
  const step = (count: number): number => {
    for (const end = Math.min(draws, done + count); done < end; done++) {
      for (let i = 0; i < centre.length; i++) {
        now[i] = centre[i] + scatter[i].resolution * EVEN * (random.even() - 0.5) + scatter[i].repeatability * random.normal();
      }
      // One error of the instrument for the whole round: every quantity sees the same one.
      const shared = EVEN * (random.even() - 0.5);
      for (const { estimate, values, accuracy } of drawn) {
        let value = estimate.evaluate(now) + accuracy * shared;
        for (const doubt of estimate.doubts) if (doubt.u > 0) value += doubt.u * random.normal();
        values[done] = estimate.magnitude ? Math.abs(value) : value;
      }
    }
    return done;
  };
  return {
    step,
    result: () => Object.fromEntries(drawn.map(({ estimate, values }) => [estimate.name, summary(values.subarray(0, done))])),
  };
}

const accuracySpan = (estimate: Estimate): number => estimate.weights.reduce((sum, weight) => sum + Math.abs(weight) / 2, 0);

function estimatesOf(sheet: Sheet, slots: readonly Slot[]): readonly Estimate[] {
  return sheet.check.estimate({ setup: sheet.setup, slots, instrument: sheet.instrument }).estimates;
}

function summary(values: Float64Array): DrawnUncertainty {
  const sorted = Float64Array.from(values).sort();
  let mean = 0;
  for (const value of values) mean += value / values.length;
  let variance = 0;
  for (const value of values) variance += (value - mean) ** 2 / Math.max(1, values.length - 1);
  const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(part * (sorted.length - 1))))];
  return { mean, u: Math.sqrt(variance), low: at(0.025), high: at(0.975) };
}
