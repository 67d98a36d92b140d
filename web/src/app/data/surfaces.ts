import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, combineLatest, map, tap } from 'rxjs';
import * as z from 'zod';
import {
  deskEntrySchema,
  storedSurfaceSchema,
  surfaceSchema,
  type DeskEntry,
  type EntryKind,
  type StoredSurface,
  type Surface,
} from '@isometra/contract';
import { newId } from './id';
import { nowText } from './clock';
import { Api } from './api';
import { byId, Loads, withRow, Writes } from './flows';
import { Outbox } from './outbox';
import { Settings } from './settings';
import { Undo } from './undo';

/** What is written down, before it has an id, a time and a name. */
export interface NewEntry<Kind extends EntryKind = EntryKind> {
  readonly kind: Kind;
  readonly content: Extract<DeskEntry, { kind: Kind }>['content'];
  readonly supersedes?: string | null;
  /** When it was done, ISO; left out, now. */
  readonly at?: string;
}

/** Faces that are scraped, by machine, with everything written down at them: what the server says, and what is on its way. */
@Injectable({ providedIn: 'root' })
export class Surfaces {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, readonly StoredSurface[]>>(new Map());
  /** Entries that the server has taken from here; they are never changed. */
  private readonly told$ = new BehaviorSubject<readonly DeskEntry[]>([]);
  private readonly writes = new Writes();
  private readonly loads = new Loads(
    (machineId) => this.api.get(`/machines/${machineId}/surfaces`, z.array(storedSurfaceSchema)),
    (surfaces, machineId) => this.server$.next(new Map(this.server$.value).set(machineId, surfaces)),
  ).askWhenBack();

  constructor() {
    this.outbox.takenAs('entry', deskEntrySchema).subscribe(({ row }) => this.told$.next(byId(this.told$.value, [row])));
  }

  /** Ask the server for the faces of a machine. Fails with an ApiFailure. */
  load(machineId: string): Observable<void> {
    return this.loads.ask(machineId);
  }

  /** The faces of a machine as they stand, with their entries oldest first. */
  of(machineId: string): Observable<readonly StoredSurface[]> {
    return combineLatest([this.server$, this.told$, this.outbox.waitingAs('entry', deskEntrySchema)]).pipe(
      map(([server, told, waiting]) => {
        return (server.get(machineId) ?? []).map((surface) => ({
          ...surface,
          entries: [
            ...byId(
              surface.entries,
              [...told, ...waiting].filter(({ surfaceId }) => surfaceId === surface.id),
            ),
          ].sort((one, other) => one.at.localeCompare(other.at)),
        }));
      }),
    );
  }

  /** Add (`version` 0) or change a face. Fails with an ApiFailure. */
  save(surface: Surface): Observable<Surface> {
    const added = surface.version === 0;
    const body = { ...surface, version: Math.max(1, surface.version), by: this.settings.by() };
    const tell = this.undo.telling();
    return this.writes.send(() =>
      this.api.send(added ? 'POST' : 'PUT', added ? '/surfaces' : `/surfaces/${surface.id}`, body, surfaceSchema).pipe(
        tap((saved) => {
          const others = this.server$.value.get(saved.machineId) ?? [];
          const entries = others.find(({ id }) => id === saved.id)?.entries ?? [];
          this.server$.next(new Map(this.server$.value).set(saved.machineId, withRow(others, { ...saved, entries })));
          const { entries: _entries, ...before } = others.find(({ id }) => id === saved.id) ?? { ...saved, putAway: true, entries: [] };
          tell(added ? 'Face added' : 'Face changed', () =>
            this.save({ ...before, version: saved.version }).subscribe({ error: this.undo.failed }),
          );
        }),
      ),
    );
  }

  /** Write something down at a face: seen at once, kept in the browser until the server has taken it. */
  write<Kind extends EntryKind>(
    surface: Pick<Surface, 'id' | 'machineId'>,
    { kind, content, supersedes = null, at = nowText() }: NewEntry<Kind>,
  ): DeskEntry {
    const entry = {
      ...{ id: newId(), surfaceId: surface.id, kind, content, supersedes },
      ...{ by: this.settings.by(), at },
    } as DeskEntry;
    const known = [...(this.server$.value.get(surface.machineId) ?? []).flatMap(({ entries }) => entries), ...this.told$.value];
    const before = known.find(({ id }) => id === supersedes);
    this.undo.telling()(kind === 'withdrawn' ? 'Taken back' : 'Written down', () =>
      before
        ? this.write(surface, { kind: before.kind, content: before.content, supersedes: kind === 'withdrawn' ? null : entry.id })
        : this.write(surface, { kind: 'withdrawn', content: {}, supersedes: entry.id }),
    );
    void this.outbox.put({
      ...{ id: entry.id, what: 'entry', method: 'POST', path: `/surfaces/${surface.id}/entries`, body: entry },
      ...{ about: surface.id, machineId: surface.machineId },
    });
    return entry;
  }
}
