import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, Subject, type Observable, combineLatest, debounceTime, groupBy, map, mergeMap } from 'rxjs';
import * as z from 'zod';
import {
  condensedHeadsSchema,
  moveSchema,
  roundSchema,
  storedReadingSchema,
  type MoveWrite,
  type RoundHead,
  type RoundWrite,
} from '@isometra/contract';
import { howRead, tellsMore } from '@isometra/work';
import { Api } from './api';
import { Loads } from './flows';
import { Outbox } from './outbox';
import type { Entry } from './outbox-store';
import { movesWith, newestMoves } from './round-shown';

/** Readings that land within this time of one another are asked after once, ms. */
const TOGETHER = 200;

/** Rounds in short, by machine: what the server says, with what the bench worked out and what is on its way laid over it. */
@Injectable({ providedIn: 'root' })
export class Heads {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, readonly RoundHead[]>>(new Map());
  /** What the bench has worked out of a round before the server did. */
  private readonly told$ = new BehaviorSubject<ReadonlyMap<string, RoundHead>>(new Map());
  private readonly begun$ = new BehaviorSubject<readonly RoundWrite[]>([]);
  private readonly moves$ = new BehaviorSubject<readonly MoveWrite[]>([]);
  private readonly stale = new Subject<string>();
  private readonly loads = new Loads(
    (machineId) => this.api.get(`/machines/${machineId}/heads?condensed=1`, condensedHeadsSchema),
    (heads, machineId) => this.server$.next(new Map(this.server$.value).set(machineId, heads)),
  ).askWhenBack();

  constructor() {
    this.outbox.answers$.subscribe(({ entry, answer }) => this.take(entry, answer));
    this.stale
      .pipe(
        groupBy((machineId) => machineId),
        mergeMap((changed) => changed.pipe(debounceTime(TOGETHER))),
      )
      .subscribe((machineId) => this.refresh(machineId));
  }

  /** Ask the server. Fails with an ApiFailure. */
  load(machineId: string): Observable<void> {
    return this.loads.ask(machineId);
  }

  /** Ask the server, and leave it as it is when it does not answer. */
  refresh(machineId: string): void {
    this.loads.askQuietly(machineId);
  }

  /** The rounds of a machine, oldest first. */
  of(machineId: string): Observable<readonly RoundHead[]> {
    return combineLatest([this.server$, this.told$, this.begun$, this.moves$, this.outbox.waitingOf('round', 'move')]).pipe(
      map(([server, told, begun, moves, queue]) => {
        const rows = server.get(machineId) ?? [];
        const all = [...rows, ...fresh(machineId, rows, begun, queue)];
        return all.map((row) => laidOver(row, told.get(row.id), moves, queue)).sort((a, b) => a.at.localeCompare(b.at));
      }),
    );
  }

  /** What the bench has worked out of a round. */
  tell(head: RoundHead): void {
    this.told$.next(new Map(this.told$.value).set(head.id, head));
  }

  private take({ what, machineId, about }: Entry, answer: unknown): void {
    if (what === 'move') {
      const move = moveSchema.safeParse(answer).data;
      if (move) this.moves$.next(newestMoves(this.moves$.value, [move]));
    }
    if (what === 'round') {
      const round = z.object(roundSchema.shape).safeParse(answer).data;
      if (round) this.begun$.next([...this.begun$.value.filter(({ id }) => id !== round.id), round]);
    }
    if (machineId === null || !this.loads.knows(machineId)) return;
    if (what !== 'reading') this.refresh(machineId);
    else if (!this.knows(about, answer)) this.stale.next(machineId);
  }

  /** Whether a bench of this page has told of a reading: otherwise it came from another tab, or from before the page was left. */
  private knows(roundId: string, answer: unknown): boolean {
    const taken = z.array(storedReadingSchema).safeParse(answer).data ?? [];
    return (this.told$.value.get(roundId)?.last ?? 0) >= Math.max(0, ...taken.map(({ sequence }) => sequence));
  }
}

/** Rounds that the list does not have yet: begun here, taken by the server or still on their way. */
function fresh(machineId: string, rows: readonly RoundHead[], begun: readonly RoundWrite[], queue: readonly Entry[]): RoundHead[] {
  const known = new Set(rows.map(({ id }) => id));
  const waiting = queue.flatMap(({ what, body }) => (what === 'round' ? (roundSchema.safeParse(body).data ?? []) : []));
  const own = new Map(
    [...begun, ...waiting].filter((round) => round.machineId === machineId && !known.has(round.id)).map((round) => [round.id, round]),
  );
  return [...own.values()].map((round): RoundHead => {
    const { id, check, instrumentName, conditions, by, at, version } = round;
    const number = rows.filter((row) => row.check === check).length + 1;
    const surveyId = rows.at(-1)?.surveyId ?? '';
    return {
      ...{ id, machineId, surveyId, check, number, instrumentName, conditions, by, at, version, ...howRead(check, round) },
      last: 0,
      moves: [],
      finding: null,
    };
  });
}

function laidOver(row: RoundHead, told: RoundHead | undefined, moves: readonly MoveWrite[], queue: readonly Entry[]): RoundHead {
  const own = newestMoves(
    row.moves,
    moves.filter(({ roundId }) => roundId === row.id),
  );
  const shown = movesWith(own, queue, row.id);
  const newer = told && tellsMore(told, row) ? told : row;
  const { unread: _before, ...kept } = row;
  return {
    ...kept,
    ...(newer.unread !== undefined && { unread: newer.unread }),
    last: newer.last,
    version: newer.version,
    finding: newer.finding,
    sense: newer.sense,
    mounting: newer.mounting,
    ...(newer.face !== undefined && { face: newer.face }),
    moves: [...shown],
  };
}
