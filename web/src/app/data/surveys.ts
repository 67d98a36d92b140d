import { Injectable, inject } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Survey, SurveyWrite } from '@isometra/contract';
import { Api } from './api';
import { Settings } from './settings';

/** Campaigns on machines: what is read in which order, by which limits, and what is left alone. */
@Injectable({ providedIn: 'root' })
export class Surveys {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);

  /** Surveys of a machine, oldest first. */
  list(machineId: string): Observable<readonly Survey[]> {
    return this.api.get<Survey[]>(`/machines/${machineId}/surveys`);
  }

  /** Begin a survey; the one that runs ends. */
  begin(survey: SurveyWrite): Observable<Survey> {
    return this.api.send<Survey>('POST', '/surveys', { ...survey, by: this.settings.by() });
  }

  change(survey: SurveyWrite): Observable<Survey> {
    return this.api.send<Survey>('PUT', `/surveys/${survey.id}`, { ...survey, by: this.settings.by() });
  }
}

/** A survey as it is sent: without the sheet that the server writes out. */
export function sent({ judge: _judge, ...survey }: Survey): SurveyWrite {
  return survey;
}

/** The survey that is running, or the last one that ran. */
export function running(surveys: readonly Survey[]): Survey | undefined {
  return surveys.filter((survey) => survey.endedAt === null).at(-1) ?? surveys.at(-1);
}
