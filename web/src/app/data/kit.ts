import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, tap } from 'rxjs';
import type { KitItem } from '@isometra/contract';
import { Api } from './api';

/** Dials, micrometers and the shim drawer. */
@Injectable({ providedIn: 'root' })
export class Kit {
  private readonly api = inject(Api);
  private readonly known = new BehaviorSubject<readonly KitItem[]>([]);

  readonly all$: Observable<readonly KitItem[]> = this.known.asObservable();

  load(): Observable<readonly KitItem[]> {
    return this.api.get<KitItem[]>('/kit').pipe(tap((items) => this.known.next(items)));
  }

  /** Add (`version` 0) or change a piece of kit. */
  save(item: KitItem): Observable<KitItem> {
    const added = item.version === 0;
    return this.api
      .send<KitItem>(added ? 'POST' : 'PUT', added ? '/kit' : `/kit/${item.id}`, { ...item, version: Math.max(1, item.version) })
      .pipe(tap((saved) => this.known.next([...this.known.value.filter((entry) => entry.id !== saved.id), saved])));
  }
}

/** The leaves in the shim drawers, or undefined when there is no drawer. */
export function stockOf(kit: readonly KitItem[]): readonly unknown[] | undefined {
  const drawers = kit.filter((item) => item.kind === 'shim-stock');
  return drawers.length ? drawers.flatMap((item) => item.data['stock'] as unknown[]) : undefined;
}
