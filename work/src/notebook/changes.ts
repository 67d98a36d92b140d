import { bareSchema, fieldInfo } from '@isometra/core';
import type { FieldChange } from '@isometra/contract';
import * as z from 'zod';

type Row = Readonly<Record<string, unknown>>;
const isRow = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Two values that say the same, whatever the order of their keys. */
function same(one: unknown, other: unknown): boolean {
  if (one === other) return true;
  if (Array.isArray(one) && Array.isArray(other)) return one.length === other.length && one.every((part, i) => same(part, other[i]));
  if (!isRow(one) || !isRow(other)) return false;
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...keys].every((key) => same(one[key], other[key]));
}

/** "pivotDistance" → "pivot distance": what has no label of its own. */
const spoken = (key: string): string => key.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

/** The schema of a part of a form; undefined where nobody describes it. */
function partOf(schema: z.ZodType | undefined, key: string): z.ZodType | undefined {
  const bare = schema && bareSchema(schema);
  return bare instanceof z.ZodObject ? (bare.shape as Record<string, z.ZodType | undefined>)[key] : undefined;
}

const keysOf = (schema: z.ZodType | undefined): readonly string[] => {
  const bare = schema && bareSchema(schema);
  return bare instanceof z.ZodObject ? Object.keys(bare.shape) : [];
};

function elementOf(schema: z.ZodType | undefined): z.ZodType | undefined {
  const bare = schema && bareSchema(schema);
  return bare instanceof z.ZodArray ? (bare.element as z.ZodType) : undefined;
}

/** A value as the form shows it: a choice by its words, a tick as yes or no. */
function textOf(value: unknown, schema: z.ZodType | undefined): string {
  if (value === true || value === false) return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map((part) => textOf(part, elementOf(schema))).join(', ');
  if (isRow(value))
    return Object.entries(value)
      .filter(([, part]) => part !== undefined && part !== null && part !== '')
      .map(([key, part]) => textOf(part, partOf(schema, key)))
      .join(', ');
  const choice = schema && fieldInfo(schema)?.choices?.find((entry) => entry.value === value);
  return choice?.label ?? String(value);
}

const given = (value: unknown, schema: z.ZodType | undefined): string | null =>
  value === undefined || value === null || value === '' ? null : textOf(value, schema);

/** What tells one row of a list from the others, where it has such a thing. */
const NAMES = ['id', 'slide', 'check', 'name', 'axis', 'thickness', 'at'] as const;
const nameOf = (row: unknown): string | undefined => {
  const key = isRow(row) ? NAMES.find((name) => row[name] !== undefined) : undefined;
  return key && isRow(row) ? `${key} ${JSON.stringify(row[key])}` : undefined;
};

/** Rows of two lists that are about the same thing: those that say the same, then those of one name; each once. */
function pairs(
  before: readonly unknown[],
  after: readonly unknown[],
): { readonly kept: [unknown, unknown][]; gone: unknown[]; come: unknown[] } {
  let [gone, come] = [[...before], [...after]];
  const kept: [unknown, unknown][] = [];
  for (const alike of [same, (one: unknown, other: unknown) => nameOf(one) !== undefined && nameOf(one) === nameOf(other)]) {
    for (const row of [...gone]) {
      const found = come.findIndex((other) => alike(row, other));
      if (found < 0) continue;
      kept.push([row, come[found]]);
      gone = gone.filter((other) => other !== row);
      come = come.filter((_, i) => i !== found);
    }
  }
  return { kept, gone, come };
}

function listChanges(schema: z.ZodType | undefined, before: readonly unknown[], after: readonly unknown[], label: string): FieldChange[] {
  const element = elementOf(schema);
  const rows = [...before, ...after].every(isRow);
  if (!rows) return [{ field: label, from: given(before, schema), to: given(after, schema) }];
  const { kept, gone, come } = pairs(before, after);
  return [
    ...kept.flatMap(([one, other]) => changesOf(element, one, other, label)),
    ...gone.map((row) => ({ field: label, from: textOf(row, element), to: null })),
    ...come.map((row) => ({ field: label, from: null, to: textOf(row, element) })),
  ];
}

/**
 * What differs between two states of a form, field by field in its words, whole however long. A row that was taken out of a list, or
 * added to it, is one change.
 *
 * @param schema of the form; parts that it does not describe are called by their keys. @param label of the part it is about.
 * @example changesOf(machineCardSchema, { foot: { across: '180 mm' } }, { foot: { across: '175 mm' } })
 *   // [{ field: 'Column foot: Foot, left to right', from: '180 mm', to: '175 mm' }]
 */
export function changesOf(schema: z.ZodType | undefined, before: unknown, after: unknown, label = ''): FieldChange[] {
  if (same(before, after)) return [];
  if (Array.isArray(before) || Array.isArray(after)) {
    const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);
    return listChanges(schema, list(before), list(after), label);
  }
  if (isRow(before) || isRow(after)) {
    const [one, other] = [isRow(before) ? before : {}, isRow(after) ? after : {}];
    // As the form asks for them; what it does not know comes last.
    const told = new Set([...Object.keys(one), ...Object.keys(other)]);
    const keys = [...new Set([...keysOf(schema).filter((key) => told.has(key)), ...told])];
    return keys.flatMap((key) => {
      const part = partOf(schema, key);
      const own = (part && fieldInfo(part)?.label) ?? spoken(key);
      return changesOf(part, one[key], other[key], label ? `${label}: ${own}` : own);
    });
  }
  return [{ field: label, from: given(before, schema), to: given(after, schema) }];
}
