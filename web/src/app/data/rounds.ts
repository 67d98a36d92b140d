import { Injectable, inject } from '@angular/core';
import {
  BehaviorSubject,
  catchError,
  combineLatest,
  concat,
  concatMap,
  distinctUntilChanged,
  EMPTY,
  endWith,
  filter,
  ignoreElements,
  map,
  type Observable,
  switchMap,
  take,
  tap,
  throwError,
} from 'rxjs';
import { dequal } from 'dequal';
import * as z from 'zod';
import {
  moveSchema,
  NOTHING_SEEN,
  roundSchema,
  roundWriteOf,
  storedReadingSchema,
  storedRoundSchema,
  WITHDRAWN,
  type MoveWrite,
  type ReadingWrite,
  type RoundNews,
  type RoundWrite,
  type StoredRound,
} from '@isometra/contract';
import { newId } from './id';
import { Api, type ApiFailure } from './api';
import { nowText } from './clock';
import { byId, Loads, Writes } from './flows';
import { Live } from './live';
import { Outbox } from './outbox';
import type { Entry } from './outbox-store';
import { lastOf, moveDone, movesWith, newestMoves, roundWith, sameMove, sameRound, withoutDoubt, type Answered } from './round-shown';
import { Settings } from './settings';
import { Undo } from './undo';

const NOTHING: Answered = { rounds: new Map(), readings: new Map(), moves: new Map() };

/**
 * Rounds in full: what the server has, with what was taken here laid over it until the server shows it. Readings are
 * never changed and moves have versions, so that an answer that comes late takes nothing away.
 */
@Injectable({ providedIn: 'root' })
export class Rounds {
  private readonly api = inject(Api);
  private readonly live = inject(Live);
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, StoredRound>>(new Map());
  private readonly told$ = new BehaviorSubject<Answered>(NOTHING);
  private readonly changes = new Writes();
  private readonly loads = new Loads(
    (id) => this.api.get(`/rounds/${id}`, storedRoundSchema),
    (round) => this.keep([round]),
  );

  /** Writes of rounds, readings and moves that are still on their way. */
  readonly pending$ = this.outbox.queue$;
  readonly refused$ = this.outbox.refused$;

  constructor() {
    this.outbox.answers$.subscribe(({ entry, answer }) => this.take(entry, answer));
  }

  /** Ask the server for a round. Fails with an ApiFailure. */
  load(id: string): Observable<void> {
    return this.loads.ask(id);
  }

  /** Ask the server for a round; one that is known here, though it is still on its way there, is no failure. */
  open(id: string): Observable<void> {
    return this.load(id).pipe(catchError((failure: unknown) => (this.knows(id) ? EMPTY : throwError(() => failure))));
  }

  /**
   * Look at a round while others may read into it too: what they write is fetched as it happens, and who it was is told. Nothing is
   * heard while the page is out of sight; when it comes back the round is asked for once.
   */
  follow(id: string): Observable<string> {
    return this.live.of(id).pipe(
      filter((news) => news === null || this.isNews(id, news)),
      concatMap((news) =>
        this.load(id).pipe(
          ignoreElements(),
          catchError(() => EMPTY),
          endWith(news?.by ?? ''),
        ),
      ),
      filter((by) => by !== ''),
    );
  }

  /** Whether something of a round was written elsewhere: what was written here is known here. */
  private isNews(id: string, { what, ids }: RoundNews): boolean {
    const here = this.server$.value.get(id);
    const told = this.told$.value;
    const queued = new Set(this.outbox.queue$.value.map((entry) => entry.id));
    if (what !== 'reading') return !ids.some((written) => queued.has(written));
    const known = new Set([...(here?.readings ?? []), ...(told.readings.get(id) ?? [])].map((reading) => reading.id));
    return ids.some((written) => !known.has(written) && !queued.has(written));
  }

  /** A round once: the server is asked for what is new, and what is still on its way there counts. Fails as `open` does. */
  once(id: string): Observable<StoredRound> {
    return concat(this.open(id).pipe(ignoreElements()), this.one(id).pipe(take(1)));
  }

  /** A round as it stands; nothing is told as long as nobody knows it. */
  one(id: string): Observable<StoredRound> {
    return combineLatest([
      this.server$.pipe(
        map((rounds) => rounds.get(id)),
        distinctUntilChanged(),
      ),
      this.told$,
      this.outbox.queue$,
    ]).pipe(
      map(([server, told, queue]) => roundWith(id, server, told, queue)),
      filter((round) => round !== undefined),
      distinctUntilChanged(sameRound),
    );
  }

  /** Whether a round is known here: from the server, or begun here. */
  knows(id: string): boolean {
    return (
      this.server$.value.has(id) ||
      this.told$.value.rounds.has(id) ||
      this.outbox.queue$.value.some(({ what, id: row }) => what === 'round' && row === id)
    );
  }

  /** Rounds of a machine with their readings, oldest first, for one check or all. */
  list(machineId: string, check?: string): Observable<readonly StoredRound[]> {
    const query = check ? `?check=${encodeURIComponent(check)}` : '';
    return this.api.get(`/machines/${machineId}/rounds${query}`, z.array(storedRoundSchema));
  }

  /**
   * Begin a round: it can be read into at once, also while the server is away.
   *
   * @param readings that it has from the beginning, in their order: taken back, they go with the round.
   */
  begin(round: RoundWrite, readings: readonly ReadingWrite[] = []): void {
    this.undo.telling()('Round started', () => this.strikeNow(round.id, 'begun by mistake'));
    void this.outbox.put({
      id: round.id,
      what: 'round',
      method: 'POST',
      path: '/rounds',
      body: round,
      about: round.id,
      machineId: round.machineId,
    });
    for (const reading of readings) this.send(round, reading);
  }

  /** Put set-up, plan, conditions or instrument right. Fails with an ApiFailure. */
  change(round: RoundWrite): Observable<RoundWrite> {
    const [tell, before] = [this.undo.telling(), this.server$.value.get(round.id)];
    return this.changes.send(() =>
      this.api.send('PUT', `/rounds/${round.id}`, round, roundAnswer).pipe(
        tap({
          next: (saved) => {
            this.merge(saved);
            if (before)
              tell('Set-up edited', () =>
                this.change({ ...roundWriteOf(before), version: saved.version }).subscribe({ error: this.undo.failed }),
              );
          },
          // Somebody else was first: the round is shown as it is now.
          error: ({ current }: ApiFailure) => {
            const newer = roundAnswer.safeParse(current).data;
            if (newer) this.merge(newer);
          },
        }),
      ),
    );
  }

  /** Give a round another date, and say why. Fails with an ApiFailure. */
  redate({ id, version }: StoredRound, at: string, why: string): Observable<RoundWrite> {
    const body = { id, at, why, by: this.settings.by(), version };
    const tell = this.undo.telling();
    return this.changes.send(() =>
      this.api.send('POST', `/rounds/${id}/date`, body, roundAnswer).pipe(
        tap((saved) => {
          const known = this.server$.value.get(id);
          if (!known) return;
          this.keep([{ ...withoutDoubt(known), ...saved }]);
          if (!known.ahead)
            tell('Date corrected', () =>
              this.redate({ ...known, version: saved.version }, known.at, 'taken back').subscribe({ error: this.undo.failed }),
            );
        }),
      ),
    );
  }

  /** Strike a round out with the reason, or (null) let it count again. Fails with an ApiFailure. */
  strike({ id, version }: Pick<StoredRound, 'id' | 'version'>, why: string | null, tell = this.undo.telling()): Observable<RoundWrite> {
    const by = this.settings.by();
    return this.changes.send(() =>
      this.api.send('POST', `/rounds/${id}/strike`, { id, why, by, version }, roundAnswer).pipe(
        tap((saved) => {
          const known = this.server$.value.get(id);
          if (!known) return;
          const { struck, ...rest } = known;
          tell(why === null ? 'Round restored' : 'Round discarded', () =>
            this.strike({ id, version: saved.version }, why === null ? (struck?.why ?? '') : null).subscribe({ error: this.undo.failed }),
          );
          this.keep([{ ...rest, ...saved, ...(why !== null && { struck: { why, by, at: nowText() } }) }]);
        }),
      ),
    );
  }

  takeReading(round: StoredRound, reading: ReadingWrite): void {
    // What is felt has no figure to name.
    const back = reading.value === null && WITHDRAWN.includes(reading.why ?? '');
    const told = back ? 'Reading taken back' : `Reading ${reading.value ?? ''}`.trim();
    this.undo.telling()(told, () => this.unread(round, reading));
    this.send(round, reading);
  }

  private send({ id, machineId }: Pick<RoundWrite, 'id' | 'machineId'>, reading: ReadingWrite): void {
    const path = `/rounds/${id}/readings`;
    void this.outbox.put({ id: reading.id, what: 'reading', method: 'POST', path, body: reading, about: id, machineId });
  }

  /** Decide on a move, or change one that was decided on. Several changes in a row make one move. */
  putMove(machineId: string, move: MoveWrite, known: boolean): void {
    const before = known ? this.moveNow(move.roundId, move.id) : undefined;
    this.undo.telling()(moveDone(before, move), () => {
      const now = this.moveNow(move.roundId, move.id) ?? move;
      const { version } = now;
      if (!sameMove(now, move)) return this.undo.failed(CHANGED_SINCE);
      const made = move.made ?? NOTHING_SEEN;
      const gone = { ...move, doneAt: null, made: { ...made, putAway: { at: nowText(), by: this.settings.by() } } };
      this.putMove(machineId, { ...(before ?? gone), version }, true);
    });
    const [method, path] = known ? (['PUT', `/moves/${move.id}`] as const) : (['POST', '/moves'] as const);
    void this.outbox.put({ id: move.id, what: 'move', method, path, body: move, about: move.roundId, machineId });
  }

  /** A reading is taken back by another one: as it was read before, or withdrawn. */
  private unread(round: StoredRound, { id, keys, value, set, supersedes }: ReadingWrite): void {
    const now = this.roundNow(round.id) ?? round;
    const stands = lastOf(id, now.readings);
    // Put right meanwhile, perhaps by somebody else: what stands there now is not what is to be taken back.
    if (stands && !dequal([stands.value, stands.keys], [value, keys])) return this.undo.failed(CHANGED_SINCE);
    const before = now.readings.find((reading) => reading.id === supersedes);
    const back = before ? { keys: before.keys, value: before.value, set: before.set } : { keys, value: null, set };
    const why = before ? 'taken back' : 'withdrawn';
    const own = { id: newId(), supersedes: stands?.id ?? id, why, by: this.settings.by(), at: nowText() };
    this.takeReading(now, { ...back, ...own });
  }

  /** A round as it stands here, with what is still on its way. */
  private roundNow(id: string): StoredRound | undefined {
    return roundWith(id, this.server$.value.get(id), this.told$.value, this.outbox.queue$.value);
  }

  private strikeNow(id: string, why: string): void {
    this.once(id)
      .pipe(switchMap((round) => this.strike(round, why, () => undefined)))
      .subscribe({ error: this.undo.failed });
  }

  /** A move as it stands here. */
  private moveNow(roundId: string, id: string): MoveWrite | undefined {
    const all = [...(this.server$.value.get(roundId)?.moves ?? []), ...(this.told$.value.moves.get(roundId) ?? [])];
    return movesWith(newestMoves(all), this.outbox.queue$.value, roundId).find((move) => move.id === id);
  }

  private merge(round: RoundWrite): void {
    const known = this.server$.value.get(round.id);
    if (known) this.keep([{ ...known, ...round }]);
  }

  private keep(rounds: readonly StoredRound[]): void {
    this.server$.next(new Map([...this.server$.value, ...rounds.map((round) => [round.id, round] as const)]));
  }

  /** What the server has answered to a write from here, or from another tab. */
  private take({ what, about }: Entry, answer: unknown): void {
    const told = this.told$.value;
    if (what === 'round') {
      const round = roundAnswer.safeParse(answer).data;
      if (!round) return;
      this.told$.next({ ...told, rounds: new Map(told.rounds).set(about, round) });
      // Its survey and its number are the server's to say.
      this.load(about).subscribe({ error: () => undefined });
    } else if (what === 'reading') {
      const readings = z.array(storedReadingSchema).safeParse(answer).data ?? [];
      this.told$.next({ ...told, readings: new Map(told.readings).set(about, byId(told.readings.get(about) ?? [], readings)) });
    } else if (what === 'move') {
      const move = moveSchema.safeParse(answer).data;
      if (move) this.told$.next({ ...told, moves: new Map(told.moves).set(about, newestMoves(told.moves.get(about) ?? [], [move])) });
    }
  }
}

const CHANGED_SINCE = { message: 'it was changed once more since, here or in another window.' };

const roundAnswer = z.object(roundSchema.shape);
