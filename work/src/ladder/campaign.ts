import { CHECKS, LADDERS, startingSheet, sumOf, type AxisEffect, type PlannedChange } from '@isometra/core';
import {
  hasAll,
  machineFamily,
  usualSchool,
  usualSheet,
  type NoteKind,
  type StoredSurvey,
  type SurveyNote,
  type SurveyWrite,
} from '@isometra/contract';
import { checksFor } from '../sheets/machines.js';

type Signed<Content> = Content & { readonly id: string; readonly by: string; readonly at: string };
type ContentOf<Kind extends NoteKind> = Extract<SurveyNote, { kind: Kind }>['content'];

export type ByHand = Signed<ContentOf<'by-hand'>>;
export type Accepted = Signed<ContentOf<'acceptance'>>;
export type RoughLook = Signed<ContentOf<'rough-look'>>;
export type BearingNote = Signed<ContentOf<'bearing'>>;
export type EventNote = Signed<ContentOf<'event'>>;
export type Planned = Signed<{ readonly change: PlannedChange; readonly doneAt: string | null }>;
/** One reading of a stand-in, with the full check's value where it was tied to one. */
export type Tied = Signed<Omit<ContentOf<'tie'>, 'standIn'>>;
export type StandInLog = Signed<ContentOf<'stand-in'> & { readonly entries: readonly Tied[] }>;

/** A survey with what was written down in it, as it stands: superseded and withdrawn notes are left out. */
export interface Campaign extends StoredSurvey {
  readonly accepted: readonly Accepted[];
  readonly planned: readonly Planned[];
  readonly standIns: readonly StandInLog[];
  readonly bearings: readonly BearingNote[];
  readonly byHand: readonly ByHand[];
  readonly roughLooks: readonly RoughLook[];
  readonly events: readonly EventNote[];
}

/** The notes that count: none that a later one supersedes, and no withdrawal. */
export function standingNotes(notes: readonly SurveyNote[]): SurveyNote[] {
  const gone = new Set(notes.flatMap(({ supersedes }) => (supersedes ? [supersedes] : [])));
  return notes.filter(({ id, kind }) => kind !== 'withdrawn' && !gone.has(id));
}

const signed = <Content extends object>({ id, by, at }: SurveyNote, content: Content): Signed<Content> => ({ ...content, id, by, at });

/** A survey with its notes told apart. */
export function campaignOf(survey: StoredSurvey): Campaign {
  const notes = standingNotes(survey.notes);
  const of = <Kind extends NoteKind>(kind: Kind) => notes.filter((note): note is Extract<SurveyNote, { kind: Kind }> => note.kind === kind);
  const done = new Map(of('planned-done').map(({ content, at }) => [content.planned, at]));
  const ties = of('tie').map((note) => ({ standIn: note.content.standIn, entry: tied(note) }));
  return {
    ...survey,
    accepted: of('acceptance').map((note) => signed(note, note.content)),
    planned: of('planned').map((note) => signed(note, { change: note.content.change, doneAt: done.get(note.id) ?? null })),
    standIns: of('stand-in').map((note) =>
      signed(note, { ...note.content, entries: ties.filter(({ standIn }) => standIn === note.id).map(({ entry }) => entry) }),
    ),
    bearings: of('bearing').map((note) => signed(note, note.content)),
    byHand: of('by-hand').map((note) => signed(note, note.content)),
    roughLooks: of('rough-look').map((note) => signed(note, note.content)),
    events: of('event').map((note) => signed(note, note.content)),
  };
}

function tied(note: Extract<SurveyNote, { kind: 'tie' }>): Tied {
  const { standIn: _standIn, ...content } = note.content;
  return signed(note, content);
}

/** What a rung needs to know of its campaign. */
export type CampaignPlan = Pick<Campaign, 'school' | 'order' | 'skipped' | 'accepted' | 'planned'>;

/** The rungs of a kind of machine in their default order. */
const ladderOfKind = (kind: string): string[] => LADDERS[machineFamily(kind)].filter((id) => hasAll(kind, CHECKS.get(id)?.needs));

export const defaultPlan = (kind: string): CampaignPlan => ({
  school: usualSchool(kind),
  order: ladderOfKind(kind),
  skipped: [],
  accepted: [],
  planned: [],
});

/** A survey as it begins: the default ladder of the machine's kind, cascade, its usual limits, nothing written down. */
export function freshSurvey(machine: { readonly id: string; readonly kind: string }, id: string, title: string, at: string): StoredSurvey {
  const sheet = usualSheet(machine.kind);
  return {
    id,
    machineId: machine.id,
    title,
    startedAt: at,
    endedAt: null,
    school: usualSchool(machine.kind),
    order: ladderOfKind(machine.kind),
    skipped: [],
    limits: { sheet, version: 1 },
    version: 1,
    judge: startingSheet(sheet),
    notes: [],
  };
}

/** A survey as it is sent: without what the server wrote out. */
export function surveyWriteOf({
  id,
  machineId,
  title,
  startedAt,
  endedAt,
  school,
  order,
  skipped,
  limits,
  version,
}: SurveyWrite): SurveyWrite {
  return { id, machineId, title, startedAt, endedAt, school, order: [...order], skipped: [...skipped], limits, version };
}

/** The rungs of a machine in the order of a survey; checks it does not name follow at the end. */
export function orderOf(kind: string, order: readonly string[]): string[] {
  const known = checksFor(kind).map((check) => check.id);
  return [...order.filter((id) => known.includes(id)), ...known.filter((id) => !order.includes(id))];
}

/** An order with one rung moved up (−) or down (+) so many places; the same order when it cannot go there. */
export function moved(order: readonly string[], id: string, by: number): string[] {
  const from = order.indexOf(id);
  const to = from + by;
  if (from < 0 || to < 0 || to >= order.length) return [...order];
  const rest = order.filter((entry) => entry !== id);
  return [...rest.slice(0, to), id, ...rest.slice(to)];
}

/** What the changes that are still to come will do to the spindle axis. */
export const pendingOf = ({ planned }: Pick<Campaign, 'planned'>): AxisEffect =>
  sumOf(planned.filter((entry) => entry.doneAt === null).map((entry) => entry.change));

/** Another text whenever a survey's rounds would be judged otherwise: its sheet, and what is still to come. */
export function judgingKey(campaign: Pick<Campaign, 'limits' | 'planned'>): string {
  return `${campaign.limits.sheet}@${campaign.limits.version}/${Object.values(pendingOf(campaign)).join('/')}`;
}

/** The survey that is running, or the last one that ran. */
export function running<S extends Pick<SurveyWrite, 'endedAt'>>(surveys: readonly S[]): S | undefined {
  return surveys.filter((survey) => survey.endedAt === null).at(-1) ?? surveys.at(-1);
}
