import { Injectable, inject } from '@angular/core';
import { BehaviorSubject, EMPTY, type Observable, combineLatest, map, tap } from 'rxjs';
import * as z from 'zod';
import { storedSurveySchema, surveyNoteSchema, type StoredSurvey, type SurveyNote, type SurveyWrite } from '@isometra/contract';
import { campaignOf, surveyWriteOf, type Campaign } from '@isometra/work';
import { newId } from './id';
import { nowText } from './clock';
import { Api } from './api';
import { Shelf } from './archive';
import { byId, Loads, withRow, Writes } from './flows';
import { Outbox } from './outbox';
import { Settings } from './settings';
import { Undo } from './undo';

/** What a note says, before it has an id, a time and a name. */
export type NewNote = {
  [Kind in SurveyNote['kind']]: { kind: Kind; content: Extract<SurveyNote, { kind: Kind }>['content'] };
}[SurveyNote['kind']];

/** Campaigns on machines: what is read in which order, by which limits, what is left alone, and what was written down. */
@Injectable({ providedIn: 'root' })
export class Surveys {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(Settings);
  private readonly undo = inject(Undo);
  private readonly server$ = new BehaviorSubject<ReadonlyMap<string, readonly StoredSurvey[]>>(new Map());
  /** Notes that the server has taken from here; they are never changed. */
  private readonly told$ = new BehaviorSubject<readonly SurveyNote[]>([]);
  /** How a survey will be when the changes that are on their way have arrived. */
  private readonly wanted$ = new BehaviorSubject<ReadonlyMap<string, SurveyWrite>>(new Map());
  private readonly writes = new Writes();
  private readonly loads = new Loads(
    (machineId) => this.api.get(`/machines/${machineId}/surveys`, z.array(storedSurveySchema)),
    (surveys, machineId) => this.server$.next(new Map(this.server$.value).set(machineId, surveys)),
  );

  constructor() {
    this.outbox.takenAs('note', surveyNoteSchema).subscribe(({ entry: { machineId }, row: note }) => {
      this.told$.next(byId(this.told$.value, [note]));
      if (machineId !== null && this.server$.value.has(machineId)) this.load(machineId).subscribe({ error: () => undefined });
    });
  }

  /** Ask the server for the surveys of a machine. Fails with an ApiFailure. */
  load(machineId: string): Observable<void> {
    return this.loads.ask(machineId);
  }

  /** Surveys of a machine, oldest first, as they stand. */
  of(machineId: string): Observable<readonly Campaign[]> {
    const surveys$ = this.server$.pipe(map((all) => all.get(machineId) ?? []));
    return combineLatest([surveys$, this.told$, this.wanted$, this.outbox.waitingAs('note', surveyNoteSchema)]).pipe(
      map(([surveys, told, wanted, waiting]) => {
        return surveys.map((survey) => {
          const notes = byId(
            survey.notes,
            [...told, ...waiting].filter(({ surveyId }) => surveyId === survey.id),
          );
          return campaignOf({ ...survey, ...wanted.get(survey.id), notes });
        });
      }),
    );
  }

  private readonly shelf = new Shelf<StoredSurvey>({
    kind: 'surveys',
    writes: this.writes,
    keep: (survey) => this.keep(survey),
    called: ({ title }) => `Survey “${title}”`,
  });

  /** Into the archive, or out of it again. Fails with an ApiFailure. */
  archive(survey: Pick<Campaign, 'id' | 'machineId'>, away: boolean): Observable<StoredSurvey> {
    const known = this.known(survey);
    return known ? this.shelf.put(known, away) : EMPTY;
  }

  /** Begin a survey; the one that runs ends. Fails with an ApiFailure. */
  begin(survey: SurveyWrite): Observable<StoredSurvey> {
    const body = { ...survey, by: this.settings.by() };
    const tell = this.undo.telling();
    return this.writes.send(() =>
      this.api.send('POST', '/surveys', body, storedSurveySchema).pipe(
        tap((saved) => {
          const ran = this.otherThatRuns(saved);
          this.endOthers(saved, saved.startedAt);
          this.keep(saved);
          if (ran) tell('Survey started', () => this.changeById(ran, { endedAt: null }));
        }),
      ),
    );
  }

  /**
   * Change how a survey goes about its rungs. It is seen at once; several changes in a row go out one after the other,
   * each on top of the one before. Fails with an ApiFailure, and then stands as the server has it.
   */
  change(survey: Campaign, part: Partial<SurveyWrite>): Observable<StoredSurvey> {
    const before = { ...surveyWriteOf(survey), ...this.wanted$.value.get(survey.id) };
    const wanted = { ...before, ...part };
    const tell = this.undo.telling();
    const old = Object.fromEntries(Object.keys(part).map((key) => [key, before[key as keyof SurveyWrite]])) as Partial<SurveyWrite>;
    const ran = this.otherThatRuns(survey);
    this.want(survey.id, wanted);
    return this.writes.send(() => {
      const { version } = this.known(survey) ?? survey;
      return this.api.send('PUT', `/surveys/${survey.id}`, { ...wanted, version, by: this.settings.by() }, storedSurveySchema).pipe(
        tap({
          next: (saved) => {
            const resumed = survey.endedAt !== null && saved.endedAt === null;
            if (resumed) this.endOthers(saved, nowText());
            this.keep(saved);
            if (this.wanted$.value.get(saved.id) === wanted) this.want(saved.id, undefined);
            tell('Survey changed', () => (resumed && ran ? this.changeById(ran, { endedAt: null }) : this.changeById(survey, old)));
          },
          error: ({ current }: { current?: unknown }) => {
            const newer = storedSurveySchema.safeParse(current).data;
            if (newer) this.keep(newer);
            this.want(survey.id, undefined);
          },
        }),
      );
    });
  }

  private changeById({ id, machineId }: Pick<StoredSurvey, 'id' | 'machineId'>, part: Partial<SurveyWrite>): void {
    const now = this.known({ id, machineId });
    if (now) this.change(campaignOf(now), part).subscribe({ error: this.undo.failed });
  }

  /** Write something down in a survey. It is never changed: another note takes its place, or takes it back. */
  note(survey: Pick<Campaign, 'id' | 'machineId'>, note: NewNote, supersedes: string | null = null): string {
    const id = newId();
    const body = { id, surveyId: survey.id, supersedes, by: this.settings.by(), at: nowText(), ...note };
    const notes = [...(this.known(survey)?.notes ?? []), ...this.told$.value];
    const before = notes.find((entry) => entry.id === supersedes);
    this.undo.telling()(note.kind === 'withdrawn' ? 'Note deleted' : 'Note', () => {
      if (before) this.note(survey, { kind: before.kind, content: before.content } as NewNote, id);
      else this.note(survey, { kind: 'withdrawn', content: {} }, id);
    });
    const path = `/surveys/${survey.id}/notes`;
    void this.outbox.put({ id, what: 'note', method: 'POST', path, body, about: survey.id, machineId: survey.machineId });
    return id;
  }

  private known({ id, machineId }: Pick<Campaign, 'id' | 'machineId'>): StoredSurvey | undefined {
    return this.server$.value.get(machineId)?.find((entry) => entry.id === id);
  }

  private want(id: string, survey: SurveyWrite | undefined): void {
    const wanted = new Map(this.wanted$.value);
    if (survey) wanted.set(id, survey);
    else wanted.delete(id);
    this.wanted$.next(wanted);
  }

  /** The survey of a machine that runs beside one, or did until that one began. */
  private otherThatRuns({ id, machineId }: Pick<StoredSurvey, 'id' | 'machineId'>): StoredSurvey | undefined {
    return this.server$.value.get(machineId)?.find((entry) => entry.id !== id && entry.endedAt === null);
  }

  /** Only one survey of a machine runs: the server has ended the others. */
  private endOthers({ id, machineId }: StoredSurvey, at: string): void {
    const rows = this.server$.value.get(machineId) ?? [];
    const ended = rows.map((entry) =>
      entry.id === id ? entry : { ...entry, endedAt: entry.endedAt ?? at, version: entry.version + (entry.endedAt ? 0 : 1) },
    );
    this.server$.next(new Map(this.server$.value).set(machineId, ended));
  }

  private keep(saved: StoredSurvey): void {
    this.server$.next(new Map(this.server$.value).set(saved.machineId, withRow(this.server$.value.get(saved.machineId) ?? [], saved)));
  }
}
