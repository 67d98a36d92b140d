import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, tap } from 'rxjs';
import * as z from 'zod';
import { madeTokenSchema, tokenSchema, type MadeToken, type Token } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** Tokens with which spreadsheets and screens of the shop's own read. */
@Injectable({ providedIn: 'root' })
export class Tokens {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly known$ = new BehaviorSubject<readonly Token[]>([]);
  /** Those that were given out, without their secrets. */
  readonly all$: Observable<readonly Token[]> = this.known$.asObservable();

  /** Fails with an ApiFailure. */
  load(): Observable<readonly Token[]> {
    return this.api.get('/tokens', z.array(tokenSchema)).pipe(tap((all) => this.known$.next(all)));
  }

  /** A new one; it is told this once. Fails with an ApiFailure. */
  make(name: string): Observable<MadeToken> {
    return this.api
      .send('POST', '/tokens', { name, by: this.settings.by() }, madeTokenSchema)
      .pipe(tap(({ token: _secret, ...made }) => this.known$.next([...this.known$.value, made])));
  }

  /** Nothing reads with it any more. Fails with an ApiFailure. */
  revoke(id: string): Observable<readonly Token[]> {
    const by = encodeURIComponent(this.settings.by());
    return this.api.remove(`/tokens/${id}?by=${by}`, z.array(tokenSchema)).pipe(tap((all) => this.known$.next(all)));
  }
}
