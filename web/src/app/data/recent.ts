import { Injectable, signal } from '@angular/core';

/** A screen that was looked at, with what it was called. */
export interface Visited {
  readonly path: string;
  readonly words: string;
}

const KEPT = 'isometra-recent';
const MOST = 20;

function kept(): readonly Visited[] {
  try {
    const rows: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]');
    return Array.isArray(rows)
      ? rows.filter((row): row is Visited => typeof row?.path === 'string' && row.path.startsWith('/') && typeof row.words === 'string')
      : [];
  } catch {
    return [];
  }
}

/** The screens that were looked at last in this browser, the last one first. */
@Injectable({ providedIn: 'root' })
export class Recent {
  private readonly rows = signal(kept());
  readonly all = this.rows.asReadonly();

  note(visited: Visited): void {
    const rows = [visited, ...this.rows().filter(({ path }) => path !== visited.path)].slice(0, MOST);
    this.rows.set(rows);
    try {
      localStorage.setItem(KEPT, JSON.stringify(rows));
    } catch {
      // A browser that keeps nothing knows it as long as the page lives.
    }
  }
}
