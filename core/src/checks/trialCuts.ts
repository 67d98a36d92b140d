import type { Material } from '../gravity/bars.js';
import { sizeWhileWarm } from './testCut.js';

/** Work that is cut for a trial and has to come to a size in the end. */
export interface TrialWork {
  /** Diameters of the pads as they were measured, mm. */
  readonly pads: readonly number[];
  /** The size that it must have in the end, mm. */
  readonly finished: number;
  /** What a further trial cut takes off the diameter, mm. */
  readonly cut?: number;
  /** °C by which the work is warmer than it will be when it is measured for good. */
  readonly warmer?: number;
  readonly material?: Material;
}

export interface TrialCuts {
  /** Size to stop at now, mm: it comes to the finished one when it has cooled. */
  readonly stopAt: number;
  /** What the smallest pad still has over that, mm on diameter; negative where it is too small already. */
  readonly stock: number;
  /** Whole trial cuts that leave it no smaller. */
  readonly cuts: number | undefined;
}

/**
 * What is left of a trial piece.
 *
 * @example pads 25.42 and 25.40, finished 25, cuts of 0.1: 0.4 mm is left, four cuts.
 */
export function trialCuts({ pads, finished, cut, warmer = 0, material = 'steel' }: TrialWork): TrialCuts {
  const stopAt = sizeWhileWarm(finished, warmer, material);
  const stock = Math.min(...pads) - stopAt;
  // A cut that takes exactly what is left is still one: a hair is allowed for what adding up loses.
  return { stopAt, stock, cuts: cut === undefined ? undefined : Math.max(0, Math.floor(stock / cut + 1e-9)) };
}
