import { CHECKS, fieldInfo } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import type * as z from 'zod';

/** How a dial counted when this check was last read with it on this mounting. */
export interface KnownSense {
  readonly sense: 1 | -1;
  /** Number of the round in which it was tried. */
  readonly number: number;
}

/** Name of the dial that is described by hand: there is one of it on a machine. */
export const OWN_DIAL = null;

/**
 * The last nudge test of a dial in this check and on this mounting (from the same side); undefined when there was
 * none. It is remembered for a dial of the kit as well as for one described by hand, and never falls back to unknown.
 *
 * @param dial its name; null for one described by hand. @param mounting the side it reads from.
 */
export function knownSense(
  rounds: readonly RoundHead[],
  check: string,
  dial: string | null,
  mounting: string | null,
): KnownSense | undefined {
  const last = rounds
    .filter((round) => round.check === check && round.instrumentName === dial && round.mounting === mounting && round.sense !== null)
    .at(-1);
  return last && last.sense !== null ? { sense: last.sense, number: last.number } : undefined;
}

/** On which side a dial hangs in a set-up, where its check has sides: the usual one where none is said; null where it has none. */
export function mountingOf(checkId: string, setup: Readonly<Record<string, unknown>>): string | null {
  const field = CHECKS.get(checkId)?.setup.shape['side'] as z.ZodType | undefined;
  if (!field) return null;
  const side = setup['side'] ?? fieldInfo(field)?.choices?.[0]?.value;
  return typeof side === 'string' ? side : null;
}

/** Which way a needle counts, where somebody tried: 1 clockwise for larger, −1 the other way; null where nobody did. */
export function senseOf(instrument: Readonly<Record<string, unknown>> | null): 1 | -1 | null {
  const sense = instrument?.['sense'];
  return sense === 1 || sense === -1 ? sense : null;
}
