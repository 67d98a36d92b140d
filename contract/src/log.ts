import * as z from 'zod';
import { remarkSchema } from './remark.js';
import { roundHeadSchema } from './round.js';

/** What the log writes down, by what it is about. */
export const LOG_KINDS = [
  'round',
  'caution',
  'reading',
  'move',
  'note',
  'survey',
  'scraping',
  'machine',
  'kit',
  'limits',
  'strip-down',
  'plan',
  'shop',
  'device',
  'judged-anew',
] as const;
export type LogKind = (typeof LOG_KINDS)[number];

/** What an entry leads to, where it leads anywhere. */
export const LOG_THINGS = ['round', 'move', 'note', 'survey', 'face', 'machine', 'kit', 'limits', 'part', 'strip-down', 'plan'] as const;
export type LogThing = (typeof LOG_THINGS)[number];

/** How the worst quantity of a round came out. */
export const LOG_STATES = ['out', 'unsure', 'in'] as const;
export type LogState = (typeof LOG_STATES)[number];

/** The round that an entry is about, as it stands now; its finding null also where it does not count. */
export const loggedRoundSchema = roundHeadSchema
  .pick({ id: true, check: true, number: true, instrumentName: true, finding: true, unread: true, ahead: true })
  .extend({ struck: z.literal(true).optional() });
export type LoggedRound = z.infer<typeof loggedRoundSchema>;

/** Who did what, when, and where that is found. */
export const logEntrySchema = z.object({
  id: z.number(),
  at: z.string(),
  by: z.string(),
  /** One of LOG_KINDS; a later version may know more. */
  what: z.string(),
  text: z.string(),
  machineId: z.string().nullable(),
  /** The check or the face that it belongs to. */
  part: z.string().nullable(),
  /** One of LOG_THINGS; a later version may know more. */
  thing: z.string().nullable(),
  thingId: z.string().nullable(),
  /** The state of a card or a face that it brought about; null where it still stands so, or where that was not kept. */
  version: z.number().nullable(),
  /** What stood there before and counts no more: a reading that was put right. */
  was: z.string().nullable(),
  /** A note as it stands now; null where it was taken back. */
  remark: remarkSchema.nullable(),
  /** Of a note: whether its words stand, others stand in their place (or none), or something was done of it. */
  note: z.enum(['stands', 'reworded', 'about']).nullable(),
  /** Of a round, of a reading of it and of a move after it. */
  round: loggedRoundSchema.nullable(),
  /** The quantity that a move puts right. */
  quantity: z.string().nullable(),
});
export type LogEntry = z.infer<typeof logEntrySchema>;

/** One page of the log, newest first. */
export const logPageSchema = z.object({
  entries: z.array(logEntrySchema).readonly(),
  /** Where the next page goes on; null after the last one. */
  next: z.string().nullable(),
  /** What can be asked for, with the first page only. */
  choices: z
    .object({ people: z.array(z.string()).readonly(), parts: z.array(z.object({ id: z.string(), name: z.string() })).readonly() })
    .optional(),
});
export type LogPage = z.infer<typeof logPageSchema>;

const daySchema = z.iso.date({ error: 'must be a day like 2026-11-29' });

/** The last time that can be told, ms. */
const LAST_TIME = 8.64e15;

/** What of the log is asked for. Days are days of the shop, both counted in. */
export const logQuerySchema = z.strictObject({
  machine: z.uuid({ error: 'must be the id of a machine' }).optional(),
  what: z.enum(LOG_KINDS, { error: `must be one of ${LOG_KINDS.join(', ')}` }).optional(),
  by: z.string().max(8, { error: 'must be initials' }).optional(),
  part: z.string().max(60, { error: 'must be the name of a check or the id of a face' }).optional(),
  /** Notes with something in them that is still to be done. */
  todo: z.literal('open', { error: 'must be open' }).optional(),
  state: z.enum(LOG_STATES, { error: `must be one of ${LOG_STATES.join(', ')}` }).optional(),
  from: daySchema.optional(),
  to: daySchema.optional(),
  /** Every one of them is looked for, as the beginning of a word. */
  words: z.string().max(200, { error: 'must have at most 200 characters' }).optional(),
  before: z
    .string()
    .regex(/^\d{1,16}_\d{1,19}$/, { error: 'must be what the page before gave as next' })
    .refine((cursor) => Number(cursor.split('_')[0]) <= LAST_TIME, { error: 'must be what the page before gave as next' })
    .optional(),
});
export type LogQuery = z.infer<typeof logQuerySchema>;
