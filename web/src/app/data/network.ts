import { Injectable, inject } from '@angular/core';
import type { Observable } from 'rxjs';
import * as z from 'zod';
import { deviceSchema, lanSchema, pairingCodeSchema, type Device, type Lan, type PairingCode } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** Phones and tablets of the shop: where they find it, and which of them are let in. All of it fails with an ApiFailure. */
@Injectable({ providedIn: 'root' })
export class Network {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);

  lan(): Observable<Lan> {
    return this.api.get('/lan', lanSchema);
  }

  devices(): Observable<Device[]> {
    return this.api.get('/devices', z.array(deviceSchema));
  }

  /** A code that lets one device in; one that was given out before does no more. */
  code(): Observable<PairingCode> {
    return this.api.send('POST', '/lan/code', {}, pairingCodeSchema);
  }

  revoke(id: string): Observable<Device[]> {
    return this.api.remove(`/devices/${id}?by=${encodeURIComponent(this.settings.by())}`, z.array(deviceSchema));
  }
}
