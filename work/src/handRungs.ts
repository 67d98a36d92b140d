import { CHECKS, HAND_STEPS, type HandStep } from '@isometra/core';
import { machineFamily, type RoundHead } from '@isometra/contract';
import type { ByHand } from './campaign.js';
import { nextRung } from './nextRung.js';
import type { Rung, RungState } from './rungs.js';

/** A rung that is done by hand, with what was last written down about it. */
export interface HandRung {
  readonly step: HandStep;
  readonly state: RungState;
  readonly entry: ByHand | undefined;
  /** The check on which something has been moved since, where that makes it worth nothing. */
  readonly staleBy: string | undefined;
}

/** Why a step by hand no longer counts, in words. */
export const handStaleWords = (check: string): string => `“${CHECKS.get(check)?.title ?? check}” has been moved since: do it again`;

/** What is done by hand at the ends of a machine's ladder, in working order. A move makes a proof cut stale. */
export function handRungsOf(kind: string, rounds: readonly RoundHead[], byHand: readonly ByHand[]): HandRung[] {
  return HAND_STEPS[machineFamily(kind)].map((step): HandRung => {
    const entry = byHand.filter((written) => written.step === step.id).at(-1);
    if (!entry) return { step, entry, state: 'none', staleBy: undefined };
    const later = rounds.find((round) => round.moves.some(({ doneAt }) => doneAt !== null && doneAt > entry.at));
    const staleBy = step.upset ? later?.check : undefined;
    return { step, entry, state: staleBy ? 'stale' : 'in', staleBy };
  });
}

/** The step by hand that comes next: before anything has been measured, or when every rung is in. */
export function nextByHand(steps: readonly HandRung[], rungs: readonly Rung[]): HandStep | undefined {
  const due = (place: HandStep['place']) => steps.find(({ step, state }) => step.place === place && state !== 'in')?.step;
  if (rungs.every((rung) => rung.round === undefined)) return due('first');
  return nextRung(rungs) === undefined ? due('last') : undefined;
}
