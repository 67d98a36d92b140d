import { Injectable, inject, signal } from '@angular/core';
import { type Observable, switchMap, tap, of } from 'rxjs';
import { shopSchema, type Shop } from '@isometra/contract';
import { Api } from './api';
import { Writes } from './flows';
import { Settings } from './settings';
import { OWN_ZONE, shopZone } from './when';

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

  /** Ask the server; the first browser of a shop tells it where it is. Fails with an ApiFailure. */
  load(): Observable<Shop> {
    return this.api.get('/shop', shopSchema).pipe(
      switchMap((shop) => (shop.timeZone === null ? this.tellZone() : of(shop))),
      tap((shop) => this.keep(shop)),
    );
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
