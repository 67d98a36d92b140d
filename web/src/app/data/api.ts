import { HttpClient, type HttpErrorResponse, type HttpEvent, type HttpResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { type Observable, catchError, map, throwError } from 'rxjs';
import type * as z from 'zod';
import { apiErrorsSchema, wantsSubject } from '@isometra/contract';
import type { Fault } from '@isometra/core';
import { heardTime } from './clock';

/** A refusal or a silence of the server. `status` 0: it could not be reached. */
export class ApiFailure extends Error {
  constructor(
    readonly status: number,
    readonly faults: readonly Fault[],
    readonly current?: unknown,
    /** One of the contract's ERROR_CODES; '' where the server did not answer. */
    readonly code = '',
  ) {
    super(faults.map(said).join(' '));
  }

  /** Worth trying again later with the same content: a device that is let in again may send what it kept. */
  get passing(): boolean {
    return this.status === 0 || this.status === 401 || this.status === 429 || this.status >= 500;
  }
}

/** Fields that only the program knows, as people call them. */
const CALLED: Readonly<Record<string, string>> = {
  by: 'The initials',
  at: 'The date',
  doneAt: 'The time it was done',
  value: 'The reading',
  why: 'The reason',
  entered: 'The value that was entered',
};

/** A fault in a sentence: its field in words, never as a path of the program; what is a sentence by itself stands alone. */
function said({ path, message }: Fault): string {
  const key =
    path
      .split('.')
      .at(-1)
      ?.replace(/\[\d+\]$/, '') ?? '';
  const words = key.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
  const subject = CALLED[key] ?? (words && words !== 'id' ? `The ${words}` : 'This');
  const text = wantsSubject(message) ? `${subject} ${message}` : `${message.charAt(0).toUpperCase()}${message.slice(1)}`;
  return /[.!?]$/.test(text) ? text : `${text}.`;
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

  /** The bytes of a picture. Fails with an ApiFailure. */
  picture(path: string): Observable<Blob> {
    return this.http.get(`/api${path}`, { responseType: 'blob' }).pipe(catchError(refused));
  }

  /** Send a form with a file in it; its events say how far it is, and what of the answer has come. Fails with an ApiFailure. */
  upload(path: string, form: FormData): Observable<HttpEvent<string>> {
    return this.http.post(`/api${path}`, form, { observe: 'events', reportProgress: true, responseType: 'text' }).pipe(catchError(refused));
  }

  /** An answer that is told line by line: its events say what of it has come. Fails with an ApiFailure. */
  lines(path: string): Observable<HttpEvent<string>> {
    return this.http.get(`/api${path}`, { observe: 'events', reportProgress: true, responseType: 'text' }).pipe(catchError(refused));
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
  const body = apiErrorsSchema.safeParse(typeof error.error === 'string' ? parsedJson(error.error) : error.error);
  const status = error.status === 200 ? 422 : error.status;
  return throwError(() => new ApiFailure(status, body.success ? body.data.errors : AWAY, body.data?.current, body.data?.code ?? ''));
}

/** A text as JSON; undefined for what is none. */
export function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
