import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, Subject, of, switchMap, tap } from 'rxjs';
import type { LogEntry, MoveWrite, ReadingWrite, Round, RoundWrite, StoredReading } from '@isometra/contract';
import { Api, type ApiFailure } from './api';
import { Outbox, type Waiting } from './outbox';

const CHANNEL = 'isometra-rounds';

/** Rounds with their readings and moves. Readings and moves go out through the outbox and are seen at once. */
@Injectable({ providedIn: 'root' })
export class Rounds {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly open = new Map<string, BehaviorSubject<Round | undefined>>();
  private readonly channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : undefined;

  /** Writes that the server refused, with what it said. */
  readonly refused = new Subject<{ readonly round: string; readonly message: string }>();

  constructor() {
    this.outbox.answers.subscribe(({ waiting, failure }) => {
      if (failure) this.refused.next({ round: waiting.round, message: failure.message });
      this.channel?.postMessage(waiting.round);
      if (failure || waiting.method === 'PUT') this.reload(waiting.round);
    });
    if (this.channel) this.channel.onmessage = ({ data }: MessageEvent<string>) => this.reload(data);
    addEventListener('focus', () => [...this.open.keys()].forEach((id) => this.reload(id)));
  }

  /** Rounds of a machine, oldest first, for one check or all. */
  list(machineId: string, check?: string): Observable<readonly Round[]> {
    return this.api.get<Round[]>(`/machines/${machineId}/rounds${check ? `?check=${check}` : ''}`);
  }

  log(machineId: string): Observable<readonly LogEntry[]> {
    return this.api.get<LogEntry[]>(`/machines/${machineId}/log`);
  }

  /** One round as it stands: what the server has and what is still on its way there. */
  one(id: string): Observable<Round> {
    const subject = this.open.get(id) ?? new BehaviorSubject<Round | undefined>(undefined);
    this.open.set(id, subject);
    const first = subject.value ? of(subject.value) : this.fetch(id);
    return first.pipe(switchMap(() => subject.asObservable() as Observable<Round>));
  }

  begin(round: RoundWrite): Observable<Round> {
    return this.api.send<Round>('POST', '/rounds', round);
  }

  change(round: RoundWrite): Observable<Round> {
    return this.api.send<Round>('PUT', `/rounds/${round.id}`, round).pipe(
      tap({
        next: (saved) => this.show(saved),
        error: (failure: ApiFailure) => failure.current && this.show(failure.current as Round),
      }),
    );
  }

  takeReading(roundId: string, reading: ReadingWrite): void {
    this.outbox.put({ id: reading.id, method: 'POST', path: `/rounds/${roundId}/readings`, body: reading, round: roundId });
    this.refresh(roundId);
  }

  planMove(move: MoveWrite): Observable<MoveWrite> {
    return this.api.send<MoveWrite>('POST', '/moves', move);
  }

  changeMove(move: MoveWrite): Observable<MoveWrite> {
    return this.api.send<MoveWrite>('PUT', `/moves/${move.id}`, move);
  }

  private fetch(id: string): Observable<Round> {
    return this.api.get<Round>(`/rounds/${id}`).pipe(tap((round) => this.show(round)));
  }

  private reload(id: string): void {
    if (this.open.has(id)) this.fetch(id).subscribe({ error: () => undefined });
  }

  private show(round: Round): void {
    const subject = this.open.get(round.id) ?? new BehaviorSubject<Round | undefined>(undefined);
    this.open.set(round.id, subject);
    subject.next(withWaiting(round, this.outbox.of(round.id)));
  }

  private refresh(id: string): void {
    const round = this.open.get(id)?.value;
    if (round) this.show(round);
  }
}

/** A round with the readings that have not reached the server yet put at its end. */
export function withWaiting(round: Round, waiting: readonly Waiting[]): Round {
  const known = new Set(round.readings.map((reading) => reading.id));
  const last = round.readings.reduce((most, reading) => Math.max(most, reading.sequence), 0);
  const pending = waiting
    .filter((entry) => entry.path.endsWith('/readings'))
    .map((entry) => entry.body as ReadingWrite)
    .filter((reading) => !known.has(reading.id))
    .map((reading, i): StoredReading => ({ ...reading, roundId: round.id, sequence: last + i + 1 }));
  return pending.length ? { ...round, readings: [...round.readings, ...pending] } : round;
}

/** The latest round of each check. */
export const latestOf = (rounds: readonly Round[]): ReadonlyMap<string, Round> => new Map(rounds.map((round) => [round.check, round]));
