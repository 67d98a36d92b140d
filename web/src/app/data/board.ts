import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable } from 'rxjs';
import { boardSchema, type Board as ShopBoard } from '@isometra/contract/board';
import { Api } from './api';
import { Loads } from './flows';

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

  /** Fails with an ApiFailure. */
  load(): Observable<void> {
    return this.loads.ask('all');
  }
}
