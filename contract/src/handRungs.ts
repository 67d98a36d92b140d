import { CHECKS, HAND_STEPS, type HandStep } from '@isometra/core';
import { machineFamily } from './machineKinds.js';
import { nextRung, type Rung, type RungState } from './rungs.js';
import type { Round } from './round.js';
import type { ByHand } from './survey.js';

/** A rung that is done by hand, with what was last written down about it. */
export interface HandRung {
  readonly step: HandStep;
  readonly state: RungState;
  readonly entry: ByHand | undefined;
  /** Why it no longer counts. */
  readonly staleBecause: string | undefined;
}

/** What is done by hand at the ends of a machine's ladder, in working order. A move makes a proof cut stale. */
export function handRungsOf(kind: string, rounds: readonly Round[], byHand: readonly ByHand[]): HandRung[] {
  return HAND_STEPS[machineFamily(kind)].map((step): HandRung => {
    const entry = byHand.filter((written) => written.step === step.id).at(-1);
    if (!entry) return { step, entry, state: 'none', staleBecause: undefined };
    const later = rounds.find((round) => round.moves.some((move) => move.done && move.at > entry.at));
    const staleBecause =
      step.upset && later ? `“${CHECKS.get(later.check)?.title ?? later.check}” has been moved since: do it again` : undefined;
    return { step, entry, state: staleBecause ? 'stale' : 'in', staleBecause };
  });
}

/** The step by hand that comes next: before anything has been measured, or when every rung is in. */
export function nextByHand(steps: readonly HandRung[], rungs: readonly Rung[]): HandStep | undefined {
  const due = (place: HandStep['place']) => steps.find(({ step, state }) => step.place === place && state !== 'in')?.step;
  if (rungs.every((rung) => rung.round === undefined)) return due('first');
  return nextRung(rungs) === undefined ? due('last') : undefined;
}
