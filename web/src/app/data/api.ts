import { HttpClient, type HttpErrorResponse, type HttpResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { type Observable, catchError, map, throwError } from 'rxjs';
import type * as z from 'zod';
import { apiErrorsSchema } from '@isometra/contract';
import type { Fault } from '@isometra/core';
import { heardTime } from './clock';

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

const AWAY = [{ path: '', message: 'The server cannot be reached. Nothing is lost: it will be sent again.', example: '' }];
const UNREADABLE = [{ path: '', message: 'The server’s answer cannot be read. Load the page again.', example: '' }];

/** The only place that speaks HTTP. What comes in is checked against its schema before anything else sees it. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  /** Fails with an ApiFailure. */
  get<S extends z.ZodType>(path: string, schema: S): Observable<z.output<S>> {
    return this.http.get<unknown>(`/api${path}`, { observe: 'response' }).pipe(catchError(refused), map(heard), map(checked(schema)));
  }

  /** Fails with an ApiFailure. */
  remove<S extends z.ZodType>(path: string, schema: S): Observable<z.output<S>> {
    return this.http.delete<unknown>(`/api${path}`, { observe: 'response' }).pipe(catchError(refused), map(heard), map(checked(schema)));
  }

  /** Fails with an ApiFailure. */
  send<S extends z.ZodType>(method: 'POST' | 'PUT', path: string, body: unknown, schema: S): Observable<z.output<S>> {
    return this.http
      .request<unknown>(method, `/api${path}`, { body, observe: 'response' })
      .pipe(catchError(refused), map(heard), map(checked(schema)));
  }
}

/** What an answer holds; its date tells the time by the server's clock. */
function heard({ headers, body }: HttpResponse<unknown>): unknown {
  heardTime(headers.get('Date'));
  return body;
}

function checked<S extends z.ZodType>(schema: S): (answer: unknown) => z.output<S> {
  return (answer) => {
    const parsed = schema.safeParse(answer);
    if (!parsed.success) throw new ApiFailure(422, UNREADABLE);
    return parsed.data;
  };
}

function refused(error: HttpErrorResponse): Observable<never> {
  const body = apiErrorsSchema.safeParse(error.error);
  const status = error.status === 200 ? 422 : error.status;
  return throwError(() => new ApiFailure(status, body.success ? body.data.errors : AWAY, body.data?.current));
}
