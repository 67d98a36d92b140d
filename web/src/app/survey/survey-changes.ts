import { Injectable, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { EMPTY, Subject, catchError, concatMap, tap, type Observable } from 'rxjs';
import type { Survey, SurveyWrite } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Surveys, sent } from '../data/surveys';
import { Desk } from '../tailstock/desk';

interface Change {
  readonly part: Partial<SurveyWrite>;
  /** What is said when it is kept. */
  readonly words: string;
}

/** Changes of the running survey: seen at once, sent one after the other, each on what the one before it left. */
@Injectable()
export class SurveyChanges {
  private readonly desk = inject(Desk);
  private readonly store = inject(Surveys);
  private readonly changes = new Subject<Change>();
  private waiting = 0;
  /** As the server last had it: what a refused change falls back to. */
  private kept: Survey | undefined;

  readonly problem = signal('');
  readonly told = signal('');

  constructor() {
    this.changes
      .pipe(
        concatMap((change) => this.send(change)),
        takeUntilDestroyed(),
      )
      .subscribe();
  }

  save(part: Partial<SurveyWrite>, words: string): void {
    const survey = this.desk.survey();
    if (!survey) return;
    if (this.waiting === 0) this.kept = survey;
    this.desk.keep({ ...survey, ...part });
    this.waiting += 1;
    this.changes.next({ part, words });
  }

  private send({ part, words }: Change): Observable<unknown> {
    const survey = this.desk.survey();
    if (!survey) return EMPTY;
    return this.store.change(sent({ ...survey, ...part })).pipe(
      tap((saved) => {
        this.waiting -= 1;
        this.kept = saved;
        const now = this.desk.survey();
        // What was changed meanwhile stays as the hand left it; only the version is the server's.
        this.desk.keep(this.waiting && now ? { ...now, version: saved.version } : saved);
        this.problem.set('');
        this.told.set(words);
        // Calls hang on these: the rounds are judged anew.
        if (part.limits || part.planned) this.desk.refresh();
      }),
      catchError((failure: ApiFailure) => {
        this.waiting -= 1;
        this.refused(failure);
        return EMPTY;
      }),
    );
  }

  private refused(failure: ApiFailure): void {
    this.kept = (failure.current as Survey | undefined) ?? this.kept;
    if (this.kept) this.desk.keep(this.kept);
    this.problem.set(
      failure.current
        ? 'Somebody else has changed this survey meanwhile: it is shown as it is now. Make the change again.'
        : failure.message,
    );
  }
}
