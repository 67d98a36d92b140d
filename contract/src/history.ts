import * as z from 'zod';
import { machineCardSchema } from './machine.js';

export const HISTORY_FORMAT = 'isometra-history/1';
export const STORY_FORMAT = 'isometra-story/1';

/** What may happen to a machine that makes its results worth nothing: all of them, or those that depend on how it stands. */
export const EVENTS = ['levelled', 'moved', 'crashed', 'bolts-slackened', 'part-off'] as const;
export type MachineEvent = (typeof EVENTS)[number];

const name = z
  .string({ error: 'must be a text' })
  .min(1, { error: 'is missing: give it a name' })
  .max(60, { error: 'must have at most 60 characters' });
const amount = z.union([z.string().max(80), z.number()], { error: 'must be a number or a text with a unit' });

/** A move as it was made: of which round, what was set out to be done at the part, and what the screw did. */
export const historyMoveSchema = z.strictObject({
  round: name,
  quantity: name,
  kind: name,
  /** Signed like the quantity's amount. */
  done: amount,
  /** Turns of the screw, signed like the plan's. */
  turns: z
    .number({ error: 'must be a number of turns' })
    .min(-1000, { error: 'must be −1000 or more' })
    .max(1000, { error: 'must be 1000 or less' })
    .optional(),
  /** What the part moved when it was locked, signed like the quantity. */
  tightening: amount.optional(),
  /** False where the screw, sleeve or leaf came to its end. */
  reached: z.boolean({ error: 'must be true or false' }).optional(),
});
export type HistoryMove = z.infer<typeof historyMoveSchema>;

export const historyEntrySchema = z.strictObject({
  at: z.iso.datetime({ offset: true, error: 'must be a time like 2026-03-02T18:00:00Z' }),
  id: name.optional(),
  /** A sheet. */
  round: z.record(z.string(), z.unknown(), { error: 'must be a sheet: an object' }).optional(),
  move: historyMoveSchema.optional(),
  event: z.enum(EVENTS, { error: `must be one of ${EVENTS.join(', ')}` }).optional(),
});
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

/** A machine's card in a history: only its kind is compulsory. */
const historyMachineSchema = machineCardSchema.partial().required({ kind: true });

/** A machine's story as a file: its card and what was read and moved, in order. */
export const historySchema = z.strictObject({
  format: z.literal(HISTORY_FORMAT, { error: `must be "${HISTORY_FORMAT}"` }),
  machine: historyMachineSchema,
  /** A limit sheet; the general shop's where it is left out. */
  limits: z.unknown().optional(),
  entries: z.array(historyEntrySchema, { error: 'must be a list of entries' }).max(2000, { error: 'must have at most 2000 entries' }),
});
