import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable } from 'rxjs';
import { finderSchema, type Finder as Everything } from '@isometra/contract';
import { Api } from './api';
import { Loads } from './flows';

/** Everything in the shop that has a name, as last read: shown at once, and asked for anew each time. */
@Injectable({ providedIn: 'root' })
export class Finder {
  private readonly api = inject(Api);
  private readonly known$ = new BehaviorSubject<Everything | null>(null);
  private readonly loads = new Loads(
    () => this.api.get('/finder', finderSchema),
    (everything) => this.known$.next(everything),
  );

  readonly all$: Observable<Everything | null> = this.known$.asObservable();

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('all');
  }
}
