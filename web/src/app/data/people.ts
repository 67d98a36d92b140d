import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, switchMap, tap } from 'rxjs';
import * as z from 'zod';
import { listedPersonSchema, personSchema, type ListedPerson, type Person } from '@isometra/contract';
import { Api } from './api';
import { Loads, Writes } from './flows';
import { Settings } from './settings';
import { Undo } from './undo';

/** People of the shop by their initials, and initials that were typing mistakes. */
@Injectable({ providedIn: 'root' })
export class People {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly writes = new Writes();
  private readonly known$ = new BehaviorSubject<readonly ListedPerson[] | null>(null);
  private readonly loads = new Loads(
    () => this.api.get('/people', z.array(listedPersonSchema)),
    (people) => this.known$.next(people),
  ).askWhenBack();

  /** Everybody; null until the server has told them. */
  readonly all$: Observable<readonly ListedPerson[] | null> = this.known$.asObservable();

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('');
  }

  /** Add somebody, name them, or say whose initials these were meant to be. Fails with an ApiFailure. */
  keep(person: Person): Observable<void> {
    const before = this.known$.value?.find(({ initials }) => initials === person.initials);
    const tell = this.undo.telling();
    const put = (one: Person): Observable<void> =>
      this.writes.send(() =>
        this.api
          .send('PUT', `/people/${encodeURIComponent(one.initials)}`, { ...one, by: this.settings.by() }, personSchema)
          .pipe(switchMap(() => this.load())),
      );
    return put(person).pipe(
      tap({
        complete: () =>
          tell(person.meant === null ? `${person.initials}, ${person.name || 'no name'}` : `${person.initials} put right`, () => {
            const { initials, name, meant, working = null } = before ?? { ...person, name: '', meant: null, working: null };
            put({ initials, name, meant, working }).subscribe({ error: this.undo.failed });
          }),
      }),
    );
  }
}
