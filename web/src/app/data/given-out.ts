import { inject } from '@angular/core';
import { BehaviorSubject, type Observable, map, tap } from 'rxjs';
import * as z from 'zod';
import { givenOutSchema, type GivenOut } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** Secrets that the server gave out, by its list of them: each is told once, when it is made, and can be revoked. */
export class GivenOutList<Made extends GivenOut = GivenOut> {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly known$ = new BehaviorSubject<readonly GivenOut[]>([]);
  /** Those that were given out, without their secrets. */
  readonly all$: Observable<readonly GivenOut[]> = this.known$.asObservable();

  /** @param path of the list. @param made what a new one comes as. @param secretOf what is shown of it this once. */
  constructor(
    private readonly path: string,
    private readonly made: z.ZodType<Made>,
    private readonly secretOf: (made: Made) => string,
  ) {}

  /** Fails with an ApiFailure. */
  load(): Observable<readonly GivenOut[]> {
    return this.keep(this.api.get(this.path, z.array(givenOutSchema)));
  }

  /** A new one: its secret. Fails with an ApiFailure. */
  make(name: string): Observable<string> {
    return this.api.send('POST', this.path, { name, by: this.settings.by() }, this.made).pipe(
      tap(({ id, name: called, by, at }) => this.known$.next([...this.known$.value, { id, name: called, by, at }])),
      map((made) => this.secretOf(made)),
    );
  }

  /** Nobody comes in with it any more. Fails with an ApiFailure. */
  revoke(id: string): Observable<readonly GivenOut[]> {
    const by = encodeURIComponent(this.settings.by());
    return this.keep(this.api.remove(`${this.path}/${id}?by=${by}`, z.array(givenOutSchema)));
  }

  private keep(all$: Observable<readonly GivenOut[]>): Observable<readonly GivenOut[]> {
    return all$.pipe(tap((all) => this.known$.next(all)));
  }
}
