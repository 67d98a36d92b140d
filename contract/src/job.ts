import * as z from 'zod';
import { timeZoneSchema } from './shop.js';

export const JOB_FORMAT = 'isometra-job/1';
export const SCHEDULE_FORMAT = 'isometra-schedule/1';

export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

const name = z
  .string({ error: (issue) => (issue.input === undefined ? 'is missing: give it a name' : 'must be a text') })
  .min(1, { error: 'is missing: give it a name' })
  .max(80, { error: 'must have at most 80 characters' });
const day = z.iso.date({ error: 'must be a date like 2026-03-14' });
const off = z.array(day, { error: 'must be a list of dates' }).max(4000).default([]);
/** Hours of one day. */
export const dayHoursSchema = z
  .number({ error: 'must be a number of hours' })
  .min(0, { error: 'must be 0 or more' })
  .max(24, { error: 'must be 24 or fewer' });
const minutes = z
  .number({ error: 'must be a number of minutes' })
  .min(0, { error: 'must be 0 or more' })
  .max(1_000_000, { error: 'must be 1000000 or fewer' });

/** Least, likely and most minutes; one number is exact. */
const minutesSchema = z
  .union([minutes, z.tuple([minutes]), z.tuple([minutes, minutes, minutes])], {
    error: 'must be a number of minutes, or least, likely and most: [40, 60, 120]',
  })
  .transform((given): readonly [number, number, number] => {
    const [least, likely = least, most = least] = [given].flat();
    return [least, likely, most];
  })
  .refine(([least, likely, most]) => least <= likely && likely <= most, {
    error: 'must rise from least to likely to most',
  });

const itemSchema = z
  .strictObject({
    id: name,
    minutes: minutesSchema.optional(),
    /** Runs by the clock from the end of what it comes after. */
    wait: z
      .strictObject({
        hours: z
          .number({ error: 'must be a number of hours' })
          .min(0, { error: 'must be 0 or more' })
          .max(100_000, { error: 'must be 100000 or fewer' }),
      })
      .optional(),
    who: z.array(name).max(20).optional(),
    /** How many of any; those named count among them. */
    people: z
      .int({ error: 'must be a whole number' })
      .min(0, { error: 'must be 0 or more' })
      .max(20, { error: 'must be 20 or fewer' })
      .optional(),
    things: z.array(name).max(40).optional(),
    machine: name.optional(),
    after: z.array(name).max(500).optional(),
    notBefore: day.optional(),
  })
  .refine((item) => (item.minutes === undefined) !== (item.wait === undefined), {
    error: 'must have either minutes or a wait',
  });
export type JobItem = z.output<typeof itemSchema>;

/** A plan of work: who works when, what there is one of, and what is to be done in which order. */
export const jobSchema = z.strictObject({
  format: z.literal(JOB_FORMAT, { error: `must be "${JOB_FORMAT}"` }),
  start: day,
  timeZone: timeZoneSchema.default('UTC'),
  people: z
    .array(
      z.strictObject({
        id: name,
        hours: z.partialRecord(z.enum(WEEKDAYS), dayHoursSchema, { error: 'must be hours by weekday: mon to sun' }),
        off,
      }),
    )
    .max(20, { error: 'must be at most 20 people' })
    .default([]),
  things: z
    .array(z.strictObject({ id: name, off }))
    .max(200, { error: 'must be at most 200 things' })
    .default([]),
  items: z.array(itemSchema).min(1, { error: 'must have one item at least' }).max(2000, { error: 'must be at most 2000 items' }),
  draws: z
    .int({ error: 'must be a whole number' })
    .min(1, { error: 'must be 1 or more' })
    .max(100_000, { error: 'must be 100000 or fewer' })
    .default(10_000),
  seed: z.int({ error: 'must be a whole number' }).min(0, { error: 'must be 0 or more' }).default(1),
});
export type Job = z.output<typeof jobSchema>;

/** Dates that a share of the draws does not come later than. */
export interface Dates {
  readonly p10: string;
  readonly p50: string;
  readonly p90: string;
}

export interface ScheduledItem {
  readonly id: string;
  readonly start: Dates;
  readonly end: Dates;
  /** The share of draws in which it decides the end. */
  readonly decides: number;
}

/** When a job is done, with what decides it. */
export interface Schedule {
  readonly format: typeof SCHEDULE_FORMAT;
  readonly finish: Dates;
  /** What decides the end in most draws, in order. */
  readonly chain: readonly string[];
  readonly items: readonly ScheduledItem[];
  /** What can be begun on the first day with hours. */
  readonly first: readonly string[];
}
