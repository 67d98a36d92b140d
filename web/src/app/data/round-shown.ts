import { dequal } from 'dequal';
import type * as z from 'zod';
import {
  moveSchema,
  readingSchema,
  roundSchema,
  roundWriteOf,
  type MoveWrite,
  type RoundWrite,
  type StoredReading,
  type StoredRound,
} from '@isometra/contract';
import { byId } from './flows';
import type { Entry } from './outbox-store';

/** What this page has been told that may not have reached every answer of the server yet. */
export interface Answered {
  readonly rounds: ReadonlyMap<string, RoundWrite>;
  readonly readings: ReadonlyMap<string, readonly StoredReading[]>;
  readonly moves: ReadonlyMap<string, readonly MoveWrite[]>;
}

/** What stands in the place of a reading now: itself, or the last that it was put right by. */
export function lastOf(id: string, readings: readonly StoredReading[]): StoredReading | undefined {
  const by = readings.find(({ supersedes }) => supersedes === id);
  return by ? lastOf(by.id, readings) : readings.find((reading) => reading.id === id);
}

const asKept = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

/** Whether two values are the same once they are kept: a field that is not given and one that is undefined are. */
export const sameAsKept = (one: unknown, other: unknown): boolean => dequal(asKept(one), asKept(other));

/** Whether nothing of a move has been changed but how often it was written. */
export function sameMove(one: MoveWrite, other: MoveWrite): boolean {
  const own = ({ kind, amount, ticks, shift, doneAt, made }: MoveWrite): unknown => [
    kind,
    amount,
    [...ticks].sort((a, b) => a - b),
    shift,
    doneAt,
    made ?? null,
  ];
  return sameAsKept(own(one), own(other));
}

/** A round whose date is no longer asked about. */
export function withoutDoubt(round: StoredRound): StoredRound {
  const { ahead: _ahead, ...rest } = round;
  return rest;
}

/** What a change of a job card is called. */
export function moveDone(before: MoveWrite | undefined, after: MoveWrite): string {
  const [was, is] = [standOf(before), standOf(after)];
  if (is.done !== was.done) return is.done ? 'Move' : 'Move undone';
  if (is.takenOut && !was.takenOut) return 'Shims taken out';
  if (!dequal(is.entered, was.entered)) return 'Register value recorded';
  if (is.ticks !== was.ticks) return is.ticks > was.ticks ? 'Step ticked' : 'Step unticked';
  return before ? 'Job card changed' : 'Job card started';
}

/** How far a job card has come. */
const standOf = (move: MoveWrite | undefined) => ({
  done: !!move?.doneAt,
  takenOut: !!move?.made?.takenOut,
  entered: move?.made?.register?.entered,
  ticks: move?.ticks.length ?? 0,
});

/** Of each move the newest; of two of one version the later one. */
export function newestMoves(...lists: readonly (readonly MoveWrite[])[]): readonly MoveWrite[] {
  const newest = new Map<string, MoveWrite>();
  for (const move of lists.flat()) {
    const known = newest.get(move.id);
    if (!known || move.version >= known.version) newest.set(move.id, move);
  }
  return [...newest.values()];
}

/** What of a line of writes belongs to a round, each as its schema reads it. */
function ofRound<S extends z.ZodType>(queue: readonly Entry[], id: string, what: Entry['what'], schema: S): z.output<S>[] {
  return queue.flatMap((entry) => {
    const parsed = entry.what === what && entry.about === id ? schema.safeParse(entry.body) : undefined;
    return parsed?.success ? [parsed.data] : [];
  });
}

/** Moves as they will be when the line is through: a change in it takes the place of what it changes, whatever its version. */
export function movesWith(moves: readonly MoveWrite[], queue: readonly Entry[], roundId: string): readonly MoveWrite[] {
  return byId(moves, ofRound(queue, roundId, 'move', moveSchema));
}

/** A round as it stands here: what the server has, what it has answered since, and what is still on its way. */
export function roundWith(id: string, server: StoredRound | undefined, told: Answered, queue: readonly Entry[]): StoredRound | undefined {
  const begun =
    server ??
    [...(told.rounds.has(id) ? [told.rounds.get(id) as RoundWrite] : []), ...ofRound(queue, id, 'round', roundSchema)].map(freshRound)[0];
  if (!begun) return undefined;
  const taken = byId(begun.readings, told.readings.get(id) ?? []);
  const last = taken.reduce((most, { sequence }) => Math.max(most, sequence), 0);
  const known = new Set(taken.map((reading) => reading.id));
  const waiting = ofRound(queue, id, 'reading', readingSchema)
    .filter((reading) => !known.has(reading.id))
    .map((reading, i): StoredReading => ({ ...reading, roundId: id, sequence: last + i + 1 }));
  const moves = movesWith(newestMoves(begun.moves, told.moves.get(id) ?? []), queue, id);
  return { ...begun, readings: [...taken, ...waiting].sort((a, b) => a.sequence - b.sequence), moves };
}

const freshRound = (round: RoundWrite): StoredRound => ({ ...roundWriteOf(round), surveyId: '', number: 0, readings: [], moves: [] });

/** Nothing about the round has changed: what else waits in the line is none of its business. */
export function sameRound(one: StoredRound, other: StoredRound): boolean {
  return (
    one.version === other.version &&
    one.surveyId === other.surveyId &&
    one.ahead === other.ahead &&
    dequal(one.struck, other.struck) &&
    one.number === other.number &&
    one.readings.length === other.readings.length &&
    one.readings.every(({ id, sequence }, i) => id === other.readings[i].id && sequence === other.readings[i].sequence) &&
    dequal(one.moves, other.moves)
  );
}
