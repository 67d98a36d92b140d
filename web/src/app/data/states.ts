import { Injectable, inject } from '@angular/core';
import type { Observable } from 'rxjs';
import * as z from 'zod';
import { stateHeadSchema, stateThenSchema, type Kept, type StateHead, type StateThen } from '@isometra/contract';
import { Api } from './api';

/** Earlier states of cards, kit and faces. They are never changed: asked for when somebody looks. */
@Injectable({ providedIn: 'root' })
export class States {
  private readonly api = inject(Api);

  /** Every state that something has had, newest first. Fails with an ApiFailure. */
  of(what: Kept, id: string): Observable<readonly StateHead[]> {
    return this.api.get(`/${what}/${id}/states`, z.array(stateHeadSchema));
  }

  /** One of them as it stood. Fails with an ApiFailure. */
  at(what: Kept, id: string, version: number): Observable<StateThen> {
    return this.api.get(`/${what}/${id}/states/${version}`, stateThenSchema);
  }
}
