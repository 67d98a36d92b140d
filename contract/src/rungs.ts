import {
  CHANGE_KINDS,
  CHECKS,
  drift,
  effectOf,
  judgedBy,
  limitable,
  zoneWidth,
  type CheckDefinition,
  type LimitSheet,
  type PlannedChange,
} from '@isometra/core';
import type { Round } from './round.js';
import { defaultPlan, orderOf, type SurveyPlan } from './survey.js';

/** Where a rung stands: the six glyphs. */
export type RungState = 'in' | 'out' | 'unsure' | 'stale' | 'none' | 'left';

export interface Rung {
  readonly check: CheckDefinition;
  readonly state: RungState;
  /** Its latest round that says something. */
  readonly round: Round | undefined;
  /** Places along the bed at which it has been read since the last move, mm. */
  readonly places: readonly number[];
  /** Why its result no longer counts. */
  readonly staleBecause: string | undefined;
  /** Why it is left alone. */
  readonly leftBecause: string | undefined;
}

export interface NextRung {
  readonly checkId: string;
  readonly why: string;
}

interface DoneMove {
  readonly at: string;
  readonly check: CheckDefinition;
}

function doneMoves(rounds: readonly Round[]): DoneMove[] {
  return rounds.flatMap((round) => {
    const check = CHECKS.get(round.check);
    return check ? round.moves.filter((move) => move.done).map((move) => ({ at: move.at, check })) : [];
  });
}

function verdictState(round: Round): RungState {
  const verdicts = Object.values(round.finding?.quantities ?? {}).flatMap((quantity) => (quantity.verdict ? [quantity.verdict] : []));
  if (verdicts.length === 0) return 'none';
  if (verdicts.includes('out')) return 'out';
  return verdicts.includes('unsure') ? 'unsure' : 'in';
}

/** Places along the bed at which a check was read after the last move, mm. */
function placesSince(rounds: readonly Round[], check: string, moves: readonly DoneMove[]): number[] {
  const lastMove = moves.reduce((last, move) => (move.at > last ? move.at : last), '');
  const fresh = rounds.filter((round) => round.check === check && round.at > lastMove);
  return [...new Set(fresh.flatMap(({ conditions }) => (typeof conditions['place'] === 'number' ? [conditions['place']] : [])))];
}

const changeTitle = (change: PlannedChange): string => CHANGE_KINDS.find((kind) => kind.id === change.kind)?.title ?? change.kind;

/** Whether a quantity of a check goes with a change of the spindle axis. */
function follows(checkId: string, change: PlannedChange): boolean {
  const effect = effectOf(change);
  return Object.values(CHECKS.get(checkId)?.quantities ?? {}).some((info) => drift(info, effect) !== 0);
}

/** Why the result of a round no longer counts: the first move after it that upset it. */
function staleness(round: Round, moves: readonly DoneMove[], { school, planned }: SurveyPlan): string | undefined {
  const came = planned.find((entry) => entry.doneAt !== null && entry.doneAt > round.at && follows(round.check, entry.change));
  if (came) return `“${changeTitle(came.change)}” has been done since: read it again`;
  const later = moves.filter((move) => move.at > round.at);
  const own = later.find((move) => move.check.id === round.check);
  if (own) return 'moved since: read it again';
  const upset = later.find((move) => move.check.upsets.includes(round.check));
  if (upset) return `upset by a move on “${upset.check.title}”`;
  return school === 'top' && later.length
    ? `“${later[0].check.title}” was moved, and this survey begins again from the top after a move`
    : undefined;
}

/** Why what is not in is left alone: every such value of the round was accepted as too small to matter. */
function acceptance(round: Round, { accepted }: SurveyPlan): string | undefined {
  const open = Object.entries(round.finding?.quantities ?? {}).filter(([, { verdict }]) => verdict === 'out' || verdict === 'unsure');
  const reasons = open.map(([quantity]) => accepted.find((entry) => entry.roundId === round.id && entry.quantity === quantity)?.why);
  return open.length && reasons.every((why) => why !== undefined) ? `too small to matter: ${[...new Set(reasons)].join('; ')}` : undefined;
}

/**
 * The rungs of a machine in the order of its survey, with their state. A move makes its own rung and,
 * by the survey's school, the rungs it upsets or all of them stale until they are read again.
 *
 * @param rounds the survey's rounds, oldest first.
 */
export function rungsOf(kind: string, rounds: readonly Round[], plan: SurveyPlan = defaultPlan(kind)): Rung[] {
  const moves = doneMoves(rounds);
  return orderOf(kind, plan.order).map((id) => {
    const check = CHECKS.get(id) as CheckDefinition;
    const round = rounds.filter((entry) => entry.check === id && Object.keys(entry.finding?.quantities ?? {}).length > 0).at(-1);
    const skipped = plan.skipped.find((entry) => entry.check === id);
    const rung = { check, round, places: placesSince(rounds, id, moves), staleBecause: undefined, leftBecause: undefined };
    if (skipped) return { ...rung, state: 'left', leftBecause: `left out: ${skipped.why}` };
    if (!round) return { ...rung, places: [], state: 'none' };
    const staleBecause = staleness(round, moves, plan);
    if (staleBecause) return { ...rung, state: 'stale', staleBecause };
    const leftBecause = acceptance(round, plan);
    return leftBecause ? { ...rung, state: 'left', leftBecause } : { ...rung, state: verdictState(round) };
  });
}

/** The one rung to do next, and why. Undefined when nothing is asked for. */
export function nextRung(rungs: readonly Rung[]): NextRung | undefined {
  const moved = rungs.find((rung) => rung.state === 'stale' && rung.staleBecause?.startsWith('moved'));
  if (moved) return { checkId: moved.check.id, why: 'It was moved: read it again.' };
  const out = rungs.find((rung) => rung.state === 'out');
  if (out) return { checkId: out.check.id, why: 'It is out: do the move.' };
  const unsure = rungs.find((rung) => rung.state === 'unsure');
  if (unsure) return { checkId: unsure.check.id, why: 'Too close to call: read it finer.' };
  const first = rungs.find((rung) => rung.state === 'none');
  if (first && rungs.every((rung) => rung.state === 'none'))
    return { checkId: first.check.id, why: 'Nothing has been measured yet. What is wrong here is in every rung that follows.' };
  const stale = rungs.find((rung) => rung.state === 'stale');
  if (stale) return { checkId: stale.check.id, why: 'A move has upset it.' };
  const onePlace = rungs.find((rung) => rung.state === 'in' && rung.places.length === 1);
  if (onePlace) {
    return { checkId: onePlace.check.id, why: 'In, at one place along the bed. Check a second: wear moves the answer.' };
  }
  const open = rungs.find((rung) => rung.state === 'none');
  return open && { checkId: open.check.id, why: 'Not measured yet, and rungs below hang on it.' };
}

/** A limit that lies below what a hand moves. */
export interface BelowTheHand {
  readonly check: CheckDefinition;
  readonly quantity: string;
}

/**
 * Limits of a survey's rungs that are narrower than what a hand's push of 100 N moved, by the latest round
 * that tells it: the machine will not hold them under a cut. Only distances are compared.
 *
 * @returns what a hand moves, µm, and the limits below it; undefined when nobody has pushed yet.
 */
export function belowTheHand(
  rungs: readonly Rung[],
  judge: LimitSheet,
): { readonly moved: number; readonly below: readonly BelowTheHand[] } | undefined {
  const moved = rungs
    .flatMap(({ check, round }) =>
      Object.entries(round?.finding?.quantities ?? {}).flatMap(([name, { value }]) => (check.quantities[name]?.byHand ? [value] : [])),
    )
    .at(-1);
  if (moved === undefined) return undefined;
  const below = rungs
    .filter((rung) => rung.leftBecause === undefined)
    .flatMap(({ check }) => {
      const { limits } = judgedBy(judge, check, {}, []);
      return limitable(check).flatMap(([quantity, info]) => {
        const zone = limits[quantity] ?? info.limit;
        return info.dimension === 'deviation' && zone && zoneWidth(zone) < moved ? [{ check, quantity }] : [];
      });
    });
  return { moved, below };
}
