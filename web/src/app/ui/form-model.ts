import {
  askedBack,
  bareSchema,
  bareUnit,
  DIMENSIONS,
  faultsOf,
  fieldInfo,
  placesLine,
  prettyUnit,
  readNumber,
  readPlaces,
  type Fault,
  type FieldInfo,
  type Figures,
  type UnitSystem,
} from '@isometra/core';
import * as z from 'zod';

/** One field of a form, drawn from its schema. */
export interface FieldModel {
  readonly key: string;
  readonly info: FieldInfo;
  readonly kind: 'text' | 'day' | 'choice' | 'several' | 'flag' | 'group' | 'list';
  readonly required: boolean;
  readonly children: readonly FieldModel[];
}

export type FormValue = Readonly<Record<string, unknown>>;
/** A draft of a form, as it was kept. */
export const formSchema = z.record(z.string(), z.unknown());

const typeOf = (schema: z.ZodType): string => bareSchema(schema).def.type;

const leafKind = (schema: z.ZodType, info: FieldInfo): FieldModel['kind'] => {
  if (typeOf(schema) === 'boolean') return 'flag';
  if (bareSchema(schema) instanceof z.ZodISODate) return 'day';
  return info.choices ? 'choice' : 'text';
};

/** The fields of a schema that people fill in: those with a label that are not hidden. */
export function fieldsOf(schema: z.ZodObject): FieldModel[] {
  return Object.entries(schema.shape).flatMap(([key, part]): FieldModel[] => {
    const field = part as z.ZodType;
    const info = fieldInfo(field);
    if (!info || info.hidden) return [];
    const required = info.asked === true || !field.safeParse(undefined).success;
    const type = typeOf(field);
    if (type === 'object') return [{ key, info, kind: 'group', required, children: fieldsOf(bareSchema(field) as z.ZodObject) }];
    if (type === 'array' && info.choices) return [{ key, info, kind: 'several', required, children: [] }];
    if (type === 'array') return [{ key, info, kind: 'list', required, children: fieldsOf(elementOf(field)) }];
    return [{ key, info, kind: leafKind(field, info), required, children: [] }];
  });
}

/** What the rows of a list are. */
const elementOf = (schema: z.ZodType): z.ZodObject => (bareSchema(schema) as z.ZodArray<z.ZodObject>).element;

/** Whether the screen asks it, as far as the form is filled in. */
const isAsked = ({ asked, askedWith }: FieldInfo, value: FormValue): boolean =>
  askedWith === undefined ? asked === true : value[askedWith] === true;

/** The fields that are shown: not what is asked only together with a flag that is not set. */
export const shownFields = (fields: readonly FieldModel[], value: FormValue): FieldModel[] =>
  fields.filter(({ info }) => info.askedWith === undefined || isAsked(info, value));

/** What the screen asks and has not been told, by path. */
function notTold(schema: z.ZodObject, value: FormValue, prefix = ''): Fault[] {
  return fieldsOf(schema).flatMap(({ key, info, kind }): Fault[] => {
    const path = prefix + key;
    // A group that nobody has touched is asked for only where it says so itself.
    if (kind === 'group' && !info.asked && value[key] === undefined) return [];
    if (kind === 'group')
      return notTold(bareSchema(schema.shape[key] as z.ZodType) as z.ZodObject, (value[key] ?? {}) as FormValue, `${path}.`);
    if (!isAsked(info, value) || value[key] !== undefined) return [];
    return [
      {
        path,
        message: `is missing: ${info.help ?? 'say which'}`,
        example: info.choices?.map(({ label }) => label).join(', or ') ?? info.example ?? '',
      },
    ];
  });
}

/** Bare figures that are far from what such a thing is, by path: they want their unit written. */
export function askedFaults(schema: z.ZodObject, value: FormValue, system: UnitSystem, prefix = ''): Fault[] {
  return fieldsOf(schema).flatMap(({ key, info, kind }): Fault[] => {
    const [part, path] = [value[key], prefix + key];
    if (part === undefined) return [];
    const within = bareSchema(schema.shape[key] as z.ZodType);
    if (kind === 'group') return askedFaults(within as z.ZodObject, part as FormValue, system, `${path}.`);
    if (kind === 'list')
      return (part as FormValue[]).flatMap((row, i) =>
        askedFaults(elementOf(schema.shape[key] as z.ZodType), row, system, `${path}[${i}].`),
      );
    if (typeof part !== 'string') return [];
    const asked = askedBack(part, info, system);
    return asked ? [{ path, message: `of ${part}: ${orWords(asked)}? Write the unit`, example: asked[0] }] : [];
  });
}

const orWords = (choices: readonly string[]): string =>
  choices.length > 1 ? `${choices.slice(0, -1).join(', ')} or ${choices[choices.length - 1]}` : choices.join('');

/** What is wrong with what was typed, by path; a figure that is asked back is asked once. */
export function formFaults(schema: z.ZodObject, value: FormValue, system: UnitSystem): Fault[] {
  const parsed = schema.safeParse(value);
  const asked = askedFaults(schema, value, system);
  const told = parsed.success ? [] : faultsOf(parsed.error, [], Object.keys(schema.shape));
  return [...asked, ...told.filter(({ path }) => !asked.some((entry) => entry.path === path)), ...notTold(schema, value)];
}

/** What was typed in fields that are of one kind: a bare figure beside "6 thou" is thou too. */
export function alike(schema: z.ZodObject, value: FormValue): FormValue {
  return Object.fromEntries(
    Object.entries(value).map(([key, part]) => {
      return [key, typeof part === 'string' ? inUnit(part, unitBeside(schema, value, key)) : part];
    }),
  );
}

/** A bare figure in the unit of what stands beside it; anything else as it is. */
export const inUnit = (text: string, unit: string | undefined): string =>
  unit && readNumber(text)?.unit === '' ? `${text.trim()} ${unit}` : text;

/** The unit that stands in a field beside this one, of the same kind; undefined where none was written. */
export function unitBeside(schema: z.ZodObject, value: FormValue, key: string): string | undefined {
  const dimensionOf = (name: string) => fieldInfo(schema.shape[name] as z.ZodType)?.dimension;
  const own = dimensionOf(key);
  if (own === undefined) return undefined;
  return Object.entries(value)
    .filter(([name]) => name !== key && name in schema.shape && dimensionOf(name) === own)
    .map(([, part]) => (typeof part === 'string' ? readNumber(part)?.unit : undefined))
    .find(Boolean);
}

/** A value with one field changed; an emptied field is taken out, an emptied group too. */
export function withField(value: FormValue, key: string, next: unknown): FormValue {
  const { [key]: _old, ...rest } = value;
  const empty =
    next === undefined || next === '' || next === false || (typeof next === 'object' && next !== null && Object.keys(next).length === 0);
  return empty ? rest : { ...rest, [key]: next };
}

/** A stored number as a person would type it: it is in the unit of the file, not in the one shown now. */
export function withBaseUnit(value: number, info: FieldInfo): string {
  return info.dimension ? `${value} ${prettyUnit(info.unit ?? DIMENSIONS[info.dimension].base)}` : String(value);
}

/** A whole form with the shown unit written behind every bare number, as on leaving each field. */
export const settled = (schema: z.ZodObject, value: FormValue, system: UnitSystem): FormValue =>
  written(schema, value, (text, info) => withUnit(text, info, system));

/** What stands in a file, as a form holds it: there a bare number, also one in a text, is in the unit of the file. */
export const asInFile = (schema: z.ZodObject, value: FormValue): FormValue =>
  written(schema, value, (text, info) => {
    const read = info.dimension ? readNumber(text) : undefined;
    return read?.unit === '' ? withBaseUnit(read.value, info) : text;
  });

/** A whole form with each of its texts written anew. */
function written(schema: z.ZodObject, value: FormValue, anew: (text: string, info: FieldInfo) => string): FormValue {
  const fields = fieldsOf(schema);
  return Object.fromEntries(
    Object.entries(value).map(([key, part]) => {
      const field = fields.find((entry) => entry.key === key);
      if (field?.kind === 'list')
        return [key, (part as FormValue[]).map((row) => written(elementOf(schema.shape[key] as z.ZodType), row, anew))];
      if (field?.kind === 'group')
        return [key, written(bareSchema(schema.shape[key] as z.ZodType) as z.ZodObject, part as FormValue, anew)];
      return [key, field && typeof part === 'string' ? anew(part, field.info) : part];
    }),
  );
}

/** What stands in a field, as text: a list of places in one line. */
export function shownText(value: unknown, info: FieldInfo): string {
  if (value === undefined) return '';
  if (Array.isArray(value)) {
    const line = value.map((part) => (typeof part === 'number' ? withBaseUnit(part, info) : String(part))).join('; ');
    const read = info.places ? readPlaces(line) : undefined;
    return read ? placesLine(read, 'mm') : line;
  }
  return typeof value === 'number' && info.dimension ? withBaseUnit(value, info) : String(value);
}

/** Whether a unit is written in what was typed. */
export const unitWritten = (text: string, info: FieldInfo): boolean =>
  info.places ? (readPlaces(text)?.withUnit ?? false) : !!readNumber(text)?.unit;

/**
 * What a person typed, with the shown unit written behind a bare number: so that it stays what it
 * was when the units are switched.
 */
export function withUnit(text: string, info: Figures, system: UnitSystem): string {
  if (info.places) {
    const read = readPlaces(text);
    return read ? placesLine(read, prettyUnit(bareUnit(info, system))) : text.trim();
  }
  const read = readNumber(text);
  // What is asked back stays bare: its unit is not known yet.
  if (!info.dimension || !read || read.unit !== '' || askedBack(text, info, system)) return text.trim();
  return `${text.trim()} ${prettyUnit(bareUnit(info, system))}`;
}
