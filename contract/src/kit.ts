import * as z from 'zod';
import { choice, fieldRegistry, material, measure, optionalMeasure, stockSchema, type FieldInfo } from '@isometra/core';
import { archivedSchema, type Archived } from './archived.js';
import { idSchema, versionSchema, whoSchema } from './common.js';
import { priceSchema } from './price.js';

/** What there is in a shop to measure with, and the drawer of shim leaves. */
export const KIT_KINDS = [
  'instrument',
  'holder',
  'test-bar',
  'straightedge',
  'square',
  'pins',
  'blocks',
  'sine-plate',
  'shim-stock',
] as const;
export type KitKind = (typeof KIT_KINDS)[number];

export const KIT_NAMES: Readonly<Record<KitKind, { readonly one: string; readonly many: string; readonly example: string }>> = {
  instrument: { one: 'instrument', many: 'Indicators, levels, micrometers, feelers', example: 'Lever dial, 2 µm' },
  holder: { one: 'holder', many: 'Indicator holders', example: 'Long arm with the clamp' },
  'test-bar': { one: 'test bar', many: 'Test bars', example: 'Ground bar, 32 mm' },
  straightedge: { one: 'straightedge', many: 'Straightedges', example: 'Camelback, 900 mm' },
  square: { one: 'square', many: 'Squares', example: 'Granite square, 300 mm' },
  pins: { one: 'pair of pins', many: 'Pins', example: 'Pins, 10 mm' },
  blocks: { one: 'block', many: 'Blocks', example: 'Matched 1-2-3 pair' },
  'sine-plate': { one: 'sine plate', many: 'Sine plates', example: 'Sine plate, 100 mm' },
  'shim-stock': { one: 'shim drawer', many: 'Shim drawers', example: 'Shim drawer' },
};

/** "an instrument", "a square". */
export const oneKit = (kind: KitKind): string => `${/^[aeiou]/.test(KIT_NAMES[kind].one) ? 'an' : 'a'} ${KIT_NAMES[kind].one}`;

const flag = (info: FieldInfo) => z.boolean().optional().register(fieldRegistry, info);

const testBar = z.strictObject({
  diameter: measure('length', { label: 'Diameter', above: 0, example: '32 mm' }),
  length: optionalMeasure('length', { label: 'Length', above: 0, example: '400 mm' }),
  bore: optionalMeasure('length', { label: 'Bore', min: 0, example: '0', help: 'For a hollow bar; left out when solid.' }),
  material: material(),
  finish: choice({
    label: 'Finished',
    choices: [
      { value: 'ground', label: 'ground' },
      { value: 'turned-elsewhere', label: 'turned elsewhere' },
    ],
  }),
  bend: optionalMeasure('deviation', { label: 'Bend', min: 0, example: '2 um', help: 'From its certificate or from a bar qualification.' }),
  evenness: optionalMeasure('deviation', { label: 'Diameter even within', min: 0, example: '1 um' }),
});
const straightedge = z.strictObject({
  length: measure('length', { label: 'Length', above: 0, example: '900 mm' }),
  straightness: optionalMeasure('deviation', { label: 'Straight within', min: 0, example: '4 um', help: 'From its certificate.' }),
  material: material(),
});
const square = z.strictObject({
  blade: measure('length', { label: 'Blade', above: 0, example: '300 mm' }),
  error: optionalMeasure('slope', {
    label: 'Error of its angle',
    example: '8 um/m',
    help: 'Its angle minus 90°, + obtuse; from its certificate or from flipping it over.',
  }),
  doubt: optionalMeasure('slope', { label: 'Known to ±', min: 0, example: '3 um/m' }),
});
const pins = z.strictObject({
  diameter: measure('length', { label: 'Diameter', above: 0, example: '10 mm' }),
  matched: optionalMeasure('deviation', { label: 'Alike within', min: 0, example: '1 um' }),
});
const blocks = z.strictObject({
  height: measure('length', { label: 'Height', above: 0, example: '50 mm' }),
  matched: flag({ label: 'A matched pair' }),
  doubt: optionalMeasure('deviation', { label: 'Known to ±', min: 0, example: '1 um' }),
});
const sinePlate = z.strictObject({
  rolls: measure('length', { label: 'Between the rolls', above: 0, max: 2000, example: '100 mm' }),
});
const holder = z.strictObject({
  sag: optionalMeasure('deviation', {
    label: 'Droop, top to bottom',
    max: 0,
    example: '-12 um',
    help: 'On a stiff true bar, zeroed at the top, read at the bottom: normally negative. The short check below measures it.',
  }),
  reach: optionalMeasure('length', { label: 'Reach', above: 0, example: '120 mm' }),
});
const shims = z.strictObject({ stock: stockSchema });

/** What is asked of a kind of kit; an instrument is asked by its own kind. */
export const KIT_SCHEMAS: Readonly<Record<Exclude<KitKind, 'instrument'>, z.ZodObject>> = {
  holder,
  'test-bar': testBar,
  straightedge,
  square,
  pins,
  blocks,
  'sine-plate': sinePlate,
  'shim-stock': shims,
};

const dateSchema = (info: FieldInfo) =>
  z.iso
    .date({ error: () => 'must be a date: year, month, day', abort: true })
    .optional()
    .register(fieldRegistry, { example: '2027-03-31', ...info });
const textSchema = (info: FieldInfo, max: number) =>
  z
    .string({ error: 'must be a text' })
    .trim()
    .max(max, { error: `must have at most ${max} characters` })
    .optional()
    .register(fieldRegistry, info);

/** How far a piece of kit can be trusted, and until when. */
export const careSchema = z.strictObject({
  certificate: textSchema({ label: 'Certificate', example: 'C-1042' }, 60),
  certified: dateSchema({ label: 'Certified on', example: '2026-03-31' }),
  due: dateSchema({ label: 'Due again on' }),
  price: priceSchema({ label: 'Certifying costs', help: 'In the currency of the shop, for estimates.' }),
  notes: z
    .array(z.strictObject({ at: z.iso.date(), by: whoSchema, text: z.string().trim().min(1).max(300) }))
    .max(200)
    .optional(),
});
export type Care = z.infer<typeof careSchema>;

export const kitItemSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(KIT_KINDS, { error: `must be one of ${KIT_KINDS.join(', ')}` }),
  name: z
    .string({ error: (issue) => (issue.input === undefined ? 'is missing: give it a name' : 'must be a text') })
    .trim()
    .min(1, { error: 'is missing: give it a name' })
    .max(60, { error: 'must have at most 60 characters' }),
  data: z.record(z.string(), z.unknown(), { error: 'must be an object' }),
  care: careSchema.default({}),
  /** Ids of its photographs; sent back as they came. */
  photos: z.array(idSchema).max(20).default([]),
  version: versionSchema,
});

/** What of a piece of kit is kept of every earlier state. */
export const kitStateSchema = z.object({ name: z.string(), data: z.record(z.string(), z.unknown()), care: careSchema.default({}) });

/** A piece of kit as the server has it. */
export const storedKitSchema = z.object({
  ...kitItemSchema.shape,
  id: z.string(),
  photos: z.array(z.string()),
  archived: archivedSchema.optional(),
});
/** A piece of kit; `data` as typed: an instrument of a sheet, or what `KIT_SCHEMAS` asks of the kind. */
export type KitItem = z.infer<typeof kitItemSchema> & { readonly archived?: Archived };
