import { HttpClient, type HttpErrorResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { type Observable, catchError, throwError } from 'rxjs';
import type { ApiErrors } from '@isometra/contract';
import type { Fault } from '@isometra/core';

/** A refusal or a silence of the server. `status` 0: it could not be reached. */
export class ApiFailure extends Error {
  constructor(
    readonly status: number,
    readonly faults: readonly Fault[],
    readonly current?: unknown,
  ) {
    super(faults.map((fault) => `${fault.path ? `${fault.path}: ` : ''}${fault.message}`).join('; '));
  }

  /** Worth trying again later with the same content. */
  get passing(): boolean {
    return this.status === 0 || this.status === 429 || this.status >= 500;
  }
}

/** The only place that speaks HTTP. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  get<T>(path: string): Observable<T> {
    return this.http.get<T>(`/api${path}`).pipe(catchError(refused));
  }

  send<T>(method: 'POST' | 'PUT', path: string, body: unknown): Observable<T> {
    return this.http.request<T>(method, `/api${path}`, { body }).pipe(catchError(refused));
  }
}

function refused(error: HttpErrorResponse): Observable<never> {
  const body = error.error as ApiErrors | null;
  const faults = Array.isArray(body?.errors)
    ? body.errors
    : [{ path: '', message: 'The server cannot be reached. Nothing is lost: it will be sent again.', example: '' }];
  return throwError(() => new ApiFailure(error.status, faults, body?.current));
}
