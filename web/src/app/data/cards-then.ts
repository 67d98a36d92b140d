import { Injectable, inject, signal } from '@angular/core';
import { catchError, EMPTY, tap, type Observable } from 'rxjs';
import { cardThenSchema, type CardThen } from '@isometra/contract';
import { Api } from './api';

/** Machine cards as they stood when old rounds were worked by: asked for when such a round is looked at. */
@Injectable({ providedIn: 'root' })
export class CardsThen {
  private readonly api = inject(Api);
  private readonly found = signal<ReadonlyMap<string, CardThen>>(new Map());
  /** What has been answered, by the id of the round. */
  readonly known = this.found.asReadonly();

  /** Ask for the card of an old round. Without an answer the card of today stands. */
  ask(roundId: string): Observable<CardThen> {
    return this.api.get(`/rounds/${roundId}/card`, cardThenSchema).pipe(
      tap((then) => this.found.update((all) => new Map(all).set(roundId, then))),
      catchError(() => EMPTY),
    );
  }

  /** A round is worked by again: the card of today holds. */
  drop(roundId: string): void {
    if (!this.found().has(roundId)) return;
    this.found.update((all) => new Map([...all].filter(([id]) => id !== roundId)));
  }
}
