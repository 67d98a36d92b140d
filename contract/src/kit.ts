import * as z from 'zod';
import {
  choice,
  faultsOf,
  fieldRegistry,
  material,
  measure,
  optionalMeasure,
  parseQuantity,
  readInstrument,
  stockSchema,
  type Fault,
  type FieldInfo,
} from '@isometra/core';
import { idSchema, versionSchema, whoSchema } from './common.js';

/** What there is in a shop to measure with, and the drawer of shim leaves. */
export const KIT_KINDS = ['instrument', 'holder', 'test-bar', 'straightedge', 'square', 'pins', 'blocks', 'shim-stock'] as const;
export type KitKind = (typeof KIT_KINDS)[number];

export const KIT_NAMES: Readonly<Record<KitKind, { readonly one: string; readonly many: string; readonly example: string }>> = {
  instrument: { one: 'instrument', many: 'Indicators, levels, micrometers, feelers', example: 'Lever dial, 2 µm' },
  holder: { one: 'holder', many: 'Indicator holders', example: 'Long arm with the clamp' },
  'test-bar': { one: 'test bar', many: 'Test bars', example: 'Ground bar, 32 mm' },
  straightedge: { one: 'straightedge', many: 'Straightedges', example: 'Camelback, 900 mm' },
  square: { one: 'square', many: 'Squares', example: 'Granite square, 300 mm' },
  pins: { one: 'pair of pins', many: 'Pins', example: 'Pins, 10 mm' },
  blocks: { one: 'block', many: 'Blocks', example: 'Matched 1-2-3 pair' },
  'shim-stock': { one: 'shim drawer', many: 'Shim drawers', example: 'Shim drawer' },
};

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

export interface KitItem {
  readonly id: string;
  readonly kind: KitKind;
  readonly name: string;
  /** As typed: an instrument of a sheet, or what `KIT_SCHEMAS` asks of the kind. */
  readonly data: Readonly<Record<string, unknown>>;
  readonly care: Care;
  readonly photos: readonly string[];
  readonly version: number;
}

/** What is wrong with the data of a kit item, with paths that begin at `data`. */
export function kitFaults(item: Pick<KitItem, 'kind' | 'data'>): Fault[] {
  if (item.kind === 'instrument') {
    return readInstrument(item.data).faults.map((fault) => ({ ...fault, path: fault.path.replace(/^instrument/, 'data') }));
  }
  const schema = KIT_SCHEMAS[item.kind];
  const parsed = schema.safeParse(item.data);
  return parsed.success ? [] : faultsOf(parsed.error, ['data'], Object.keys(schema.shape));
}

/** Days until a piece of kit is due again: negative when overdue, undefined when it has no date. `today` as 2026-01-31. */
export function daysUntilDue(care: Care, today: string): number | undefined {
  if (!care.due) return undefined;
  return Math.round((Date.parse(care.due) - Date.parse(today)) / 86_400_000);
}

/** What a field of a set-up takes from a piece of kit; undefined when the kit does not know it. */
export function fromKit(item: Pick<KitItem, 'kind' | 'data'>, shape: Readonly<Record<string, unknown>> | undefined): unknown {
  const { data } = item;
  if (item.kind === 'square') return data['error'];
  if (item.kind === 'pins') return data['diameter'];
  if (item.kind === 'holder') return data['sag'];
  if (!shape) return undefined;
  return Object.fromEntries(Object.entries(data).filter(([key]) => key in shape));
}

interface ShimRow {
  readonly thickness: string | number;
  readonly count: number;
}

/** Leaves that a shim plan uses, µm: of one pile, or of those under the front and the rear of a base. */
export function leavesUsed(plan: Readonly<Record<string, unknown>>): number[] {
  const piles = [plan, plan['frontLeaves'], plan['rearLeaves']] as ({ readonly leaves?: unknown } | undefined)[];
  return piles.flatMap((pile) => (Array.isArray(pile?.leaves) ? (pile.leaves as number[]) : []));
}

/**
 * A drawer after leaves were taken out (`by` −1) or put back (`by` 1). A leaf that the drawer does not
 * have is not taken; thicknesses are matched whatever unit they were typed in.
 */
export function stockAfter(stock: readonly ShimRow[], leaves: readonly number[], by: 1 | -1): ShimRow[] {
  const rows = stock.map((row) => ({ ...row }));
  const thick = (row: ShimRow): number => {
    const parsed = parseQuantity(row.thickness, 'deviation');
    return parsed.ok ? parsed.value : NaN;
  };
  for (const leaf of leaves) {
    const row = rows.find((entry) => Math.abs(thick(entry) - leaf) < 1e-6 && entry.count + by >= 0);
    if (row) row.count += by;
  }
  return rows;
}
