import {
  type Observable,
  Subject,
  catchError,
  concatMap,
  filter,
  groupBy,
  map,
  mergeMap,
  of,
  switchMap,
  take,
  tap,
  EMPTY,
  ReplaySubject,
} from 'rxjs';
import type { ApiFailure } from './api';

/** How a question ended. */
interface Ended {
  readonly key: string;
  readonly failure: ApiFailure | null;
}

/** How long what was fetched is taken as it is when the window comes to the front again, ms. */
const FRESH = 20_000;

/** Loads: of the questions after one thing the last one wins, not the last answer. */
export class Loads<Answer> {
  private readonly fetched = new Map<string, number>();
  private readonly asked = new Subject<string>();
  private readonly told = new Subject<Ended>();

  /** @param fetch asks the server. @param keep takes what it said. */
  constructor(fetch: (key: string) => Observable<Answer>, keep: (answer: Answer, key: string) => void) {
    this.asked
      .pipe(
        groupBy((key) => key),
        mergeMap((questions) =>
          questions.pipe(
            switchMap((key) =>
              fetch(key).pipe(
                tap(() => this.fetched.set(key, Date.now())),
                tap((answer) => keep(answer, key)),
                map((): Ended => ({ key, failure: null })),
                catchError((failure: ApiFailure) => of<Ended>({ key, failure })),
              ),
            ),
          ),
        ),
      )
      .subscribe(this.told);
  }

  /** When the window comes to the front again, what was fetched a while ago is asked after: somebody else may have worked at it. */
  askWhenBack(): this {
    addEventListener('focus', () => {
      for (const [key, at] of this.fetched) if (Date.now() - at > FRESH) this.askQuietly(key);
    });
    return this;
  }

  /** Whether it was answered once. */
  knows(key: string): boolean {
    return this.fetched.has(key);
  }

  /** Ask, and leave it as it is when there is no answer. */
  askQuietly(key: string): void {
    this.ask(key).subscribe({ error: () => undefined });
  }

  /** Ask; completes when this question, or a later one after the same thing, is answered. Fails with an ApiFailure. */
  ask(key: string): Observable<void> {
    const done = new ReplaySubject<void>(1);
    this.told
      .pipe(
        filter((told) => told.key === key),
        take(1),
      )
      .subscribe(({ failure }) => (failure ? done.error(failure) : (done.next(), done.complete())));
    this.asked.next(key);
    return done;
  }
}

interface Job {
  readonly work: () => Observable<unknown>;
  readonly done: Subject<unknown>;
}

/** Writes: one after the other, in the order in which they were asked for. */
export class Writes {
  private readonly jobs = new Subject<Job>();

  constructor() {
    this.jobs
      .pipe(
        concatMap(({ work, done }) =>
          work().pipe(
            // Not `tap(done)`: that would subscribe to it, and nobody would hear its failure.
            tap({ next: (answer) => done.next(answer), error: (failure) => done.error(failure), complete: () => done.complete() }),
            catchError(() => EMPTY),
          ),
        ),
      )
      .subscribe();
  }

  /** The work begins when everything asked for before it has ended, whether anybody listens or not. */
  send<Answer>(work: () => Observable<Answer>): Observable<Answer> {
    const done = new ReplaySubject<Answer>(1);
    this.jobs.next({ work, done: done as Subject<unknown> });
    return done;
  }
}

/** A row in its place among others, or at the end when it is new. */
export function withRow<Row extends { readonly id: string }>(rows: readonly Row[], row: Row): readonly Row[] {
  return rows.some(({ id }) => id === row.id) ? rows.map((known) => (known.id === row.id ? row : known)) : [...rows, row];
}

/** Rows of which a later one with the same id takes the place of an earlier one. */
export const byId = <Row extends { readonly id: string }>(...lists: readonly (readonly Row[])[]): readonly Row[] => [
  ...new Map(lists.flat().map((row) => [row.id, row])).values(),
];
