import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable } from 'rxjs';
import { dueSchema, madeCalendarSchema, type Due } from '@isometra/contract';
import { Api } from './api';
import { Loads } from './flows';
import { GivenOutList } from './given-out';

/** What is due across the shop, and the addresses of its calendar. */
@Injectable({ providedIn: 'root' })
export class DueStore {
  private readonly api = inject(Api);
  private readonly server$ = new BehaviorSubject<Due | undefined>(undefined);
  private readonly loads = new Loads(
    () => this.api.get('/due', dueSchema),
    (due) => this.server$.next(due),
  ).askWhenBack();

  readonly due$: Observable<Due | undefined> = this.server$.asObservable();
  /** Addresses under which the calendar is read by other programs. */
  readonly addresses = new GivenOutList('/calendars', madeCalendarSchema, ({ address }) => `${location.origin}${address}`);

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('');
  }
}
