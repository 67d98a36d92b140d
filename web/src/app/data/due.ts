import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, tap } from 'rxjs';
import * as z from 'zod';
import {
  calendarAddressSchema,
  dueSchema,
  madeCalendarSchema,
  type CalendarAddress,
  type Due,
  type MadeCalendar,
} from '@isometra/contract';
import { Api } from './api';
import { Loads } from './flows';
import { Settings } from './settings';

/** What is due across the shop, and the addresses of its calendar. */
@Injectable({ providedIn: 'root' })
export class DueStore {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly server$ = new BehaviorSubject<Due | undefined>(undefined);
  private readonly calendars$ = new BehaviorSubject<readonly CalendarAddress[]>([]);
  private readonly loads = new Loads(
    () => this.api.get('/due', dueSchema),
    (due) => this.server$.next(due),
  ).askWhenBack();

  readonly due$: Observable<Due | undefined> = this.server$.asObservable();
  /** Addresses that were given out, without their secrets. */
  readonly addresses$: Observable<readonly CalendarAddress[]> = this.calendars$.asObservable();

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('');
  }

  /** Fails with an ApiFailure. */
  loadAddresses(): Observable<readonly CalendarAddress[]> {
    return this.api.get('/calendars', z.array(calendarAddressSchema)).pipe(tap((all) => this.calendars$.next(all)));
  }

  /** A new address; it is told this once. Fails with an ApiFailure. */
  makeAddress(name: string): Observable<MadeCalendar> {
    return this.api
      .send('POST', '/calendars', { name, by: this.settings.by() }, madeCalendarSchema)
      .pipe(tap(({ address: _secret, ...made }) => this.calendars$.next([...this.calendars$.value, made])));
  }

  /** Nobody reads the calendar there any more. Fails with an ApiFailure. */
  revoke(id: string): Observable<readonly CalendarAddress[]> {
    const by = encodeURIComponent(this.settings.by());
    return this.api.remove(`/calendars/${id}?by=${by}`, z.array(calendarAddressSchema)).pipe(tap((all) => this.calendars$.next(all)));
  }
}
