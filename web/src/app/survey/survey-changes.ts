import { Injectable, inject, signal } from '@angular/core';
import type { SurveyWrite } from '@isometra/contract';
import type { Campaign } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { Surveys, type NewNote } from '../data/surveys';
import { MachineStore } from '../machine/machine-store';

/** Changes of the running survey and what is written down in it: seen at once, and told when they are kept. */
@Injectable()
export class SurveyChanges {
  private readonly store = inject(MachineStore);
  private readonly surveys = inject(Surveys);

  readonly problem = signal('');
  readonly told = signal('');

  /** Change how the survey goes about its rungs. @param words what is said when it is kept. */
  save(part: Partial<SurveyWrite>, words: string): void {
    const survey = this.store.survey();
    if (survey) this.change(survey, part, words);
  }

  /** Put an earlier survey in the archive, or take it out again. */
  archive(survey: Pick<Campaign, 'id' | 'machineId'>, away: boolean): void {
    this.surveys.archive(survey, away).subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  /** Change a survey, whether or not it runs. */
  change(survey: Campaign, part: Partial<SurveyWrite>, words: string): void {
    this.surveys.change(survey, part).subscribe({
      next: () => {
        this.problem.set('');
        this.told.set(words);
        // Calls depend on the sheet: the rounds are judged anew.
        if (part.limits) this.store.refresh();
      },
      error: (failure: ApiFailure) =>
        this.problem.set(
          failure.current
            ? 'Somebody else has changed this survey meanwhile: it is shown as it is now. Make the change again.'
            : failure.message,
        ),
    });
  }

  /** Write something down; it is kept in this browser until the server has it. */
  note(note: NewNote, words: string, supersedes: string | null = null): void {
    const survey = this.store.survey();
    if (!survey) return;
    this.surveys.note(survey, note, supersedes);
    this.problem.set('');
    this.told.set(words);
  }
}
