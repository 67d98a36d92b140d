import { bareSchema, fieldInfo, MOVES, sizesIn, type FieldInfo, type MovePlan } from '@isometra/core';
import * as z from 'zod';
import type { Shown } from './said.js';

/** One line of what a move works out. */
export interface AnswerLine {
  /** What it is: "Turns of the screw"; of a place in a list its number, "2". */
  readonly label: string;
  /** Empty where the lines under it tell it. */
  readonly text: string;
  /** How deep it lies within another line: 0 outside. */
  readonly depth: number;
}

const MINUS = '−';

/** A figure with its sign; of a bare number no more digits than it has. */
function figureText(value: number, info: FieldInfo | undefined, shown: Shown): string {
  const size = Math.abs(value);
  const text = info?.dimension ? sizesIn(shown)(size, info.dimension) : String(Number(size.toFixed(3)));
  return value < 0 && /[1-9]/.test(text) ? MINUS + text : text;
}

/** The field that a schema is registered as, under whatever it is wrapped in. */
function infoOf(schema: z.ZodType): FieldInfo | undefined {
  if (fieldInfo(schema)) return fieldInfo(schema);
  return schema instanceof z.ZodOptional || schema instanceof z.ZodReadonly || schema instanceof z.ZodNullable
    ? infoOf(schema.unwrap() as z.ZodType)
    : undefined;
}

function within(schema: z.ZodType): z.ZodType {
  const bare = bareSchema(schema);
  return bare instanceof z.ZodReadonly || bare instanceof z.ZodNullable ? within(bare.unwrap() as z.ZodType) : bare;
}

const isBare = (value: unknown): boolean => typeof value !== 'object' || value === null;

/** What is told in one line; undefined of what takes lines of its own. */
function oneLine(value: unknown, schema: z.ZodType, shown: Shown): string | undefined {
  if (typeof value === 'number') return figureText(value, infoOf(schema), shown);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value;
  if (!Array.isArray(value) || !value.every(isBare)) return undefined;
  const inner = within(schema);
  const item = inner instanceof z.ZodArray ? (inner.element as z.ZodType) : schema;
  return value.map((entry) => oneLine(entry, infoOf(item) ? item : schema, shown) ?? '').join(', ') || 'none';
}

/** The parts of a group, a list or a record, each with what it is called. */
function partsOf(value: object, schema: z.ZodType): readonly (readonly [label: string, part: unknown, schema: z.ZodType])[] {
  const inner = within(schema);
  if (inner instanceof z.ZodObject) {
    const shape: Readonly<Record<string, z.ZodType>> = inner.shape;
    const told = value as Readonly<Record<string, unknown>>;
    return Object.entries(shape).flatMap(([key, part]) =>
      told[key] === undefined || told[key] === null ? [] : [[infoOf(part)?.label ?? key, told[key], part] as const],
    );
  }
  const item = (inner instanceof z.ZodArray ? inner.element : inner instanceof z.ZodRecord ? inner.valueType : inner) as z.ZodType;
  return Object.entries(value).map(([key, part]) => [Array.isArray(value) ? String(Number(key) + 1) : key, part as unknown, item] as const);
}

/** Few figures that belong together, in one line: "From 0 mm · To 12.8 mm". */
function rowText(value: object, schema: z.ZodType, shown: Shown): string | undefined {
  const parts = partsOf(value, schema).map(([label, part, of]) => ({ label, text: oneLine(part, of, shown) }));
  return parts.length && parts.every(({ text }) => text !== undefined)
    ? parts.map(({ label, text }) => `${label} ${text ?? ''}`).join(' · ')
    : undefined;
}

function linesOf(value: object, schema: z.ZodType, shown: Shown, depth: number): AnswerLine[] {
  return partsOf(value, schema).flatMap(([name, part, of]) => {
    // What follows in a label says how a file is read.
    const label = name.split(';')[0];
    const text = oneLine(part, of, shown) ?? (depth > 0 ? rowText(part as object, of, shown) : undefined);
    if (text !== undefined) return [{ label, text, depth }];
    return [{ label, text: '', depth }, ...linesOf(part as object, of, shown, depth + 1)];
  });
}

/**
 * What a move works out, line by line in the order of its file, in the reader's units. Signs are those of the file.
 *
 * @param plan the answer of `planMove`.
 */
export function answerLines(plan: MovePlan, shown: Shown): readonly AnswerLine[] {
  const answer = MOVES.get(String(plan['move']))?.answer;
  return answer ? linesOf(plan, answer, shown, 0) : [];
}
