import { CHECKS, upsets, type CheckDefinition } from '@isometra/core';
import type { MoveWrite, RegisterUse, RoundHead } from '@isometra/contract';
import { mayBeSameThing } from './things.js';

/** A move that was finished: what it was made for, and when. */
export interface DoneMove {
  /** Of the move; none where metal came off. */
  readonly id?: string;
  readonly begunAt: string;
  readonly doneAt: string;
  readonly check: CheckDefinition;
  /** The round that it was made from; none where metal came off without one. */
  readonly from?: Pick<RoundHead, 'check' | 'conditions'>;
  /** What was moved with all that it carries: every station of a turret. */
  readonly body?: string;
  /** It upset everything on the machine: a crash, a removal. What happened. */
  readonly event?: string;
  /** The register of the control that was changed, back again too. */
  readonly register?: Pick<RegisterUse, 'name' | 'axis' | 'kind'>;
}

/** Whether a move was done and still stands: what was taken out again does not. */
export const isMade = ({ doneAt, made }: Pick<MoveWrite, 'doneAt' | 'made'>): boolean => doneAt !== null && !made?.takenOut;

/** When values were entered on a change sheet, oldest first. */
const changesOf = ({ entered, earlier = [] }: RegisterUse): string[] => [...earlier, ...(entered ? [entered] : [])].map(({ at }) => at);

/** Moves that were finished, in the order in which they were done. */
export function doneMoves(rounds: readonly RoundHead[]): DoneMove[] {
  return rounds
    .flatMap((round) => {
      const check = CHECKS.get(round.check);
      if (!check) return [];
      return round.moves.flatMap(({ id, begunAt, doneAt, made }): DoneMove[] => {
        const register = made?.register;
        // A register is changed when a value is entered, whether or not anybody says that the card is done; going back too.
        if (register?.entered) return changesOf(register).map((at) => ({ id, begunAt: at, doneAt: at, check, from: round, register }));
        if (doneAt === null) return [];
        // Where nobody said that one was moved by itself, all went with it.
        const body = made?.moved === 'one' ? undefined : check.part?.carries?.body;
        const done = { begunAt, doneAt, check, from: round, ...(body !== undefined && { body }) };
        const back = made?.takenOut?.at;
        return [{ ...done, id }, ...(back === undefined ? [] : [{ ...done, begunAt: back, doneAt: back }])];
      });
    })
    .sort(asDone);
}

/** In the order in which they were done. */
export const asDone = (one: DoneMove, other: DoneMove): number => (one.doneAt < other.doneAt ? -1 : one.doneAt > other.doneAt ? 1 : 0);

/** Whether a move changes what a round was read on: the same thing, what goes with it, or one that its check depends on. */
export function disturbs(
  { check, from, body, event }: Pick<DoneMove, 'check' | 'from' | 'body' | 'event'>,
  round: Pick<RoundHead, 'check' | 'conditions' | 'face'>,
): boolean {
  if (event !== undefined) return true;
  if (body !== undefined && CHECKS.get(round.check)?.part?.carries?.body === body) return true;
  return check.id === round.check ? !from || mayBeSameThing(from, round) : upsets(check, round.check);
}

/** What else was done to a machine: when metal came off for which check, when a planned change was made, what happened to all of it. */
export interface OtherWork {
  readonly scraped?: readonly { readonly check: string; readonly at: string }[];
  readonly changes?: readonly string[];
  readonly events?: readonly { readonly what: string; readonly at: string; readonly check?: string }[];
}

const ANYTHING = [...CHECKS.values()][0];

/** Work that no card was written for, as moves: metal that came off for a check, a planned change, what upset the whole machine. */
export function otherDone({ scraped = [], changes = [], events = [] }: OtherWork): DoneMove[] {
  const of = (id: string): CheckDefinition[] => [CHECKS.get(id) ?? []].flat();
  return [
    ...scraped.flatMap(({ check, at }) => of(check).map((definition) => ({ begunAt: at, doneAt: at, check: definition }))),
    ...changes.map((at) => ({ begunAt: at, doneAt: at, check: ANYTHING, event: 'planned-change' })),
    ...events.flatMap(({ what, at, check }): DoneMove[] =>
      check === undefined
        ? [{ begunAt: at, doneAt: at, check: ANYTHING, event: what }]
        : of(check).map((definition) => ({ begunAt: at, doneAt: at, check: definition })),
    ),
  ];
}
