import { median } from '../fit/median.js';

/** An amount with the range that holds it eight times of ten. */
export interface Expected {
  readonly expected: number;
  readonly low: number;
  readonly high: number;
}

/** Least relative scatter of a hand, whatever the last few passes say. */
const LEAST_SCATTER = 0.15;
const EIGHT_OF_TEN = 1.28;

/**
 * Cycles still to come: with median m of the n depths known, s = max(1.4826·MAD, 0.15 m) and R left, N = R/m,
 * σ² = N·(s/m)² + 1.57·N²·(s/m)²/n, range N ± (1.28 σ + ½), not below 0.
 *
 * @param passDepths µm taken by each cycle so far. @param left µm.
 */
export function cyclesLeft(passDepths: readonly number[], left: number): Expected {
  const m = median(passDepths);
  const s = Math.max(1.4826 * median(passDepths.map((depth) => Math.abs(depth - m))), LEAST_SCATTER * m);
  const expected = left / m;
  const share = (s / m) ** 2;
  const sigma = Math.sqrt(expected * share + (1.57 * expected ** 2 * share) / passDepths.length);
  const range = EIGHT_OF_TEN * sigma + 0.5;
  return { expected, low: Math.max(0, expected - range), high: expected + range };
}

/** Whole cycles that an evening holds: at least one. Minutes. */
export const cyclesAnEvening = (session: number, setUp: number, cycle: number): number =>
  Math.max(1, Math.floor((session - setUp) / cycle + 1e-9));

/** Whole evenings for some cycles. */
export function eveningsFor(cycles: Expected, perEvening: number): Expected {
  const whole = (value: number): number => Math.ceil(value / perEvening - 1e-9);
  return { expected: whole(cycles.expected), low: whole(cycles.low), high: whole(cycles.high) };
}
