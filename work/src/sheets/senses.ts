import { CHECKS, fieldInfo, type CheckDefinition } from '@isometra/core';
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

/** Set-up fields that say how a dial is mounted: on which side, in which plane, on what, by which method. */
const MOUNTED_BY = ['side', 'stylus', 'feature', 'carrier', 'method'] as const;

/** The face that a plan reads, where a check has several that stand for themselves: the top one, where none is named. */
function faceOf(check: CheckDefinition, plan: Readonly<Record<string, unknown>>): string | undefined {
  if (!check.planesApart) return undefined;
  return typeof plan['face'] === 'string' ? plan['face'] : 'top';
}

/**
 * How a dial is mounted in a round of a check, by what its set-up and its plan say: "side rear, face side". What is left out is the usual
 * one. Null for a check that a dial can only be mounted one way for.
 */
export function mountingOf(
  checkId: string,
  setup: Readonly<Record<string, unknown>>,
  plan: Readonly<Record<string, unknown>> = {},
): string | null {
  const check = CHECKS.get(checkId);
  if (!check) return null;
  const parts = MOUNTED_BY.flatMap((key) => {
    const field = check.setup.shape[key] as z.ZodType | undefined;
    if (!field) return [];
    const told = setup[key] ?? fieldInfo(field)?.choices?.[0]?.value;
    return told === undefined ? [] : [`${key} ${typeof told === 'string' ? told : JSON.stringify(told)}`];
  });
  const face = faceOf(check, plan);
  if (face) parts.push(`face ${face}`);
  return parts.length ? parts.join(', ') : null;
}

/** Which way a needle counts, where somebody tried: 1 clockwise for larger, −1 the other way; null where nobody did. */
export function senseOf(instrument: Readonly<Record<string, unknown>> | null): 1 | -1 | null {
  const sense = instrument?.['sense'];
  return sense === 1 || sense === -1 ? sense : null;
}

type Conditions = Readonly<Record<string, unknown>>;

/** How a round was read: how its dial was mounted and counted, and on which face. */
export function howRead(
  check: string,
  { setup, plan, instrument }: { readonly setup: Conditions; readonly plan: Conditions; readonly instrument: Conditions | null },
): Pick<RoundHead, 'mounting' | 'sense' | 'face'> {
  const definition = CHECKS.get(check);
  const face = definition && faceOf(definition, plan);
  return { mounting: mountingOf(check, setup, plan), sense: senseOf(instrument), ...(face !== undefined && { face }) };
}
