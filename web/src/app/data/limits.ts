import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, map, tap } from 'rxjs';
import { STARTING_SHEETS, startingSheet, type LimitSheet } from '@isometra/core';
import type { StoredLimitSheet } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** A sheet as the list shows it: one to start from, or one of the shop's own. */
export interface ShownSheet {
  readonly id: string;
  readonly content: LimitSheet;
  readonly version: number;
  /** A starting sheet is copied, never changed. */
  readonly own: boolean;
  readonly about: string;
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
  private readonly known = new BehaviorSubject<readonly StoredLimitSheet[]>([]);

  /** Starting sheets first, then the shop's own by name. */
  readonly all$: Observable<readonly ShownSheet[]> = this.known.pipe(map((own) => [...STARTING, ...own.map(shown)]));

  load(): Observable<readonly StoredLimitSheet[]> {
    return this.api.get<StoredLimitSheet[]>('/limits').pipe(tap((sheets) => this.known.next(sheets)));
  }

  /** Every version of a sheet, newest first. */
  versions(id: string): Observable<readonly StoredLimitSheet[]> {
    return this.api.get<StoredLimitSheet[]>(`/limits/${id}/versions`);
  }

  add(id: string, content: LimitSheet): Observable<StoredLimitSheet> {
    return this.api
      .send<StoredLimitSheet>('POST', '/limits', { id, content, version: 1, by: this.settings.by() })
      .pipe(tap((saved) => this.keep(saved)));
  }

  /** A new version of a sheet. */
  change(id: string, content: LimitSheet, version: number): Observable<StoredLimitSheet> {
    return this.api
      .send<StoredLimitSheet>('PUT', `/limits/${id}`, { id, content, version, by: this.settings.by() })
      .pipe(tap((saved) => this.keep(saved)));
  }

  private keep(saved: StoredLimitSheet): void {
    const others = this.known.value.filter((sheet) => sheet.id !== saved.id);
    this.known.next([...others, saved].sort((a, b) => a.content.name.localeCompare(b.content.name)));
  }
}

const shown = ({ id, content, version, by, at }: StoredLimitSheet): ShownSheet => ({
  id,
  content,
  version,
  own: true,
  about: `version ${version}, ${by}, ${new Date(at).toLocaleDateString(undefined, { dateStyle: 'medium' })}`,
});
