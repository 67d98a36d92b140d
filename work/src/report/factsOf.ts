import { bareSchema, DIMENSIONS, fieldInfo, isInchUnit, parseQuantity, prettyUnit, sizesIn, type UnitSystem } from '@isometra/core';
import * as z from 'zod';
import { changesOf } from '../notebook/changes.js';

type Row = Readonly<Record<string, unknown>>;
const isRow = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value);
const BARE = /^[−+-]?\d+(?:[.,]\d+)?$/;

/** A length as it was typed, and in the unit of the paper where that is another one: "620 mm (24.41 in)". */
function alsoIn(typed: string, system: UnitSystem | undefined): string {
  const read = system && parseQuantity(typed, 'length');
  if (!read?.ok || isInchUnit(read.unit) === (system === 'inch')) return typed;
  return `${typed} (${sizesIn({ system: system as UnitSystem, fineness: 'coarse' })(read.value, 'length')})`;
}

/** A value with the units that its bare figures are in. @param system of the paper. */
function withUnits(schema: z.ZodType | undefined, value: unknown, system: UnitSystem | undefined): unknown {
  if (schema === undefined) return value;
  const bare = bareSchema(schema);
  if (bare instanceof z.ZodArray && Array.isArray(value)) return value.map((part) => withUnits(bare.element as z.ZodType, part, system));
  if (bare instanceof z.ZodObject && isRow(value)) {
    const shape = bare.shape as Readonly<Record<string, z.ZodType | undefined>>;
    return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, withUnits(shape[key], part, system)]));
  }
  const info = fieldInfo(schema);
  const figure = typeof value === 'number' || (typeof value === 'string' && BARE.test(value.trim()));
  if (info?.dimension === undefined) return value;
  const typed = figure ? `${value} ${prettyUnit(info.unit ?? DIMENSIONS[info.dimension].base)}`.trim() : value;
  return info.dimension === 'length' && typeof typed === 'string' ? alsoIn(typed, system) : typed;
}

/** A field in a group: where its own name says whose it is, the group's is left out. "Bar: Bar diameter" is the bar diameter. */
function ownName(field: string): string {
  const [group, ...rest] = field.split(': ');
  const own = rest.join(': ');
  const said = (group.toLowerCase().match(/\p{L}{3,}/gu) ?? []).filter((word) => word !== 'the');
  const name = own && said.some((word) => own.toLowerCase().includes(word)) ? own : field;
  return name.charAt(0).toUpperCase() + name.slice(1);
}

/**
 * Everything that was filled in of a form, field by field, in its words and units: "Bar diameter" and "25 mm".
 *
 * @param system of the paper: a length that was typed in the other one is told in both.
 */
export const factsOf = (schema: z.ZodType | undefined, value: unknown, system?: UnitSystem): readonly (readonly [string, string])[] =>
  changesOf(schema, {}, withUnits(schema, value, system)).flatMap(({ field, to }) => (to === null ? [] : [[ownName(field), to] as const]));
