import { CHECKS, HAND_STEPS, proofCut, type HandStep, type ProofCut, type Zone } from '@isometra/core';
import { hasAll, machineFamily, type DeskEntry, type RoundHead } from '@isometra/contract';
import type { ByHand } from './campaign.js';
import { ofKind } from '../scraping/entries.js';
import { standing } from '../scraping/faults.js';
import { doneMoves } from '../notebook/doneMoves.js';
import { nextRung } from './nextRung.js';
import type { Rung, RungState } from './rungs.js';

/** A rung that is done by hand, with what was last written down about it. */
export interface HandRung {
  readonly step: HandStep;
  readonly state: RungState;
  readonly entry: ByHand | undefined;
  /** What has been done since that makes it worth nothing. */
  readonly staleBy: StaleHand | undefined;
  /** What a proof cut says, from its sizes; undefined where none were written down. */
  readonly cut?: ProofCut;
}

/** What was done to a machine after a step by hand: something moved for a check, metal taken off, a planned change made. */
export type StaleHand =
  { readonly code: 'moved'; readonly check: string } | { readonly code: 'scraped' } | { readonly code: 'planned-change' };

/** Why a step by hand no longer counts, in words. */
export function handStaleWords(stale: StaleHand): string {
  if (stale.code === 'moved') return `“${CHECKS.get(stale.check)?.title ?? stale.check}” has been moved since: do it again`;
  return stale.code === 'scraped' ? 'Metal has been scraped off since: do it again' : 'A planned change has been made since: do it again';
}

/** When metal came off any face, wherever it is; each face by its last pass. */
export const passesOf = (surfaces: readonly { readonly entries: readonly DeskEntry[] }[]): string[] =>
  surfaces.flatMap(({ entries }) => ofKind(standing(entries), 'pass').at(-1)?.at ?? []);

/** What else is done to a machine beside the moves of its rounds: when metal came off, when planned changes were made. */
export interface HandWork {
  readonly passes?: readonly string[];
  readonly changes?: readonly string[];
}

function staleSince(at: string, rounds: readonly RoundHead[], { passes = [], changes = [] }: HandWork): StaleHand | undefined {
  // Values entered into a register and what was taken out again count as moves do.
  const moved = doneMoves(rounds).find(({ doneAt }) => doneAt > at);
  if (moved) return { code: 'moved', check: moved.check.id };
  if (passes.some((pass) => pass > at)) return { code: 'scraped' };
  return changes.some((change) => change > at) ? { code: 'planned-change' } : undefined;
}

/** The zone of the tail centre sideways, as the last round on it was judged; the catalogue's where there is none. */
export function cutZone(rounds: readonly RoundHead[]): Zone {
  const judged = rounds.flatMap(({ check, finding }) => {
    const limit = CHECKS.get(check)?.sameQuestion === 'tailstock' ? finding?.quantities['offsetHorizontal']?.limit : undefined;
    return limit ? [limit] : [];
  });
  return judged.at(-1) ?? USUAL_ZONE;
}
const USUAL_ZONE: Zone = [-15, 15];

/** What is done by hand at the ends of a machine's ladder, in working order. A move, a pass or a planned change makes a proof cut stale. */
export function handRungsOf(kind: string, rounds: readonly RoundHead[], byHand: readonly ByHand[], work: HandWork = {}): HandRung[] {
  const steps = HAND_STEPS[machineFamily(kind)].filter(({ needs }) => hasAll(kind, needs));
  return steps.map((step): HandRung => {
    const entry = byHand.filter((written) => written.step === step.id).at(-1);
    if (!entry) return { step, entry, state: 'none', staleBy: undefined };
    const staleBy = step.upset ? staleSince(entry.at, rounds, work) : undefined;
    const cut = entry.sizes && proofCut(entry.sizes.first, entry.sizes.turned, cutZone(rounds));
    return { step, entry, state: staleBy ? 'stale' : (cut?.verdict ?? 'in'), staleBy, ...(cut && { cut }) };
  });
}

/** The step by hand that comes next: before anything has been measured, or when every rung is in. */
export function nextByHand(steps: readonly HandRung[], rungs: readonly Rung[]): HandStep | undefined {
  const due = (place: HandStep['place']) => steps.find(({ step, state }) => step.place === place && state !== 'in')?.step;
  if (rungs.every((rung) => rung.round === undefined)) return due('first');
  return nextRung(rungs) === undefined ? due('last') : undefined;
}
