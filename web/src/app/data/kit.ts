import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, type Observable, tap } from 'rxjs';
import type { KitItem } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** What the shop measures with, and the shim drawer. */
@Injectable({ providedIn: 'root' })
export class Kit {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
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
      .pipe(tap((saved) => this.keep(saved)));
  }

  /** A photograph of a piece of kit. */
  addPhoto(id: string, photo: Blob): Observable<KitItem> {
    const query = `id=${crypto.randomUUID()}&by=${encodeURIComponent(this.settings.by())}`;
    return this.api.send<KitItem>('POST', `/kit/${id}/photos?${query}`, photo).pipe(tap((saved) => this.keep(saved)));
  }

  /** In its place in the list, or at the end when it is new. */
  private keep(saved: KitItem): void {
    const known = this.known.value.some((entry) => entry.id === saved.id);
    this.known.next(known ? this.known.value.map((entry) => (entry.id === saved.id ? saved : entry)) : [...this.known.value, saved]);
  }
}

/** The leaves in the shim drawers, or undefined when there is no drawer. */
export function stockOf(kit: readonly KitItem[]): readonly unknown[] | undefined {
  const drawers = kit.filter((item) => item.kind === 'shim-stock');
  return drawers.length ? drawers.flatMap((item) => item.data['stock'] as unknown[]) : undefined;
}
