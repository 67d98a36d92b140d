import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, combineLatest, map } from 'rxjs';
import * as z from 'zod';
import { isTakenBack, remarkSchema, type Remark } from '@isometra/contract';
import { Api } from './api';
import { nowText } from './clock';
import { byId, Loads } from './flows';
import { newId } from './id';
import { Outbox } from './outbox';
import { Settings } from './settings';
import { Undo } from './undo';

/** What is written down, before it has an id, a time and a name. */
export type NewRemark = Omit<Remark, 'id' | 'by' | 'at' | 'supersedes'>;

/** Notes from any screen: what the server says, and what is on its way. */
@Injectable({ providedIn: 'root' })
export class Remarks {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  /** By the address of the screen, newest first. */
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, readonly Remark[]>>(new Map());
  /** Notes that the server has taken from here. */
  private readonly told$ = new BehaviorSubject<readonly Remark[]>([]);
  private readonly loads = new Loads(
    (path) => this.api.get(`/remarks?path=${encodeURIComponent(path)}`, z.array(remarkSchema)),
    (remarks, path) => this.server$.next(new Map(this.server$.value).set(path, remarks)),
  ).askWhenBack();

  /** Every note that the server has taken, also from another tab. */
  readonly written$: Observable<Remark> = this.outbox.takenAs('remark', remarkSchema).pipe(map(({ row }) => row));

  constructor() {
    this.written$.subscribe((remark) => this.told$.next(byId(this.told$.value, [remark])));
  }

  /** Ask the server for the notes of a screen. Fails with an ApiFailure. */
  load(path: string): Observable<void> {
    return this.loads.ask(path);
  }

  /** The notes of a screen that stand, newest first. */
  on(path: string): Observable<readonly Remark[]> {
    return combineLatest([this.server$, this.told$, this.outbox.waitingAs('remark', remarkSchema)]).pipe(
      map(([server, told, waiting]) => {
        const all = byId(server.get(path) ?? [], told, waiting).filter(({ place }) => place.path === path);
        const gone = new Set(all.map(({ supersedes }) => supersedes));
        return all.filter((remark) => !gone.has(remark.id) && !isTakenBack(remark)).sort((one, other) => other.at.localeCompare(one.at));
      }),
    );
  }

  /** Write a note: seen at once, kept in the browser until the server has taken it. */
  write(content: NewRemark): Remark {
    const remark = this.put(content, null);
    this.undo.telling()('Note written', () => void this.put({ ...content, text: '', pictures: [] }, remark.id));
    return remark;
  }

  /** Put another in its place: ticked, changed, or taken back where it holds nothing. */
  change(before: Remark, change: Pick<Remark, 'text' | 'pictures'>): Remark {
    const { machineId, part, place } = before;
    const content = { machineId, part, place, ...change };
    const now = this.put(content, before.id);
    const did = isTakenBack(now) ? 'Note taken back' : 'Note changed';
    this.undo.telling()(did, () => void this.put({ ...content, text: before.text, pictures: before.pictures }, now.id));
    return now;
  }

  private put(content: NewRemark, supersedes: string | null): Remark {
    const remark: Remark = { id: newId(), ...content, supersedes, by: this.settings.by(), at: nowText() };
    void this.outbox.put({
      ...{ id: remark.id, what: 'remark', method: 'POST', path: '/remarks', body: remark },
      ...{ about: remark.id, machineId: remark.machineId },
    });
    return remark;
  }
}
