import { HttpEventType, type HttpEvent } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { type Observable, catchError, filter, map, throwError } from 'rxjs';
import { archiveLineSchema, type ArchiveResult } from '@isometra/contract/archive';
import { Api, ApiFailure } from './api';
import { Settings } from './settings';
import { lastLine, percentOf } from './told-lines';

/** How far an archive has come on its way in, or what came of it. */
export type ArchiveStep = { readonly doing: string; readonly percent: number } | { readonly result: ArchiveResult };

export type Choice = 'ours' | 'theirs';

const BROKEN = [{ path: '', message: 'The server stopped answering before the end. Nothing was imported: try again.', example: '' }];
const DOING: Readonly<Record<string, string>> = {
  reading: 'Checking every file',
  comparing: 'Comparing with the shop',
  writing: 'Importing',
};

/** Archives on their way into the shop. Unsubscribing stops it: the shop is then as it was. */
@Injectable({ providedIn: 'root' })
export class ArchiveFiles {
  private readonly api = inject(Api);
  private readonly settings = inject(Settings);

  /** Where an archive is downloaded: of the shop, of a machine by its number, of a survey by its id. */
  address(of: Readonly<Record<string, string>> = {}): string {
    const query = new URLSearchParams(of).toString();
    return `/api/archive.zip${query && `?${query}`}`;
  }

  /** What taking an archive in would do; nothing is written. Fails with an ApiFailure. */
  look(archive: File): Observable<ArchiveStep> {
    return this.send('/archive/look', archive, {});
  }

  /** Take an archive in, each difference settled as it was chosen. Fails with an ApiFailure. */
  take(archive: File, choices: Readonly<Record<string, Choice>>): Observable<ArchiveStep> {
    return this.send('/archive', archive, { by: this.settings.by(), choices: JSON.stringify(choices) });
  }

  private send(path: string, archive: File, fields: Readonly<Record<string, string>>): Observable<ArchiveStep> {
    const form = new FormData();
    for (const [name, value] of Object.entries(fields)) form.append(name, value);
    form.append('archive', archive);
    return this.api.upload(path, form).pipe(
      catchError(broken),
      map(stepOf),
      filter((step) => step !== undefined),
    );
  }
}

/** What is said of a server that did not answer: nothing of an archive is sent again by itself. */
const broken = (failure: ApiFailure): Observable<never> =>
  throwError(() => (failure.code === '' ? new ApiFailure(failure.status, BROKEN) : failure));

/** What an event of the request tells; undefined for those that tell nothing new. */
function stepOf(event: HttpEvent<string>): ArchiveStep | undefined {
  if (event.type === HttpEventType.UploadProgress) return { doing: 'Sending', percent: percentOf(event.loaded, event.total) };
  const told = lastLine(event, archiveLineSchema);
  if (!told) return undefined;
  const { line, ended } = told;
  if (line && 'errors' in line) throw new ApiFailure(400, line.errors);
  // The last line of all must tell how it ended.
  if (line && 'result' in line) return ended ? { result: line.result } : undefined;
  if (ended) throw new ApiFailure(0, BROKEN);
  return line && { doing: DOING[line.doing] ?? line.doing, percent: percentOf(line.done, line.of) };
}
