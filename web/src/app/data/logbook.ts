import { Injectable, inject } from '@angular/core';
import type { Observable } from 'rxjs';
import { logPageSchema, type LogPage, type LogQuery } from '@isometra/contract';
import { Api } from './api';

/** The logbook of the shop: asked for page by page when somebody looks. */
@Injectable({ providedIn: 'root' })
export class Logbook {
  private readonly api = inject(Api);

  /** One page, newest first. Fails with an ApiFailure. */
  page(query: LogQuery): Observable<LogPage> {
    const asked = Object.entries(query).filter((entry): entry is [string, string] => entry[1] !== undefined && entry[1] !== '');
    const text = new URLSearchParams(asked).toString();
    return this.api.get(`/log${text ? `?${text}` : ''}`, logPageSchema);
  }
}
