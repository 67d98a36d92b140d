import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, combineLatest, map, tap } from 'rxjs';
import * as z from 'zod';
import {
  neededPartSchema,
  partSchema,
  partWriteSchema,
  storedStripDownSchema,
  stripDownSchema,
  type NeededPart,
  type Part,
  type StoredStripDown,
  type StripDown,
} from '@isometra/contract';
import { Api } from './api';
import { nowText } from './clock';
import { byId, Loads, withRow, Writes } from './flows';
import { newId } from './id';
import { Outbox } from './outbox';
import { Settings } from './settings';
import { Undo } from './undo';

/** Of two states of one part the later one. */
const later = (one: Part | undefined, other: Part): Part => (one && one.version > other.version ? one : other);

/** Parts by their ids: of each what the server says last, and over it what is still on its way. */
function laidOver(known: readonly Part[], told: ReadonlyMap<string, Part>, waiting: readonly Part[]): readonly Part[] {
  return byId(
    known.map((part) => later(told.get(part.id), part)),
    waiting,
  );
}

/** What is taken apart of each machine, with its parts: what the server says, and what is on its way. */
@Injectable({ providedIn: 'root' })
export class StripDowns {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly writes = new Writes();
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, readonly StoredStripDown[]>>(new Map());
  private readonly shopNeeds$ = new BehaviorSubject<readonly NeededPart[] | null>(null);
  /** Parts that the server has taken from here, as it answered. */
  private readonly told$ = new BehaviorSubject<ReadonlyMap<string, Part>>(new Map());
  private readonly waiting$ = this.outbox
    .waitingAs('part', partWriteSchema)
    .pipe(map((parts) => parts.map(({ by: _by, at: _at, ...part }): Part => part)));
  private readonly loads = new Loads(
    (machineId) => this.api.get(`/machines/${machineId}/strip-downs`, z.array(storedStripDownSchema)),
    (stripDowns, machineId) => this.server$.next(new Map(this.server$.value).set(machineId, stripDowns)),
  ).askWhenBack();
  private readonly needLoads = new Loads(
    () => this.api.get('/parts', z.array(neededPartSchema)),
    (needed) => this.shopNeeds$.next(needed),
  ).askWhenBack();

  constructor() {
    this.outbox.takenAs('part', partSchema).subscribe(({ row }) => {
      this.told$.next(new Map(this.told$.value).set(row.id, later(this.told$.value.get(row.id), row)));
    });
  }

  /** Ask the server for what is taken apart of a machine. Fails with an ApiFailure. */
  load(machineId: string): Observable<void> {
    return this.loads.ask(machineId);
  }

  /** Ask the server for what is needed in the whole shop. Fails with an ApiFailure. */
  loadNeeded(): Observable<void> {
    return this.needLoads.ask('');
  }

  /** What is taken apart of a machine, oldest first, with its parts. */
  of(machineId: string): Observable<readonly StoredStripDown[]> {
    return combineLatest([this.server$, this.told$, this.waiting$]).pipe(
      map(([server, told, waiting]) =>
        (server.get(machineId) ?? []).map((stripDown) => {
          const own = <P extends Part>(parts: readonly P[]): readonly P[] =>
            parts.filter(({ stripDownId }) => stripDownId === stripDown.id);
          const added = own([...told.values()]).filter(({ id }) => !stripDown.parts.some((part) => part.id === id));
          return { ...stripDown, parts: laidOver([...stripDown.parts, ...added], told, own(waiting)) };
        }),
      ),
    );
  }

  /** What is needed in the whole shop; null as long as the server has not told it. */
  needed(): Observable<readonly NeededPart[] | null> {
    return combineLatest([this.shopNeeds$, this.told$, this.waiting$]).pipe(
      map(([needed, told, waiting]) => {
        const over = new Map(waiting.map((part) => [part.id, part]));
        return needed && needed.map((row) => ({ ...row, part: over.get(row.part.id) ?? later(told.get(row.part.id), row.part) }));
      }),
    );
  }

  /** Begin (`version` 0), rename, archive or restore a strip-down. Fails with an ApiFailure. */
  save(stripDown: StripDown): Observable<StripDown> {
    const added = stripDown.version === 0;
    const body = { ...stripDown, version: Math.max(1, stripDown.version), by: this.settings.by(), at: nowText() };
    const tell = this.undo.telling();
    return this.writes.send(() =>
      this.api.send(added ? 'POST' : 'PUT', added ? '/strip-downs' : `/strip-downs/${stripDown.id}`, body, stripDownSchema).pipe(
        tap((saved) => {
          const others = this.server$.value.get(saved.machineId) ?? [];
          const known = others.find(({ id }) => id === saved.id);
          const { parts, begunAt, ...before } = known ?? { ...saved, archived: true, parts: [], begunAt: body.at };
          this.server$.next(new Map(this.server$.value).set(saved.machineId, withRow(others, { ...saved, parts, begunAt })));
          tell(added ? 'Strip-down begun' : 'Strip-down changed', () =>
            this.save({ ...before, version: saved.version }).subscribe({ error: this.undo.failed }),
          );
        }),
      ),
    );
  }

  /** Write down a part that came off: seen at once, kept in the browser until the server has taken it. */
  add(machineId: string, content: Pick<Part, 'stripDownId' | 'number' | 'place' | 'details' | 'pictures'>): Part {
    const part: Part = { id: newId(), ...content, need: null, fitted: null, version: 1 };
    this.put('POST', part, machineId);
    this.undo.telling()(`Part ${part.number}`, () => this.put('PUT', { ...part, removed: true }, machineId));
    return part;
  }

  /** Change a part. @param did what it is called when it is undone: "Part 5 fitted". */
  change(machineId: string, before: Part, change: Partial<Part>, did = `Part ${before.number} changed`): void {
    this.put('PUT', { ...before, ...change }, machineId);
    this.undo.telling()(did, () => this.put('PUT', before, machineId));
  }

  private put(method: 'POST' | 'PUT', part: Part, machineId: string): void {
    void this.outbox.put({
      ...{ id: part.id, what: 'part', method, path: method === 'POST' ? '/parts' : `/parts/${part.id}` },
      body: { ...part, by: this.settings.by(), at: nowText() },
      ...{ about: part.stripDownId, machineId },
    });
  }
}
