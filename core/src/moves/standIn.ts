import { fitLine } from '../fit/line.js';

/** A cheap reading taken beside a full check: what the one read when the other said so. */
export interface Tie {
  /** µm. */
  readonly reading: number;
  /** In the unit of the full check's quantity. */
  readonly value: number;
}

/** What stands for a full check between scraping passes. */
export interface StandIn {
  /** Change of the quantity for each µm of the cheap reading. */
  readonly perMicrometre: number;
  /** Largest distance of a tie from the relation: what it can be trusted to, in the quantity's unit. */
  readonly scatter: number;
  readonly estimate: (reading: number) => number;
}

/** Passes after which the cheap reading is tied to the full check anew. */
export const TIE_EVERY = 3;

/**
 * The relation of a cheap reading (a height over the bed at one corner) to a full check, learned from
 * two ties or more; the last tie is met exactly, because that is where the work stands.
 *
 * @returns undefined before there are two ties at different readings.
 */
export function learnStandIn(ties: readonly Tie[]): StandIn | undefined {
  if (new Set(ties.map((tie) => tie.reading)).size < 2) return undefined;
  const { slope, residuals } = fitLine(
    ties.map((tie) => tie.reading),
    ties.map((tie) => tie.value),
  );
  const last = ties[ties.length - 1];
  return {
    perMicrometre: slope,
    scatter: Math.max(...residuals.map(Math.abs)),
    estimate: (reading) => last.value + slope * (reading - last.reading),
  };
}

/** Whether the cheap reading has to be tied to a full check again before it is believed. */
export const mustTie = (ties: number, passesSinceTie: number): boolean => ties < 2 || passesSinceTie >= TIE_EVERY;
