import * as z from 'zod';
import {
  LADDERS,
  plannedChangeSchema,
  startingSheet,
  STARTING_SHEETS,
  sumOf,
  type AxisEffect,
  type LimitSheet,
  type StartingSheet,
} from '@isometra/core';
import { idSchema, versionSchema, whoSchema } from './common.js';
import { checksFor, machineFamily } from './machine.js';

const whenSchema = z.iso.datetime({ error: 'must be a time like 2026-01-31T08:00:00.000Z' });
const reasonSchema = z
  .string({ error: (issue) => (issue.input === undefined ? 'is missing: say why' : 'must be a text') })
  .trim()
  .min(1, { error: 'is missing: say why' })
  .max(200, { error: 'must have at most 200 characters' });
const checkSchema = z.string().max(60);

/** What is read again after a move: only what it upsets, or everything from the first rung. */
export const SCHOOLS = [
  { value: 'cascade', label: 'only what it upsets', about: 'After a move only the rungs that hang on it are read again.' },
  { value: 'top', label: 'from the top', about: 'After a move every rung is read again, from the first one down.' },
] as const;
export type School = (typeof SCHOOLS)[number]['value'];

/** A rung that is passed over on purpose. */
export const skippedSchema = z.strictObject({ check: checkSchema, why: reasonSchema, by: whoSchema, at: whenSchema });
export type Skipped = z.infer<typeof skippedSchema>;

/** A value that is out or too close to call, and left because it does too little to the work. Counts for that round only. */
export const acceptedSchema = z.strictObject({
  check: checkSchema,
  quantity: z.string().max(60),
  roundId: idSchema,
  why: reasonSchema,
  by: whoSchema,
  at: whenSchema,
});
export type Accepted = z.infer<typeof acceptedSchema>;

/** A change that is still to come, and when it was made. While it is pending, zones and aims of what follows it are shifted. */
export const plannedSchema = z.strictObject({
  id: idSchema,
  change: plannedChangeSchema,
  by: whoSchema,
  at: whenSchema,
  doneAt: whenSchema.nullable(),
});
export type Planned = z.infer<typeof plannedSchema>;

/** A cheap reading that stands for a full check between scraping passes; tied to it when both were taken together. */
export const standInSchema = z.strictObject({
  id: idSchema,
  check: checkSchema,
  quantity: z.string().max(60),
  /** "Height over the bed at the rear corner". */
  where: reasonSchema,
  entries: z
    .array(
      z.strictObject({
        /** As typed, a small distance. */
        reading: z.union([z.string().max(40), z.number()]),
        /** The full check's value taken with it; null for a reading alone. */
        value: z.number().nullable(),
        by: whoSchema,
        at: whenSchema,
      }),
    )
    .max(200),
});
export type StandInLog = z.infer<typeof standInSchema>;

/** How the bearings felt: end float as typed, drag from 0 (free) to 5 (stiff) at several turns of the spindle. */
export const bearingNoteSchema = z.strictObject({
  id: idSchema,
  endFloat: z.string().max(40).nullable(),
  drag: z.array(z.strictObject({ turn: z.number().min(0).max(360), drag: z.number().min(0).max(5) })).max(24),
  note: z.string().max(300).nullable(),
  by: whoSchema,
  at: whenSchema,
});
export type BearingNote = z.infer<typeof bearingNoteSchema>;

/** A rung without readings that was done by hand and eye, and what was found. */
export const byHandSchema = z.strictObject({
  step: z.enum(['clean', 'proof-cut'], { error: 'must be clean or proof-cut' }),
  note: z.string().max(300).nullable(),
  by: whoSchema,
  at: whenSchema,
});
export type ByHand = z.infer<typeof byHandSchema>;

/** By which sheet a survey judges: a starting sheet, or a sheet of the shop's own with the version that was pinned. */
export const pinnedSchema = z.strictObject({
  sheet: z.union([z.enum(STARTING_SHEETS.map((sheet) => sheet.id) as [StartingSheet, ...StartingSheet[]]), idSchema], {
    error: `must be one of ${STARTING_SHEETS.map((sheet) => sheet.id).join(', ')}, or the id of a sheet of your own`,
  }),
  version: versionSchema,
});
export type Pinned = z.infer<typeof pinnedSchema>;

/** One campaign on one machine, as sent. */
export const surveySchema = z.strictObject({
  id: idSchema,
  machineId: idSchema,
  title: z
    .string({ error: 'must be a text' })
    .trim()
    .min(1, { error: 'is missing: give it a title' })
    .max(120, { error: 'must have at most 120 characters' }),
  startedAt: whenSchema,
  endedAt: whenSchema.nullable(),
  school: z.enum(['cascade', 'top'], { error: 'must be cascade or top' }),
  /** Check ids in working order. */
  order: z.array(checkSchema).max(60),
  skipped: z.array(skippedSchema).max(60),
  accepted: z.array(acceptedSchema).max(200),
  limits: pinnedSchema,
  planned: z.array(plannedSchema).max(60).default([]),
  standIns: z.array(standInSchema).max(20).default([]),
  bearings: z.array(bearingNoteSchema).max(100).default([]),
  byHand: z.array(byHandSchema).max(100).default([]),
  version: versionSchema,
});
export type SurveyWrite = z.infer<typeof surveySchema>;

/** A survey with the sheet it judges by written out. */
export interface Survey extends SurveyWrite {
  readonly judge: LimitSheet;
}

/** What a rung needs to know of its survey. */
export type SurveyPlan = Pick<SurveyWrite, 'school' | 'order' | 'skipped' | 'accepted' | 'planned'>;

/** The sheet that suits a kind of machine before anything else is chosen. */
export const usualSheet = (kind: string): StartingSheet => (kind === 'bench-lathe' ? 'light-bench' : 'general');

/** A survey as it begins: the default ladder of the machine's kind, cascade, its usual limits. */
export function freshSurvey(machine: { readonly id: string; readonly kind: string }, id: string, title: string, at: string): Survey {
  const sheet = usualSheet(machine.kind);
  return {
    id,
    machineId: machine.id,
    title,
    startedAt: at,
    endedAt: null,
    ...defaultPlan(machine.kind),
    limits: { sheet, version: 1 },
    standIns: [],
    bearings: [],
    byHand: [],
    version: 1,
    judge: startingSheet(sheet),
  };
}

export const defaultPlan = (kind: string): SurveyPlan => ({
  school: 'cascade',
  order: [...LADDERS[machineFamily(kind)]],
  skipped: [],
  accepted: [],
  planned: [],
});

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
export const pendingOf = (survey: Pick<SurveyWrite, 'planned'>): AxisEffect =>
  sumOf(survey.planned.filter((entry) => entry.doneAt === null).map((entry) => entry.change));
