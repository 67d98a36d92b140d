import { bareSchema, DIMENSIONS, fieldInfo, prettyUnit } from '@isometra/core';
import * as z from 'zod';
import { changesOf } from '../notebook/changes.js';

type Row = Readonly<Record<string, unknown>>;
const isRow = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value);
const BARE = /^[−+-]?\d+(?:[.,]\d+)?$/;

/** A value with the units that its bare figures are in. */
function withUnits(schema: z.ZodType | undefined, value: unknown): unknown {
  if (schema === undefined) return value;
  const bare = bareSchema(schema);
  if (bare instanceof z.ZodArray && Array.isArray(value)) return value.map((part) => withUnits(bare.element as z.ZodType, part));
  if (bare instanceof z.ZodObject && isRow(value)) {
    const shape = bare.shape as Readonly<Record<string, z.ZodType | undefined>>;
    return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, withUnits(shape[key], part)]));
  }
  const info = fieldInfo(schema);
  const figure = typeof value === 'number' || (typeof value === 'string' && BARE.test(value.trim()));
  if (!figure || info?.dimension === undefined) return value;
  return `${value} ${prettyUnit(info.unit ?? DIMENSIONS[info.dimension].base)}`.trim();
}

/** Everything that was filled in of a form, field by field, in its words and units: "Bar, bar diameter" and "25 mm". */
export const factsOf = (schema: z.ZodType | undefined, value: unknown): readonly (readonly [string, string])[] =>
  changesOf(schema, {}, withUnits(schema, value)).flatMap(({ field, to }) =>
    to === null ? [] : [[field.charAt(0).toUpperCase() + field.slice(1), to] as const],
  );
