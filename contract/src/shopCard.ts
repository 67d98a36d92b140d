import * as z from 'zod';
import { choice, count, fieldRegistry, optionalText } from '@isometra/core';
import { readBy, versionSchema, whoSchema } from './common.js';
import { shopCardShape } from './shop.js';

/** Days of the week by their names, in the order of `WEEKDAYS`. */
export const WEEKDAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

const clock = (label: string, example: string) =>
  z
    .string({ error: 'is missing: give a time of day' })
    .trim()
    .regex(/^([01]?\d|2[0-3]):[0-5]\d$/, { error: 'must be a time of day' })
    .register(fieldRegistry, { label, example });

/** Minutes of a time of day: "19:30" is 1170. */
export const minutesOfClock = (time: string): number => {
  const [hours, minutes] = time.split(':').map(Number);
  return hours * 60 + minutes;
};

const hoursSchema = z
  .strictObject({
    day: z
      .enum(WEEKDAY_NAMES, { error: 'is missing: choose the day' })
      .register(fieldRegistry, { label: 'Day', choices: WEEKDAY_NAMES.map((value) => ({ value, label: value })) }),
    from: clock('From', '19:00'),
    to: clock('To', '22:00'),
  })
  .refine(({ from, to }) => minutesOfClock(to) > minutesOfClock(from), { path: ['to'], error: 'must be later than the beginning' });

/** What a kind of work takes before this shop has done any of it, minutes. What it really takes is learned. */
export const STARTING_DURATIONS = [
  { key: 'setUp', label: 'Set up a check', minutes: 10 },
  { key: 'round', label: 'Read a round', minutes: 15 },
  { key: 'screw', label: 'Correct at a screw', minutes: 20 },
  { key: 'shim', label: 'Correct with shims', minutes: 90 },
  { key: 'pass', label: 'One scraping pass', minutes: 25 },
  { key: 'part', label: 'Take a part off, or put it back', minutes: 10 },
] as const;

const durations = z
  .strictObject(
    Object.fromEntries(
      STARTING_DURATIONS.map(({ key, label, minutes }) => [
        key,
        count({ label, min: 1, max: 6000, example: String(minutes), help: `${minutes} minutes where nothing is given.` }),
      ]),
    ),
  )
  .optional()
  .register(fieldRegistry, { label: 'Starting durations, minutes', group: true });

/** The shop as it is told on one page. */
export const shopCardSchema = z.strictObject({
  name: optionalText(60, { label: 'Name of the shop', example: 'Tarnside Works', help: 'Printed on every sheet.' }),
  units: choice({
    label: 'Usual unit',
    choices: [
      { value: 'mm', label: 'mm' },
      { value: 'inch', label: 'inch' },
    ],
    help: 'A device that nobody has set otherwise begins with it.',
  }),
  fineness: choice({
    label: 'Usual fineness',
    choices: [
      { value: 'coarse', label: '0.01 mm / thou' },
      { value: 'fine', label: 'µm / tenths' },
    ],
  }),
  paper: choice({
    label: 'Paper',
    choices: [
      { value: 'A4', label: 'A4' },
      { value: 'Letter', label: 'Letter' },
    ],
  }),
  hours: z
    .array(hoursSchema)
    .max(28)
    .optional()
    .register(fieldRegistry, { label: 'Hours of work', help: 'Evenings and days on which somebody usually works at the machines.' }),
  durations,
  rate: count({ label: 'Rate of an hour', min: 1, max: 100_000, example: '60', help: 'For estimates: what an hour of work costs here.' }),
  currency: optionalText(8, { label: 'In', example: 'EUR' }),
});
export type ShopCard = z.output<typeof shopCardSchema>;

/** A change of the shop's page. Its first version is 0. */
export const shopCardWriteSchema = z
  .strictObject({ ...shopCardShape, version: versionSchema.or(z.literal(0)), by: whoSchema })
  .superRefine(readBy('card', shopCardSchema));
export type ShopCardWrite = z.infer<typeof shopCardWriteSchema>;

/** The shop as its changes are told, field by field. */
export const shopToldSchema = z.object({
  ...shopCardSchema.shape,
  mark: z.string().register(fieldRegistry, { label: 'Mark on paper' }),
});
