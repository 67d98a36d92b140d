import * as z from 'zod';
import { DIMENSIONS, type Dimension } from '../units/dimensions.js';
import { workable } from '../units/number.js';
import { parseQuantity, type Parsed } from '../units/parse.js';
import { readPlaces } from './placeTexts.js';

/** What a form needs to know to draw one field. Kept beside the schema, never inside the check's code. */
export interface FieldInfo {
  readonly label: string;
  readonly help?: string;
  readonly dimension?: Dimension;
  /** Unit of a bare number, when it is not the dimension's base unit. */
  readonly unit?: string;
  /** On a screen a bare figure is in the unit that the thing is engraved or spoken in, mm or inches: never µm behind an example in mm. */
  readonly engraved?: true;
  /**
   * What such a thing usually is, in base units: a bare figure outside is asked back. Left out, a length is asked about where it is
   * twelve times more or less than its example.
   */
  readonly usual?: readonly [number, number] | 'anything';
  readonly choices?: readonly { readonly value: string; readonly label: string }[];
  readonly group?: boolean;
  readonly example?: string;
  /** Rarely needed: shown under "more". */
  readonly rare?: boolean;
  /** Asked by the screen, although a sheet may leave it out: nothing is taken for granted where it turns the sign. */
  readonly asked?: boolean;
  /** Asked, and shown at all, only where a flag beside it is set: its key. */
  readonly askedWith?: string;
  /** Check and quantity whose latest result fills the field in: "bed-twist/twistPerMetre". */
  readonly from?: string;
  /** Kind of kit that fills the field in. */
  readonly kit?: string;
  /** Not asked for by the interface: the application fills it or the bench draws its own control. */
  readonly hidden?: boolean;
  /** Asked anew each time: what it was last time says nothing of now. */
  readonly anew?: true;
  /** A list of places of the user's own, moved on the drawing and typed beside it. */
  readonly places?: boolean;
}

interface Range {
  /** Numbers that were worked out, not typed: none is too small to make sense. */
  readonly workedOut?: boolean;
  readonly min?: number;
  readonly above?: number;
  readonly max?: number;
  readonly below?: number;
}

/** Labels, units and help of every field, by schema. */
export const fieldRegistry = z.registry<FieldInfo>();

/** The form information of a schema, if it is a field. */
export function fieldInfo(schema: z.ZodType): FieldInfo | undefined {
  return fieldRegistry.get(schema);
}

/** A schema without what makes it optional or gives it a default. */
export function bareSchema(schema: z.ZodType): z.ZodType {
  if (schema instanceof z.ZodOptional || schema instanceof z.ZodDefault) return bareSchema(schema.unwrap() as z.ZodType);
  // What may be written shorter is asked for in full.
  return schema instanceof z.ZodPipe && schema.def.out instanceof z.ZodObject ? schema.def.out : schema;
}

/** The form information of the field at a path of a schema; undefined where there is no such field. */
export function fieldAt(schema: z.ZodType, keys: readonly string[]): FieldInfo | undefined {
  const [key, ...rest] = keys;
  if (key === undefined) return fieldInfo(schema);
  const within = bareSchema(schema);
  const part = within instanceof z.ZodObject ? (within.shape as Record<string, z.ZodType>)[key] : undefined;
  return part && fieldAt(part, rest);
}

/**
 * What a person calls the field at a path of a schema: `['bar', 'diameter']` → "Bar, bar diameter". A key
 * without a label of its own is given as it is.
 */
export function fieldPath(schema: z.ZodType, keys: readonly string[]): string {
  const words = keys.map((key) => {
    const within = bareSchema(schema);
    const part = within instanceof z.ZodObject ? (within.shape as Record<string, z.ZodType>)[key] : undefined;
    schema = part ?? z.unknown();
    return (part && fieldInfo(part)?.label) ?? key;
  });
  return words.map((word, i) => (i ? `${word.charAt(0).toLowerCase()}${word.slice(1)}` : word)).join(', ');
}

const BEYOND_ANY = 1e9;

function outOfRange(value: number, { min, above, max, below }: Range, base: string): string | undefined {
  if (above !== undefined && !(value > above)) return `must be more than ${above} ${base}`;
  if (min !== undefined && !(value >= min)) return `must be ${min} ${base} or more`;
  if (max !== undefined && !(value <= max)) return `must be ${max} ${base} or less`;
  if (below !== undefined && !(value < below)) return `must be less than ${below} ${base}`;
  // More than any machine, in any unit: a typing mistake that would only overflow later.
  return Math.abs(value) <= BEYOND_ANY ? undefined : `is beyond any machine: ${value} ${base}`.trim();
}

/** A small distance without a unit that is less than this, µm, was meant in another unit. */
const SENSELESS = 0.05;

/** What to ask of a small distance typed bare that makes no sense in µm: 0.025 is a hundredth of a needle's width. */
export function askedUnit(parsed: Parsed, dimension: Dimension): string | undefined {
  if (!parsed.ok || !parsed.bare || dimension !== 'deviation' || parsed.unit !== 'um') return undefined;
  const size = Math.abs(parsed.value);
  return size > 0 && size < SENSELESS
    ? `${parsed.value} without a unit is ${parsed.value} µm, which nobody can read: write the unit, ${parsed.value} mm or ${parsed.value} in`
    : undefined;
}

/** A schema that takes a number or a text with a unit and gives base units. */
export function quantitySchema(dimension: Dimension, range: Range = {}, example?: string, unit?: string): z.ZodType<number, unknown> {
  const { base } = DIMENSIONS[dimension];
  return z.unknown().transform((raw, context): number => {
    const parsed = parseQuantity(raw, dimension, unit);
    const message = parsed.ok
      ? (outOfRange(parsed.value, range, base) ?? (range.workedOut ? undefined : askedUnit(parsed, dimension)))
      : parsed.message;
    if (parsed.ok && message === undefined) return parsed.value;
    const shown = example ?? (parsed.ok ? DIMENSIONS[dimension].example : parsed.example);
    context.issues.push({ code: 'custom', message: message ?? 'is not taken', input: raw, params: { example: shown } });
    return z.NEVER;
  });
}

/** A required measure. */
export function measure(dimension: Dimension, info: FieldInfo & Range): z.ZodType<number, unknown> {
  return quantitySchema(dimension, info, info.example, info.unit).register(fieldRegistry, { ...info, dimension });
}

/** A measure that may be left out. */
export function optionalMeasure(dimension: Dimension, info: FieldInfo & Range): z.ZodOptional<z.ZodType<number, unknown>> {
  return quantitySchema(dimension, info, info.example, info.unit)
    .optional()
    .register(fieldRegistry, { ...info, dimension });
}

/** Places of the user's own, mm: as many as wanted, each once. */
export const placeList = (info: Omit<FieldInfo, 'dimension' | 'places'> & { readonly max?: number; readonly min?: number }) =>
  z
    .preprocess(
      (raw, context): unknown => {
        if (typeof raw !== 'string') return raw;
        const read = readPlaces(raw);
        if (read) return read.places;
        context.addIssue({
          code: 'custom',
          message: 'must be a list of places, with a space or a semicolon between them',
          params: { example: info.example },
        });
        return z.NEVER;
      },
      z
        .array(quantitySchema('length', {}, info.example), { error: 'must be a list of places' })
        .min(info.min ?? 1, { error: `must name ${info.min ?? 1} at least` })
        .max(info.max ?? 200, { error: `must name ${info.max ?? 200} at most` })
        .refine((places) => new Set(places).size === places.length, { message: 'names a place twice', params: { example: info.example } }),
    )
    .optional()
    .register(fieldRegistry, { help: 'Left out, they are spread evenly.', ...info, dimension: 'length', places: true });

/** One word out of a few; the first is the default when `required` is not set. */
export function choice<const T extends string>(
  info: FieldInfo & { readonly choices: readonly { readonly value: T; readonly label: string }[] },
) {
  const values = info.choices.map((entry) => entry.value);
  return z
    .enum(values as [T, ...T[]])
    .optional()
    .register(fieldRegistry, info);
}

/** Some of a few words, each once; none where it is left out. */
export function several<const T extends string>(
  info: FieldInfo & { readonly choices: readonly { readonly value: T; readonly label: string }[] },
) {
  const values = info.choices.map((entry) => entry.value);
  return z
    .array(z.enum(values as [T, ...T[]]), { error: `must be a list of ${values.join(', ')}` })
    .refine((names) => new Set(names).size === names.length, { message: 'names one twice', params: { example: values[0] } })
    .optional()
    .register(fieldRegistry, info);
}

/** A plain number without a unit. */
export function plainNumber(info: FieldInfo & Range): z.ZodType<number, unknown> {
  return numberSchema(info).register(fieldRegistry, info);
}

/** A plain number that may be left out. */
export function optionalNumber(info: FieldInfo & Range): z.ZodOptional<z.ZodType<number, unknown>> {
  return numberSchema(info).optional().register(fieldRegistry, info);
}

function numberSchema(info: FieldInfo & Range): z.ZodType<number, unknown> {
  return z.unknown().transform((raw, context): number => {
    const value = typeof raw === 'string' && raw.trim() !== '' ? Number(raw.trim().replace(',', '.').replace('−', '-')) : raw;
    const message =
      typeof value !== 'number' || !Number.isFinite(value)
        ? raw === undefined || raw === ''
          ? 'is missing: give a number'
          : typeof raw === 'string'
            ? `"${raw}" is not a plain number`
            : 'must be a plain number'
        : outOfRange(value, info, '')?.trim();
    if (typeof value === 'number' && !message) return workable(value) ?? value;
    context.issues.push({ code: 'custom', message: message || 'is not taken', input: raw, params: { example: info.example ?? '1' } });
    return z.NEVER;
  });
}

/** A short text that may be left out, without the blanks round it. @param max letters. */
export function optionalText(max: number, info: FieldInfo): z.ZodOptional<z.ZodString> {
  return z
    .string({ error: 'must be a text' })
    .trim()
    .max(max, `must have ${max} letters or fewer`)
    .optional()
    .register(fieldRegistry, info);
}

/** A count: a whole number. */
export function count(info: FieldInfo & Range): z.ZodOptional<z.ZodType<number, unknown>> {
  return numberSchema(info)
    .refine((value) => Number.isInteger(value), { message: 'must be a whole number', params: { example: info.example ?? '2' } })
    .optional()
    .register(fieldRegistry, info);
}
