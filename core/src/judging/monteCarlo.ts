import { bulkRandom } from '../fit/random.js';
import type { Estimate } from '../checks/estimate.js';
import type { Instrument } from '../instruments/instrument.js';
import type { Slot } from '../instruments/slots.js';
import { accuracyFraction, pooledRepeatability, slotScatter, spanOfWeights } from './budget.js';

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

/** What is drawn from: the quantities as functions of the slots, and the doubts that are not of single slots. */
export interface DrawInput {
  readonly estimates: readonly Estimate[];
  readonly slots: readonly Slot<object>[];
  readonly instrument: Instrument | undefined;
  /** Standard uncertainty that setting up again has shown, by quantity. */
  readonly settingUp?: Readonly<Record<string, number>>;
}

interface Drawn {
  readonly estimate: Estimate;
  readonly values: Float64Array;
  readonly accuracy: number;
  readonly normal: number;
}

/** An even draw between ±half with standard deviation u. */
const EVEN = Math.sqrt(12);
/** Draws done together: their noise lies in a few short arrays. */
const BLOCK = 2048;

/** Add to each place a part of what lies in another array. */
function add(places: Float64Array, part: Float64Array, weight: number): void {
  if (weight !== 0) for (let k = 0; k < places.length; k++) places[k] += weight * part[k];
}

/**
 * A Monte Carlo of some quantities: every slot is drawn with its resolution and repeatability, the
 * instrument's accuracy once for the whole, each doubt by itself, and the quantity is worked out anew from the
 * drawn slots. Runs in steps, so that it can show progress and be stopped.
 *
 * @param draws how many at most.
 */
export function monteCarloOf({ estimates, slots, instrument, settingUp = {} }: DrawInput, draws: number, seed = 1): MonteCarloRun {
  const random = bulkRandom(seed);
  const pooled = pooledRepeatability(slots);
  const scatter = slots.map((slot) => (instrument ? slotScatter(slot, instrument, pooled) : { resolution: 0, repeatability: 0 }));
  const drawn = estimates.map((estimate): Drawn => {
    const accuracy = instrument
      ? spanOfWeights(estimate.weights) * (instrument.accuracy / Math.sqrt(3)) * accuracyFraction(slots, estimate.weights, instrument)
      : 0;
    // What is normal and of this quantity alone adds up to one normal part. For a size the slots' share is drawn slot by slot.
    const slotwise = estimate.magnitude ? [] : estimate.weights.map((weight, i) => weight * scatter[i].repeatability);
    const normal = Math.hypot(...slotwise, ...estimate.doubts.map(({ u }) => u), settingUp[estimate.name] ?? 0);
    return { estimate, values: new Float64Array(draws), accuracy, normal };
  });
  const centre = Float64Array.from(slots, (slot) => slot.value);
  const [even, rough] = [slots.map(() => new Float64Array(BLOCK)), slots.map(() => new Float64Array(BLOCK))];
  const shared = new Float64Array(BLOCK);
  const now = new Float64Array(slots.length);
  const sized = estimates.some(({ magnitude }) => magnitude);
  let done = 0;

  const block = (count: number): void => {
    scatter.forEach(({ resolution, repeatability }, i) => {
      random.even(even[i], resolution * EVEN);
      if (!sized) return;
      rough[i].set(even[i]);
      random.addNormal(rough[i], repeatability);
    });
    // One error of the instrument for the whole round: every quantity sees the same one.
    random.even(shared, EVEN);
    for (const { estimate, values, accuracy, normal } of drawn) {
      const here = values.subarray(done, done + count);
      if (estimate.magnitude) sizes(estimate, here, accuracy);
      else linear(estimate, here, accuracy);
      random.addNormal(here, normal);
      if (estimate.magnitude) for (let k = 0; k < count; k++) here[k] = Math.abs(here[k]);
    }
    done += count;
  };
  const linear = ({ evaluate, weights }: Estimate, here: Float64Array, accuracy: number): void => {
    here.fill(evaluate(centre));
    add(here, shared, accuracy);
    weights.forEach((weight, i) => add(here, even[i], weight));
  };
  const sizes = ({ evaluate }: Estimate, here: Float64Array, accuracy: number): void => {
    for (let k = 0; k < here.length; k++) {
      for (let i = 0; i < now.length; i++) now[i] = centre[i] + rough[i][k];
      here[k] = evaluate(now) + accuracy * shared[k];
    }
  };
  const step = (count: number): number => {
    for (const end = Math.min(draws, done + count); done < end;) block(Math.min(BLOCK, end - done));
    return done;
  };
  return {
    step,
    result: () => Object.fromEntries(drawn.map(({ estimate, values }) => [estimate.name, summary(values.subarray(0, done))])),
  };
}

function summary(values: Float64Array): DrawnUncertainty {
  const n = values.length;
  let sum = 0;
  for (let k = 0; k < n; k++) sum += values[k];
  const mean = sum / n;
  let squares = 0;
  for (let k = 0; k < n; k++) squares += (values[k] - mean) * (values[k] - mean);
  const u = Math.sqrt(squares / Math.max(1, n - 1));
  const outside = Math.round(0.025 * (n - 1));
  return { mean, u, low: atEnd(values, outside, mean, u, -1), high: atEnd(values, outside, mean, u, 1) };
}

/** How far from the mean the end of many draws is looked for, in standard uncertainties; farther in where that finds too few. */
const REACHES = [1.85, 1.5, 0.75, -Infinity];

/** The draw that has just so many beyond it, at the lower end (−1) or the upper one (1). Only the end of the draws is sorted. */
function atEnd(values: Float64Array, beyond: number, mean: number, u: number, side: -1 | 1): number {
  for (const reach of REACHES) {
    const from = reach * u + side * mean;
    const end: number[] = [];
    for (let k = 0; k < values.length; k++) if (side * values[k] >= from) end.push(side * values[k]);
    if (end.length > beyond) return side * Float64Array.from(end).sort()[end.length - 1 - beyond];
  }
  return NaN;
}
