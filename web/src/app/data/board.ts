import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, debounceTime, filter } from 'rxjs';
import { boardSchema, type Board as ShopBoard } from '@isometra/contract/board';
import { Api } from './api';
import { Loads } from './flows';
import { Outbox } from './outbox';

/** Writes that land within this time of one another are asked after once, ms. */
const TOGETHER = 300;

const EMPTY: ShopBoard = { plates: [], kit: [] };

/** The shop board: how every machine stands, as last read. */
@Injectable({ providedIn: 'root' })
export class Board {
  private readonly api = inject(Api);
  private readonly known$ = new BehaviorSubject<ShopBoard>(EMPTY);
  private readonly loads = new Loads(
    () => this.api.get('/board', boardSchema),
    (board) => this.known$.next(board),
  );

  readonly all$: Observable<ShopBoard> = this.known$.asObservable();

  constructor() {
    // What was still on its way when the board was read changes it when it lands.
    inject(Outbox)
      .answers$.pipe(
        filter(() => this.known$.observed),
        debounceTime(TOGETHER),
      )
      .subscribe(() => this.loads.askQuietly('all'));
  }

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('all');
  }
}
