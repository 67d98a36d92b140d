import * as z from 'zod';
import type { Finding } from '@isometra/core';
import { conditionsSchema, idSchema, textObjectSchema, versionSchema, whoSchema } from './common.js';

const whenSchema = z.iso.datetime({ error: 'must be a time like 2026-01-31T08:00:00.000Z' });

/** What the round is for: the work of the tailstock. */
export const purposeSchema = z.strictObject({
  kind: z.enum(['turning', 'drilling']),
  length: z.union([z.string().max(40), z.number()]).optional(),
  diameter: z.union([z.string().max(40), z.number()]).optional(),
});

/** One set of readings for a check, as sent. Setup, plan and instrument are kept as typed. */
export const roundSchema = z.strictObject({
  id: idSchema,
  machineId: idSchema,
  check: z.string().max(60),
  setup: textObjectSchema,
  plan: textObjectSchema,
  instrument: textObjectSchema.nullable(),
  instrumentName: z.string().max(60).nullable(),
  conditions: conditionsSchema,
  purpose: purposeSchema.nullable(),
  note: z.string().max(2000).optional(),
  by: whoSchema,
  at: whenSchema,
  version: versionSchema,
});
export type RoundWrite = z.infer<typeof roundSchema>;

/** A reading: never changed, only superseded by another with a reason. `keys` and `value` as in a sheet. */
export const readingSchema = z.strictObject({
  id: idSchema,
  keys: z.record(z.string().max(40), z.union([z.string().max(60), z.number(), z.boolean()])),
  /** As typed; null withdraws the reading it supersedes. */
  value: z.union([z.string().max(60), z.number()]).nullable(),
  set: z.int().min(1).max(99).default(1),
  supersedes: idSchema.nullable().default(null),
  why: z.string().max(200).nullable().default(null),
  by: whoSchema,
  at: whenSchema,
});
export type ReadingWrite = z.infer<typeof readingSchema>;

export interface StoredReading extends ReadingWrite {
  readonly roundId: string;
  readonly sequence: number;
}

/** A move that was decided on: a job card with ticks. */
export const moveSchema = z.strictObject({
  id: idSchema,
  roundId: idSchema,
  kind: z.string().max(40),
  quantity: z.string().max(60),
  /** Signed like the quantity, in its unit. */
  amount: z.number(),
  unit: z.string().max(20),
  direction: z.string().max(60),
  plan: textObjectSchema,
  /** Texts of the steps that have been ticked, by number. */
  ticks: z.array(z.int().min(0).max(99)).max(100),
  done: z.boolean(),
  /** Movement seen on tightening, as typed. */
  shift: z.string().max(60).nullable(),
  by: whoSchema,
  at: whenSchema,
  version: versionSchema,
});
export type MoveWrite = z.infer<typeof moveSchema>;

/** A round with everything that belongs to it. The finding is worked out anew from the readings. */
export interface Round extends RoundWrite {
  /** The campaign it belongs to. */
  readonly surveyId: string;
  /** 1 for the first round of this check on this machine. */
  readonly number: number;
  readonly readings: readonly StoredReading[];
  readonly moves: readonly MoveWrite[];
  readonly finding: Finding | null;
  readonly coreVersion: string;
}

const written = Object.keys(roundSchema.shape) as (keyof RoundWrite)[];

/** The part of a round that was sent: what may be sent again, changed. All that was worked out or kept beside it is left off. */
export function roundWriteOf(round: RoundWrite): RoundWrite {
  return Object.fromEntries(written.filter((key) => round[key] !== undefined).map((key) => [key, round[key]])) as unknown as RoundWrite;
}

export interface LogEntry {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly what: string;
  readonly text: string;
}
