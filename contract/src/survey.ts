import * as z from 'zod';
import { COARSE_STEPS, HAND_STEPS, plannedChangeSchema, STARTING_SHEETS, type LimitSheet, type StartingSheet } from '@isometra/core';
import { archivedSchema } from './archived.js';
import { EVENTS } from './history.js';
import { idSchema, reasonSchema, text, versionSchema, whenSchema, whoSchema } from './common.js';

const checkSchema = z.string().max(60);

/** What is read again after a move: only what it upsets, or everything from the first rung. */
export const SCHOOLS = [
  { value: 'cascade', label: 'only what it upsets', about: 'After a move only the checks that depend on it are read again.' },
  { value: 'top', label: 'from the top', about: 'After a move every check is read again, from the first one on.' },
] as const;
export type School = (typeof SCHOOLS)[number]['value'];

/** A rung that is passed over on purpose. */
export const skippedSchema = z.strictObject({ check: checkSchema, why: reasonSchema, by: whoSchema, at: whenSchema });
export type Skipped = z.infer<typeof skippedSchema>;

/** By which sheet a survey judges: a starting sheet, or a sheet of the shop's own with the version that was pinned. */
export const pinnedSchema = z.strictObject({
  sheet: z.union([z.enum(STARTING_SHEETS.map((sheet) => sheet.id) as [StartingSheet, ...StartingSheet[]]), idSchema], {
    error: `must be one of ${STARTING_SHEETS.map((sheet) => sheet.id).join(', ')}, or the id of a sheet of your own`,
  }),
  version: versionSchema,
});
export type Pinned = z.infer<typeof pinnedSchema>;

/** One campaign on one machine, as sent: how it goes about its rungs. What happens in it are notes of their own. */
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
  limits: pinnedSchema,
  version: versionSchema,
});
export type SurveyWrite = z.infer<typeof surveySchema>;

const steps = [...new Set(Object.values(HAND_STEPS).flatMap((all) => all.map(({ id }) => id)))];

const padSchema = z.number({ error: 'is missing: give the diameter, like 39.988' }).positive({ error: 'must be more than 0' }).max(5000);
const padsSchema = z.strictObject({ head: padSchema, tail: padSchema });

/** What is written down in a campaign beside its readings and moves, by kind. A note is never changed: a later one supersedes it. */
export const NOTE_CONTENTS = {
  /** A rung without readings, done by hand and eye, and what was found. */
  'by-hand': z.strictObject({
    step: z.enum(steps as [string, ...string[]], { error: `must be one of ${steps.join(', ')}` }),
    note: z.string().max(300).nullable(),
    /** Pads of a proof cut, mm, at the head and the tail end of the machine; first, and with the bar turned end for end. */
    sizes: z.strictObject({ first: padsSchema, turned: padsSchema }).optional(),
  }),
  /** What was seen at a rough look, before any indicator: a direction, never a number. */
  'rough-look': z.strictObject({
    step: z.enum(COARSE_STEPS.map(({ id }) => id) as [string, ...string[]], {
      error: `must be one of ${COARSE_STEPS.map(({ id }) => id).join(', ')}`,
    }),
    seen: text(120).min(1, { error: 'is missing: say what was seen' }),
  }),
  /** A value that is out or too close to call, and left because it does too little to the work. Counts for that round only. */
  acceptance: z.strictObject({ check: checkSchema, quantity: z.string().max(60), roundId: idSchema, why: reasonSchema }),
  /** How the bearings felt: end float as typed, drag from 0 (free) to 5 (stiff) at several turns of the spindle. */
  bearing: z.strictObject({
    endFloat: z.string().max(40).nullable(),
    drag: z.array(z.strictObject({ turn: z.number().min(0).max(360), drag: z.number().min(0).max(5) })).max(24),
    note: z.string().max(300).nullable(),
  }),
  /** A change that is still to come: while it is, zones and aims of what follows it are shifted. */
  planned: z.strictObject({ change: plannedChangeSchema }),
  /** A planned change that has been made. */
  'planned-done': z.strictObject({ planned: idSchema }),
  /** A cheap reading that stands for a full check between scraping passes. */
  'stand-in': z.strictObject({ check: checkSchema, quantity: z.string().max(60), where: reasonSchema }),
  /** One reading of a stand-in, tied to the round of its full check when both were taken together. */
  tie: z.strictObject({
    standIn: idSchema,
    /** As typed, a small distance. */
    reading: z.union([z.string().max(40), z.number()]),
    roundId: idSchema.nullable(),
    /** The full check's value taken with it; null for a reading alone. */
    value: z.number().nullable(),
  }),
  /** Something happened to the whole machine: what was read before it is read again. */
  event: z.strictObject({
    what: z.enum(EVENTS, { error: `must be one of ${EVENTS.join(', ')}` }),
    note: z.string().max(300).nullable(),
  }),
  /** Taken back: what it supersedes no longer counts. */
  withdrawn: z.strictObject({}),
} as const;
export type NoteKind = keyof typeof NOTE_CONTENTS;
export const NOTE_KINDS = Object.keys(NOTE_CONTENTS) as NoteKind[];

const noteShape = {
  id: idSchema,
  surveyId: idSchema,
  /** The note that this one puts in its place. */
  supersedes: idSchema.nullable().default(null),
  by: whoSchema,
  at: whenSchema,
};
const noteOf = <Kind extends NoteKind>(kind: Kind) => z.strictObject({ ...noteShape, kind: z.literal(kind), content: NOTE_CONTENTS[kind] });

/** One thing written down in a campaign. */
export const surveyNoteSchema = z.discriminatedUnion(
  'kind',
  [
    noteOf('by-hand'),
    noteOf('rough-look'),
    noteOf('acceptance'),
    noteOf('bearing'),
    noteOf('planned'),
    noteOf('planned-done'),
    noteOf('stand-in'),
    noteOf('tie'),
    noteOf('event'),
    noteOf('withdrawn'),
  ],
  { error: `must be one of ${NOTE_KINDS.join(', ')}` },
);
export type SurveyNote = z.infer<typeof surveyNoteSchema>;

/** A survey as the server has it: with the sheet it judges by written out, and everything written down in it, oldest first. */
export const storedSurveySchema = z.object({
  ...surveySchema.shape,
  id: z.string(),
  machineId: z.string(),
  judge: z.custom<LimitSheet>((sheet) => typeof sheet === 'object' && sheet !== null && 'lines' in sheet),
  notes: z.array(surveyNoteSchema).readonly(),
  archived: archivedSchema.optional(),
});
export type StoredSurvey = z.infer<typeof storedSurveySchema>;
