import * as z from 'zod';
import { givenOutSchema, newGivenOut, type GivenOut } from './givenOut.js';
import { idSchema, MOST_PRICE, reasonSchema, text, versionSchema, whenSchema, whoSchema } from './common.js';
import { dayHoursSchema, WEEKDAYS } from './job.js';

/** What an item of a plan is: how it came onto the list. */
export const PLAN_KINDS = ['read', 'move', 'perhaps', 'by-hand', 'scrape', 'change', 'part', 'assemble', 'kit', 'to-do', 'own'] as const;
export type PlanKind = (typeof PLAN_KINDS)[number];

const keySchema = z.string().min(1, { error: 'is missing' }).max(120, { error: 'must have at most 120 characters' });
const minute = z
  .number({ error: 'must be a number of minutes' })
  .min(0, { error: 'must be 0 or more' })
  .max(100_000, { error: 'must be 100000 or fewer' });

/** Least, likely and most, minutes. */
export const spanSchema = z
  .tuple([minute, minute, minute], { error: 'must be least, likely and most minutes' })
  .refine(([least, likely, most]) => least <= likely && likely <= most, { error: 'must rise from least to likely to most' });
export type Span = z.infer<typeof spanSchema>;

const daySchema = z.iso.date({ error: 'must be a date like 2026-11-29' });
const waitSchema = z
  .number({ error: 'must be a number of hours' })
  .min(0, { error: 'must be 0 or more' })
  .max(20_000, { error: 'must be 20000 or fewer' });
const peopleSchema = z
  .int({ error: 'must be a whole number' })
  .min(0, { error: 'must be 0 or more' })
  .max(6, { error: 'must be 6 or fewer' });

/** What a person settles of an item that follows from what is known. */
export const planChangeSchema = z.strictObject({
  key: keySchema,
  minutes: spanSchema.optional(),
  wait: waitSchema.optional(),
  people: peopleSchema.optional(),
  who: z.array(whoSchema).max(6).optional(),
  notBefore: daySchema.optional(),
  /** What else it comes after. */
  after: z.array(keySchema).max(40).optional(),
  /** It is not to be done. */
  left: z.literal(true).optional(),
  why: reasonSchema,
  by: whoSchema,
  at: whenSchema,
});
export type PlanChange = z.infer<typeof planChangeSchema>;

/** An item that nobody could know of. */
export const ownItemSchema = z.strictObject({
  id: idSchema,
  title: z
    .string({ error: 'must be a text' })
    .trim()
    .min(1, { error: 'is missing: say what is to be done' })
    .max(120, { error: 'must have at most 120 characters' }),
  minutes: spanSchema.nullable(),
  /** Runs by the clock: glue that sets, a part that comes. Either this or minutes. */
  wait: waitSchema.nullable(),
  people: peopleSchema,
  who: z.array(whoSchema).max(6),
  things: z.array(text(60).min(1)).max(10),
  after: z.array(keySchema).max(40),
  notBefore: daySchema.nullable(),
  doneAt: whenSchema.nullable(),
  /** It comes round again so many days after it was done: oil, way wipers. `notBefore` is the day of its next turn. */
  every: z
    .int({ error: 'must be a whole number of days' })
    .min(1, { error: 'must be at least 1 day' })
    .max(3660, { error: 'must be at most ten years' })
    .optional(),
  /** When its last turn was done. */
  lastAt: whenSchema.optional(),
  /** What has to be bought for it, in the currency of the shop. */
  price: z
    .number({ error: 'must be a number' })
    .min(0, { error: 'must be 0 or more' })
    .max(MOST_PRICE, { error: `must be ${MOST_PRICE} or less` })
    .optional(),
  by: whoSchema,
  at: whenSchema,
});
export type OwnItem = z.infer<typeof ownItemSchema>;

/** What a rough look said of something that has not been measured yet. */
export const roughLookSchema = z.strictObject({
  check: z.string().min(1, { error: 'is missing' }).max(60, { error: 'must have at most 60 characters' }),
  quantity: z.string().min(1, { error: 'is missing' }).max(60, { error: 'must have at most 60 characters' }),
  /** About how far out, as typed: "0.2 mm"; null where it looks right. */
  out: z.string().trim().min(1, { error: 'is missing' }).max(40, { error: 'must have at most 40 characters' }).nullable(),
  by: whoSchema,
  at: whenSchema,
});
export type RoughLook = z.infer<typeof roughLookSchema>;

/** What people settled for the plan of a machine. */
export const planSettledSchema = z.strictObject({
  changes: z.array(planChangeSchema).max(500),
  own: z.array(ownItemSchema).max(300),
  /** Keys in the order in which they are to be done; what is not named keeps its place. */
  order: z.array(keySchema).max(1000),
  /** What a rough look said, one for each quantity; what is measured takes its place. */
  looks: z.array(roughLookSchema).max(200).optional(),
});
export type PlanSettled = z.infer<typeof planSettledSchema>;
export const planWriteSchema = z.strictObject({
  ...planSettledSchema.shape,
  machineId: idSchema,
  version: versionSchema.or(z.literal(0)),
  by: whoSchema,
});
export type PlanWrite = z.infer<typeof planWriteSchema>;
export const storedPlanSchema = planSettledSchema.extend({ machineId: z.string(), version: z.int() });
export type StoredPlan = z.infer<typeof storedPlanSchema>;

/** One thing to be done, with what it takes and what it waits for. */
export const planItemSchema = z.object({
  key: z.string(),
  kind: z.enum(PLAN_KINDS),
  title: z.string(),
  /** Why it is on the list. */
  why: z.string(),
  minutes: z.tuple([z.number(), z.number(), z.number()]).nullable(),
  /** Hours by the clock, of a wait. */
  wait: z.number().nullable(),
  people: z.int(),
  who: z.array(z.string()).readonly(),
  things: z.array(z.string()).readonly(),
  /** What must be done before it. */
  after: z.array(z.string()).readonly(),
  notBefore: z.string().nullable(),
  /** Where its minutes come from: told by somebody, learned from so many timings, forecast at the desk, or a starting value. */
  from: z.enum(['told', 'learned', 'forecast', 'starting']),
  timings: z.int(),
  cautions: z.array(z.string()).readonly(),
  /** It takes metal off. */
  metal: z.literal(true).optional(),
  /** What is bought for it, and its price in the currency of the shop; null where nobody has told it. */
  buys: z.object({ what: z.string(), price: z.number().nullable() }).optional(),
  /** Where in this program it is done, as the parts of an address. */
  path: z.array(z.string()).readonly().nullable(),
  /** What a person settled of it. */
  told: z.object({ why: z.string(), by: z.string(), at: z.string() }).nullable(),
});
export type PlanItem = z.infer<typeof planItemSchema>;

/** When somebody works: hours by weekday, and days on which they do not. */
export const workingSchema = z.strictObject({
  hours: z.partialRecord(z.enum(WEEKDAYS), dayHoursSchema, { error: 'must be hours by weekday: mon to sun' }),
  off: z.array(daySchema).max(400, { error: 'must be at most 400 days' }),
});
export type Working = z.infer<typeof workingSchema>;

/** Somebody who can be planned with. */
export const plannedPersonSchema = z.object({
  id: z.string(),
  name: z.string(),
  hours: z.partialRecord(z.enum(WEEKDAYS), z.number()),
  off: z.array(z.string()).readonly(),
  /** Whether the hours are their own; otherwise those of the shop, or a starting value. */
  from: z.enum(['own', 'shop', 'starting']),
});
export type PlannedPerson = z.infer<typeof plannedPersonSchema>;

/** A date that was named before, and what came. */
export const namedDateSchema = z.object({
  machineId: z.string(),
  at: z.string(),
  p10: z.string(),
  p50: z.string(),
  p90: z.string(),
  /** When the survey that it was named in was finished; null while it is not. */
  came: z.string().nullable(),
});
export type NamedDate = z.infer<typeof namedDateSchema>;
export const nameDateSchema = z.strictObject({ p10: daySchema, p50: daySchema, p90: daySchema });

/** The plan of one machine: what is left to do, by what is known today. */
export const machinePlanSchema = z.object({
  machineId: z.string(),
  number: z.string(),
  items: z.array(planItemSchema).readonly(),
  settled: storedPlanSchema,
  /** In one sentence: what was done last, and when. */
  leftOff: z.object({ text: z.string(), by: z.string(), at: z.string() }).nullable(),
});
export type MachinePlan = z.infer<typeof machinePlanSchema>;

/** Plans of some machines, with those who can work on them. */
export const shopPlanSchema = z.object({
  today: z.string(),
  timeZone: z.string().nullable(),
  people: z.array(plannedPersonSchema).readonly(),
  machines: z.array(machinePlanSchema).readonly(),
  named: z.array(namedDateSchema).readonly(),
  /** Spreads are widened by this, because dates named before were too narrow; 1 where they were not, or are too few. */
  widen: z.number(),
});
export type ShopPlan = z.infer<typeof shopPlanSchema>;

/** Something with a day of its own: a check that wants to be read again, a certificate, a part that is expected. */
export const dueItemSchema = z.object({
  /** As 2026-11-29. */
  day: z.string(),
  what: z.enum(['check', 'kit', 'part', 'own']),
  title: z.string(),
  machineId: z.string().nullable(),
  number: z.string().nullable(),
  path: z.array(z.string()).readonly(),
});
export type DueItem = z.infer<typeof dueItemSchema>;
export const dueSchema = z.object({ today: z.string(), items: z.array(dueItemSchema).readonly() });
export type Due = z.infer<typeof dueSchema>;

/** An address under which the calendar of the shop is fetched; its secret is told once, when it is made. */
export const calendarAddressSchema = givenOutSchema;
export type CalendarAddress = GivenOut;
export const newCalendarSchema = newGivenOut('say whose calendar reads it');
export const madeCalendarSchema = calendarAddressSchema.extend({ address: z.string() });
export type MadeCalendar = z.infer<typeof madeCalendarSchema>;

/** Work on a machine that was timed, minutes, by the survey it was done in, the check it was for, and who did it. */
export const workedHoursSchema = z.object({
  surveyId: z.string().nullable(),
  check: z.string().nullable(),
  by: z.string(),
  minutes: z.number(),
});
export type WorkedHours = z.infer<typeof workedHoursSchema>;
