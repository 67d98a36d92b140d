import { Injectable, inject } from '@angular/core';
import { type HttpEvent } from '@angular/common/http';
import { type Observable, catchError, filter, map, throwError } from 'rxjs';
import { reportLineSchema } from '@isometra/contract';
import { Api, ApiFailure } from './api';
import { lastLine, percentOf } from './told-lines';

/** How far a report is, or where it is fetched. */
export type ReportMaking = { readonly doing: string; readonly percent: number } | { readonly address: string };

const BROKEN = [{ path: '', message: 'The server stopped answering before the report was made. Try again.', example: '' }];
const DOING = { rounds: 'Working out the rounds', printing: 'Printing' } as const;

/** Reports that are made while somebody looks at how far they are. Unsubscribing stops it. */
@Injectable({ providedIn: 'root' })
export class Reports {
  private readonly api = inject(Api);

  /** @param query as in the address of the report. Fails with an ApiFailure. */
  make(surveyId: string, query: string): Observable<ReportMaking> {
    return this.api.lines(`/surveys/${surveyId}/report?${query}`).pipe(
      // Nothing is sent again by itself.
      catchError((failure: ApiFailure) => throwError(() => (failure.status === 0 ? new ApiFailure(0, BROKEN) : failure))),
      map(stepOf),
      filter((step) => step !== undefined),
    );
  }
}

function stepOf(event: HttpEvent<string>): ReportMaking | undefined {
  const told = lastLine(event, reportLineSchema);
  if (!told) return undefined;
  const { line, ended } = told;
  if (line && 'errors' in line) throw new ApiFailure(400, line.errors);
  if (line && 'ticket' in line) return ended ? { address: `/api/reports/${line.ticket}.pdf` } : undefined;
  if (ended) throw new ApiFailure(0, BROKEN);
  return line && { doing: DOING[line.doing], percent: line.doing === 'printing' ? 90 : percentOf(0.9 * line.done, line.of) };
}
