import * as z from 'zod';
import { DIMENSIONS } from '../units/dimensions.js';
import { bareSchema, fieldInfo } from './fields.js';

/** One key of a file, as it is described to the person who writes it. */
export interface FieldLine {
  /** "bar.diameter"; of a list "stations[].number". */
  readonly path: string;
  /** Its name on the screens; '' where no screen asks for it. */
  readonly label: string;
  /** The unit of a bare number; '' for what has none. */
  readonly unit: string;
  readonly required: boolean;
  /** Words it may be, or true and false; empty where it is free. */
  readonly choices: readonly string[];
  readonly example: string;
  readonly help: string;
}

const ANY_KEY = '<name>';

function innermost(schema: z.ZodType): z.ZodType {
  const bare = bareSchema(schema);
  return bare instanceof z.ZodNullable ? innermost(bare.unwrap() as z.ZodType) : bare;
}

/** The form information of a schema, wherever in its wrappings it was registered. */
function infoOf(schema: z.ZodType): ReturnType<typeof fieldInfo> {
  const own = fieldInfo(schema);
  if (own) return own;
  if (schema instanceof z.ZodOptional || schema instanceof z.ZodDefault || schema instanceof z.ZodNullable)
    return infoOf(schema.unwrap() as z.ZodType);
  return undefined;
}

function choicesOf(schema: z.ZodType): string[] {
  const inner = innermost(schema);
  if (inner instanceof z.ZodEnum) return inner.options.map(String);
  if (inner instanceof z.ZodLiteral) return [...inner.values].map(String);
  if (inner instanceof z.ZodUnion) return inner.options.flatMap((option) => choicesOf(option as z.ZodType));
  if (inner instanceof z.ZodBoolean) return ['true', 'false'];
  // A list of words, and what a form offers although it is read in more ways than one.
  const listed = inner instanceof z.ZodArray ? choicesOf(inner.element as z.ZodType) : [];
  return listed.length ? listed : (infoOf(schema)?.choices ?? []).map(({ value }) => String(value));
}

const isRequired = (schema: z.ZodType): boolean => !schema.safeParse(undefined).success;

function lineOf(path: string, schema: z.ZodType): FieldLine {
  const info = infoOf(schema);
  const unit = info?.dimension ? (info.unit ?? DIMENSIONS[info.dimension].base) : '';
  return {
    ...{ path, label: info?.label ?? '', unit, required: isRequired(schema), choices: choicesOf(schema) },
    ...{ example: info?.example ?? '', help: info?.help ?? '' },
  };
}

/**
 * Every key of a schema in the order in which it is written, with those of the objects and lists within it.
 *
 * @param prefix path that the schema has in its file, "" for the file itself.
 */
export function fieldLines(schema: z.ZodType, prefix = ''): FieldLine[] {
  const inner = innermost(schema);
  const within = (key: string, part: z.ZodType): FieldLine[] => {
    const path = prefix ? `${prefix}.${key}` : key;
    const parts = fieldLines(part, path);
    return parts.length ? (infoOf(part) || isRequired(part) ? [lineOf(path, part), ...parts] : parts) : [lineOf(path, part)];
  };
  if (inner instanceof z.ZodObject)
    return Object.entries(inner.shape as Record<string, z.ZodType>).flatMap(([key, part]) => within(key, part));
  if (inner instanceof z.ZodArray) return fieldLines(inner.element as z.ZodType, `${prefix}[]`);
  if (inner instanceof z.ZodRecord) return fieldLines(inner.valueType as z.ZodType, `${prefix}.${ANY_KEY}`);
  return [];
}
