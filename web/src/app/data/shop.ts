import { Injectable, computed, inject, signal } from '@angular/core';
import * as z from 'zod';
import { type Observable, switchMap, tap, of } from 'rxjs';
import { shopSchema, storedShopCardSchema, type Shop, type StoredShopCard } from '@isometra/contract';
import { Api } from './api';
import { Writes } from './flows';
import { Settings } from './settings';
import { OWN_ZONE, shopZone } from './when';

/** What of the page every device follows. */
const usualSchema = z.object({
  units: z.enum(['mm', 'inch']).optional().catch(undefined),
  fineness: z.enum(['coarse', 'fine']).optional().catch(undefined),
});

/** Every time zone that this browser knows. */
export const timeZones = (): readonly string[] => Intl.supportedValuesOf('timeZone');

/** What is settled for the whole shop. */
@Injectable({ providedIn: 'root' })
export class ShopStore {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);
  private readonly writes = new Writes();
  /** As the server told it; undefined before. */
  readonly shop = signal<Shop | undefined>(undefined);
  /** What is told on the shop's page; undefined before the server has told it. */
  readonly told = signal<StoredShopCard | undefined>(undefined);
  /** The paper that is printed on. */
  readonly paper = computed(() => (this.told()?.card['paper'] === 'Letter' ? 'Letter' : 'A4'));

  /** Ask the server; the first browser of a shop tells it where it is. Fails with an ApiFailure. */
  load(): Observable<Shop> {
    return this.api.get('/shop', shopSchema).pipe(
      switchMap((shop) => (shop.timeZone === null ? this.tellZone() : of(shop))),
      tap((shop) => this.keep(shop)),
    );
  }

  /** Ask for what is told on the shop's page. Fails with an ApiFailure. */
  loadCard(): Observable<StoredShopCard> {
    return this.api.get('/shop/card', storedShopCardSchema).pipe(tap((told) => this.keepCard(told)));
  }

  /** Tell the shop's page anew. Fails with an ApiFailure. */
  tell(told: StoredShopCard): Observable<StoredShopCard> {
    const body = { ...told, by: this.settings.by() };
    return this.writes.send(() => this.api.send('PUT', '/shop/card', body, storedShopCardSchema).pipe(tap((now) => this.keepCard(now))));
  }

  private keepCard(told: StoredShopCard): void {
    this.told.set(told);
    const { units, fineness } = usualSchema.parse(told.card);
    this.settings.follow({ ...(units && { system: units }), ...(fineness && { fineness }) });
    document.documentElement.dataset['paper'] = this.paper();
  }

  private tellZone(): Observable<Shop> {
    return this.api.send('POST', '/shop/first-browser', { timeZone: OWN_ZONE }, shopSchema);
  }

  /** Choose the zone of the shop. Fails with an ApiFailure. */
  chooseZone(timeZone: string): Observable<Shop> {
    const body = { timeZone, by: this.settings.by() };
    return this.writes.send(() => this.api.send('PUT', '/shop', body, shopSchema).pipe(tap((shop) => this.keep(shop))));
  }

  private keep(shop: Shop): void {
    this.shop.set(shop);
    if (shop.timeZone !== null) shopZone.set(shop.timeZone);
  }
}
