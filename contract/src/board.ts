import * as z from 'zod';
import { waySchema } from './way.js';

const rungState = z.enum(['in', 'out', 'unsure', 'stale', 'none', 'left']);

/** One machine on the shop board: where its survey stands, the one next thing, what is due, and what was done last. */
export const boardPlateSchema = z.object({
  machineId: z.string(),
  survey: z.string(),
  /** Rungs in working order, what is done by hand at both ends with them. */
  strip: z.array(z.object({ id: z.string(), title: z.string(), state: rungState, way: waySchema.nullable() })),
  /** `bench` for a check, `by-hand` for a step; null when nothing is asked for. */
  next: z
    .object({
      at: z.enum(['bench', 'by-hand']),
      id: z.string(),
      title: z.string(),
      why: z.string(),
      /** The round whose move is to be done; null where something is to be read. */
      round: z.string().nullable(),
    })
    .nullable(),
  /** Rungs that want to be read again after a time, with the days they are over it. */
  due: z.array(z.object({ title: z.string(), days: z.number() })),
  /** Ways to the same answer that differ by more than their doubts, by their titles. */
  apart: z.array(z.object({ one: z.string(), other: z.string() })),
  /** Rounds that were begun and do not say anything yet, with the readings they have. */
  begun: z.array(z.object({ check: z.string(), title: z.string(), round: z.string(), readings: z.number() })),
  /** Faces that are being scraped, with the passes that are left. */
  faces: z.array(z.object({ id: z.string(), name: z.string(), left: z.number() })),
  last: z.object({ text: z.string(), by: z.string(), at: z.string() }).nullable(),
  /** What is known of the machine now, by name: what it is drawn from. µm and µm/m; heights of each way in µm over mm; where each pocket stands, µm. */
  known: z.object({
    facts: z.record(z.string(), z.number()),
    ways: z.array(z.object({ name: z.string(), heights: z.array(z.object({ at: z.number(), height: z.number() })) })).optional(),
    pockets: z.array(z.object({ name: z.string(), h: z.number().optional(), v: z.number().optional() })).optional(),
  }),
});
export type BoardPlate = z.infer<typeof boardPlateSchema>;

/** The first screen: the machines as they stand, and the kit that is overdue. */
export const boardSchema = z.object({
  plates: z.array(boardPlateSchema),
  kit: z.array(z.object({ name: z.string(), days: z.number() })),
});
export type Board = z.infer<typeof boardSchema>;
