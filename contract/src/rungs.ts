import { CHECKS, type CheckDefinition } from '@isometra/core';
import { machineFamily } from './machine.js';
import type { Round } from './round.js';

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
}

export interface NextRung {
  readonly checkId: string;
  readonly why: string;
}

/** Checks that a machine of this kind can be asked. */
export function checksFor(kind: string): CheckDefinition[] {
  return [...CHECKS.values()].filter((check) => check.machines.includes(machineFamily(kind)));
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

/**
 * The rungs of a machine with their state. A move makes its own rung and the rungs it upsets stale
 * until they are read again.
 *
 * @param rounds all rounds of the machine, oldest first.
 */
export function rungsOf(kind: string, rounds: readonly Round[]): Rung[] {
  const moves = doneMoves(rounds);
  return checksFor(kind).map((check) => {
    const round = rounds.filter((entry) => entry.check === check.id && Object.keys(entry.finding?.quantities ?? {}).length > 0).pop();
    if (!round) return { check, state: 'none', round, places: [], staleBecause: undefined };
    const upset = moves.find((move) => move.at > round.at && (move.check.id === check.id || move.check.upsets.includes(check.id)));
    const lastMove =
      moves
        .map((move) => move.at)
        .sort()
        .at(-1) ?? '';
    const places = [
      ...new Set(
        rounds
          .filter((entry) => entry.check === check.id && entry.at > lastMove)
          .flatMap((entry) => (typeof entry.conditions['place'] === 'number' ? [entry.conditions['place']] : [])),
      ),
    ];
    if (!upset) return { check, state: verdictState(round), round, places, staleBecause: undefined };
    const staleBecause = upset.check.id === check.id ? 'moved since: read it again' : `upset by a move on “${upset.check.title}”`;
    return { check, state: 'stale', round, places, staleBecause };
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
