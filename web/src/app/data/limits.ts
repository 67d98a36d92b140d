import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, EMPTY, type Observable, map, tap } from 'rxjs';
import { STARTING_SHEETS, startingSheet, type LimitSheet } from '@isometra/core';
import * as z from 'zod';
import { storedLimitSheetSchema, type Archived, type StoredLimitSheet } from '@isometra/contract';
import { Api } from './api';
import { Shelf } from './archive';
import { Loads, withRow, Writes } from './flows';
import { Settings } from './settings';
import { Undo } from './undo';
import { dateWords } from './when';

/** A sheet as the list shows it: one to start from, or one of the shop's own. */
export interface ShownSheet {
  readonly id: string;
  readonly content: LimitSheet;
  readonly version: number;
  /** A starting sheet is copied, never changed. */
  readonly own: boolean;
  readonly about: string;
  readonly archived?: Archived;
}

const STARTING: readonly ShownSheet[] = STARTING_SHEETS.map(({ id, about }) => ({
  id,
  content: startingSheet(id),
  version: 1,
  own: false,
  about,
}));

/** Limit sheets: those to start from and the shop's own, each version kept. */
@Injectable({ providedIn: 'root' })
export class Limits {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly known = new BehaviorSubject<readonly StoredLimitSheet[]>([]);

  private readonly writes = new Writes();
  private readonly shelf = new Shelf<StoredLimitSheet>({
    ...{ kind: 'limits', writes: this.writes },
    ...{ keep: (sheet) => this.put(sheet), called: () => 'Sheet' },
  });
  private readonly loads = new Loads(
    () => this.api.get('/limits', z.array(storedLimitSheetSchema)),
    (sheets) => this.known.next(sheets),
  );

  /** Starting sheets first, then the shop's own by name. */
  readonly all$: Observable<readonly ShownSheet[]> = this.known.pipe(map((own) => [...STARTING, ...own.map(shown)]));

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('all');
  }

  /** Every version of a sheet, newest first. */
  versions(id: string): Observable<readonly StoredLimitSheet[]> {
    return this.api.get(`/limits/${id}/versions`, z.array(storedLimitSheetSchema));
  }

  /** Fails with an ApiFailure. */
  add(id: string, content: LimitSheet): Observable<StoredLimitSheet> {
    const tell = this.undo.telling();
    return this.write('POST', '/limits', { id, content, version: 1 }).pipe(
      tap(() => tell('Limit sheet added', () => this.archive(id, true).subscribe({ error: this.undo.failed }))),
    );
  }

  /** A new version of a sheet. Fails with an ApiFailure. */
  change(id: string, content: LimitSheet, version: number): Observable<StoredLimitSheet> {
    const [tell, before] = [this.undo.telling(), this.known.value.find((sheet) => sheet.id === id)];
    return this.write('PUT', `/limits/${id}`, { id, content, version }).pipe(
      tap((saved) => {
        if (before)
          tell('Limit sheet changed', () => this.change(id, before.content, saved.version).subscribe({ error: this.undo.failed }));
      }),
    );
  }

  /** Into the archive, or out of it again. Fails with an ApiFailure. */
  archive(id: string, away: boolean): Observable<unknown> {
    const sheet = this.known.value.find((entry) => entry.id === id);
    return sheet ? this.shelf.put(sheet, away) : EMPTY;
  }

  private write(method: 'POST' | 'PUT', path: string, sheet: object): Observable<StoredLimitSheet> {
    const body = { ...sheet, by: this.settings.by() };
    return this.writes.send(() => this.api.send(method, path, body, storedLimitSheetSchema).pipe(tap((saved) => this.keep(saved))));
  }

  /** A new version of a sheet: whether it is in the archive stays as it was. */
  private keep(saved: StoredLimitSheet): void {
    const archived = this.known.value.find((sheet) => sheet.id === saved.id)?.archived;
    this.put({ ...saved, ...(archived && { archived }) });
  }

  private put(sheet: StoredLimitSheet): void {
    this.known.next([...withRow(this.known.value, sheet)].sort((a, b) => a.content.name.localeCompare(b.content.name)));
  }
}

const shown = ({ id, content, version, by, at, archived }: StoredLimitSheet): ShownSheet => ({
  ...(archived && { archived }),
  id,
  content,
  version,
  own: true,
  about: `version ${version}, ${by}, ${dateWords(at)}`,
});
