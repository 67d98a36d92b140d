import { Injectable, inject } from '@angular/core';
import { catchError, of, type Observable } from 'rxjs';
import * as z from 'zod';
import { workedHoursSchema, type WorkedHours } from '@isometra/contract';
import { Api } from './api';

/** Hours of work on a machine that were timed: asked for when somebody looks. */
@Injectable({ providedIn: 'root' })
export class Worked {
  private readonly api = inject(Api);

  /** Nothing where the server does not answer: what is compared is shown without them. */
  of(machineId: string): Observable<readonly WorkedHours[]> {
    return this.api.get(`/machines/${machineId}/hours`, z.array(workedHoursSchema)).pipe(catchError(() => of([])));
  }
}
