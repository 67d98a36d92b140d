import * as z from 'zod';
import { choice, count, fieldRegistry, measure, optionalText } from '@isometra/core';
import { idSchema, readBy, text, versionSchema, whenSchema, whoSchema } from './common.js';
import { priceSchema } from './price.js';
import { markedPictureSchema, MOST_PICTURES } from './remark.js';

/** What a part is, as far as its assembly asks something of its own. */
export const PART_KINDS = [
  { value: 'plain', label: 'a part' },
  { value: 'cover', label: 'a cover that closes it' },
  { value: 'cap', label: 'a bearing cap' },
  { value: 'shaft', label: 'a spindle or shaft' },
  { value: 'bearing', label: 'a bearing' },
  { value: 'gear', label: 'a gear or pulley' },
  { value: 'belt', label: 'a belt or chain' },
  { value: 'gib', label: 'a gib or wedge' },
  { value: 'body', label: 'a casting' },
] as const;
export type PartKind = (typeof PART_KINDS)[number]['value'];

/** What has to be done to a part before it goes back. */
export const CONDITIONS = [
  { value: 'good', label: 'good as it is' },
  { value: 'clean', label: 'clean it' },
  { value: 'mend', label: 'mend it' },
  { value: 'make', label: 'make a new one' },
  { value: 'order', label: 'order a new one' },
] as const;
export type Condition = (typeof CONDITIONS)[number]['value'];

/** Joints in which shims lie. Job cards of that joint know what was found in it. */
export const SHIM_JOINTS = [
  { value: 'headstock', label: 'headstock on the bed' },
  { value: 'tailstock', label: 'tailstock base' },
  { value: 'column', label: 'column foot' },
  { value: 'bearing-cap', label: 'bearing cap' },
  { value: 'saddle', label: 'saddle' },
  { value: 'table', label: 'table on its trucks' },
  { value: 'feet', label: 'machine feet' },
  { value: 'other', label: 'another joint' },
] as const;
export type ShimJoint = (typeof SHIM_JOINTS)[number]['value'];

/** Where in its joint a shim lies: left and right as the operator sees the machine, front is the operator's side. */
export const SHIM_SPOTS = [
  'left front',
  'right front',
  'left rear',
  'right rear',
  'headstock end',
  'tailstock end',
  'operator’s side',
  'far side',
  'all of the joint',
] as const;

const shimFields = {
  joint: z
    .enum(SHIM_JOINTS.map(({ value }) => value) as [ShimJoint, ...ShimJoint[]], { error: 'is missing: say in which joint' })
    .register(fieldRegistry, { label: 'In the joint', choices: SHIM_JOINTS }),
  at: choice({
    label: 'Corner or side',
    choices: SHIM_SPOTS.map((value) => ({ value, label: value })),
    help: 'As the operator sees the machine. It is asked again before the part goes back, when it is not known here.',
  }),
  thickness: measure('length', { label: 'Thickness, all layers', above: 0, max: 50, example: '0.3 mm' }),
  layers: count({ label: 'Layers', min: 1, max: 30, example: '2' }),
};
const shimSchema = z.strictObject(shimFields);
export type FoundShim = z.output<typeof shimSchema>;

const fasteningSchema = z.strictObject({
  what: z
    .string({ error: 'is missing: say what it is' })
    .trim()
    .min(1, { error: 'is missing: say what it is' })
    .max(60, { error: 'must have at most 60 characters' })
    .register(fieldRegistry, { label: 'Screw, pin or key', example: 'M8 × 25 cap screw' }),
  count: count({ label: 'How many', min: 1, max: 200, example: '4' }),
  hidden: optionalText(80, { label: 'Hidden', example: 'under the name plate' }),
  thread: choice({
    label: 'Thread',
    choices: [
      { value: 'right', label: 'right-hand' },
      { value: 'left', label: 'left-hand' },
    ],
  }),
  torque: optionalText(30, { label: 'Torque as found', example: '25 N m' }),
});
export type Fastening = z.output<typeof fasteningSchema>;

const lifting = choice({
  label: 'Lifting',
  choices: [
    { value: 'hand', label: 'one person' },
    { value: 'two', label: 'two people' },
    { value: 'gear', label: 'rated gear' },
  ],
});

const details = {
  name: z
    .string({ error: 'is missing: give the part a name' })
    .trim()
    .min(1, { error: 'is missing: give the part a name' })
    .max(60, { error: 'must have at most 60 characters' })
    .register(fieldRegistry, { label: 'Name', example: 'Front bearing cap' }),
  kind: choice({ label: 'It is', choices: PART_KINDS }),
  condition: choice({ label: 'Condition', choices: CONDITIONS }),
  marks: optionalText(300, {
    label: 'Which way round',
    example: 'punch mark toward you',
    help: 'Marks that show how it sits: punch marks, paint, arrows.',
  }),
  thickEnd: optionalText(60, { label: 'Thick end points', example: 'toward the tailstock' }),
  shims: z.array(shimSchema).max(20).optional().register(fieldRegistry, { label: 'Shims found under it' }),
  fastenings: z.array(fasteningSchema).max(30).optional().register(fieldRegistry, { label: 'Screws, pins and keys' }),
  seals: optionalText(200, { label: 'Seals and felts', example: 'felt ring' }),
  asFound: optionalText(200, { label: 'Preload or drag as found', example: 'light, even drag' }),
  count: count({ label: 'Pieces', min: 1, max: 999, example: '3' }),
  lift: lifting,
  load: choice({
    label: 'Under load',
    choices: [
      { value: 'spring', label: 'a spring' },
      { value: 'weight', label: 'a counterweight' },
      { value: 'pressure', label: 'oil or air pressure' },
    ],
  }),
  box: optionalText(30, { label: 'Kept in', example: 'box 3' }),
  notes: optionalText(1000, { label: 'Notes' }),
};

/** What is written down of a part: lengths as typed, bare numbers in mm. */
export const partDetailsSchema = z.strictObject(details);
export type PartDetails = z.output<typeof partDetailsSchema>;

/** The fields that a part of some kind is asked for; what is kept is read by the whole. */
export function partFieldsFor(kind: PartKind | undefined): z.ZodObject {
  const { thickEnd, ...others } = details;
  return z.strictObject(kind === 'gib' ? { ...others, thickEnd } : others);
}

/** How far the work on a part has come. */
export const NEED_STATES = ['needed', 'ordered', 'here', 'done'] as const;
export type NeedState = (typeof NEED_STATES)[number];

export const needSchema = z.strictObject({
  state: z.enum(NEED_STATES, { error: `must be one of ${NEED_STATES.join(', ')}` }).register(fieldRegistry, { label: 'State' }),
  /** The day on which it is expected. */
  expected: z.iso.date({ error: 'must be a date like 2026-11-29' }).optional().register(fieldRegistry, { label: 'Expected' }),
  from: optionalText(60, { label: 'From' }),
  /** In the currency of the shop. */
  price: priceSchema({ label: 'Price' }),
});
export type Need = z.infer<typeof needSchema>;

/** A part that went back: by whom, when, and what was ticked. */
export const fittedSchema = z.strictObject({ by: whoSchema, at: whenSchema, ticks: z.array(z.string().max(40)).max(60) });
export type Fitted = z.infer<typeof fittedSchema>;

/** Parts are numbered as they come off; the number is painted on them or on their box. */
export const PART_NUMBERS = { min: 1, max: 999 } as const;

const partShape = {
  id: idSchema,
  stripDownId: idSchema,
  number: z
    .int({ error: 'must be a whole number' })
    .min(PART_NUMBERS.min, { error: `must be ${PART_NUMBERS.min} or more` })
    .max(PART_NUMBERS.max, { error: `must be ${PART_NUMBERS.max} or less` }),
  /** Where in the order it came off: between those of its neighbours. */
  place: z.number({ error: 'must be a number' }).min(0).max(1e6),
  /** As typed; read by `partDetailsSchema`. */
  details: z.record(z.string(), z.unknown(), { error: 'must be an object' }),
  need: needSchema.nullable(),
  fitted: fittedSchema.nullable(),
  pictures: z.array(markedPictureSchema).max(MOST_PICTURES, { error: `must be at most ${MOST_PICTURES} photographs` }),
  /** Entered by mistake: out of every list, kept all the same. */
  removed: z.boolean().optional(),
  version: versionSchema,
};

const readDetails = readBy('details', partDetailsSchema);

/** A part that came off. */
export const partSchema = z.strictObject(partShape).superRefine(readDetails);
export type Part = z.infer<typeof partSchema>;
export const partWriteSchema = z.strictObject({ ...partShape, by: whoSchema, at: whenSchema }).superRefine(readDetails);
export type PartWrite = z.infer<typeof partWriteSchema>;

const stripDownShape = {
  id: idSchema,
  machineId: idSchema,
  name: text(60).min(1, { error: 'is missing: say what is taken apart' }),
  /** No longer worked on: out of the lists, kept all the same. */
  archived: z.boolean().optional(),
  version: versionSchema,
};
/** Something of a machine that is taken apart: its headstock, its apron. */
export const stripDownSchema = z.strictObject(stripDownShape);
export type StripDown = z.infer<typeof stripDownSchema>;
export const stripDownWriteSchema = z.strictObject({ ...stripDownShape, by: whoSchema, at: whenSchema });

/** With its parts, in the order in which they came off. */
export const storedStripDownSchema = stripDownSchema.extend({ begunAt: z.string(), parts: z.array(partSchema).readonly() });
export type StoredStripDown = z.infer<typeof storedStripDownSchema>;

/** A part that something must be done to, with where it belongs. */
export const neededPartSchema = z.object({
  machineId: z.string(),
  machine: z.string(),
  stripDown: z.string(),
  part: partSchema,
});
export type NeededPart = z.infer<typeof neededPartSchema>;

/** A part in the words of its log lines: "5 Front bearing cap". */
export const partTitle = ({ number, details: typed }: Pick<Part, 'number' | 'details'>): string =>
  `${number} ${String(typed['name'] ?? '')}`.trim();

/** What a part is read as; undefined only for one that a later version wrote. */
export const readPart = ({ details: typed }: Pick<Part, 'details'>): PartDetails | undefined => partDetailsSchema.safeParse(typed).data;

/** What of a part is shown of an earlier state. */
export const partStateSchema = z.object({ details: z.record(z.string(), z.unknown()), pictures: z.array(markedPictureSchema) });

/** A part as its changes are told, field by field. */
export const partToldSchema = z.object({
  ...details,
  ...needSchema.shape,
  number: z.number().register(fieldRegistry, { label: 'Number' }),
  fitted: z.boolean().register(fieldRegistry, { label: 'Fitted' }),
  removed: z.boolean().register(fieldRegistry, { label: 'Removed from the list' }),
  pictures: z.number().register(fieldRegistry, { label: 'Photographs' }),
});

/** @returns what `partToldSchema` names, as typed; what was not given is left out. */
export const partTold = ({ details: typed, need, number, fitted, removed, pictures }: Part): Record<string, unknown> => ({
  ...typed,
  ...need,
  ...{ number, pictures: pictures.length },
  ...(fitted && { fitted: true }),
  ...(removed && { removed: true }),
});
