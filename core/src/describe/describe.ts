import * as z from 'zod';
import type { CheckDefinition } from '../checks/define.js';
import { CHECKS } from '../checks/registry.js';
import { fieldInfo } from '../input/fields.js';
import { fieldLines, type FieldLine } from '../input/fieldLines.js';
import { instrumentSchemaFor, KINDS_FOR } from '../instruments/instrument.js';
import type { MoveDefinition } from '../moves/define.js';
import { MOVE_FORMAT, MOVES } from '../moves/registry.js';
import { SHEET_FORMAT } from '../solve/sheet.js';
import { DIMENSIONS } from '../units/dimensions.js';
import { MEANINGS } from './meanings.js';

export { fieldLines, type FieldLine };

/** A part of a file that is described by itself: "setup", "readings[]". */
export interface DescribedPart {
  readonly part: string;
  readonly about: string;
  readonly fields: readonly FieldLine[];
}

/** A result of a check. */
export interface DescribedQuantity {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  /** The limits of the general sheet of limits; null for what has none. */
  readonly limit: readonly (number | null)[] | null;
  readonly plus: string;
  readonly minus: string;
  /** Kinds of moves that correct it, the usual one first. */
  readonly moves: readonly string[];
}

/** A check or a move as a file, for the person who writes one. */
export interface Description {
  readonly kind: 'check' | 'move' | 'machine';
  readonly name: string;
  readonly title: string;
  readonly about: string;
  readonly machines: readonly string[];
  readonly parts: readonly DescribedPart[];
  readonly quantities: readonly DescribedQuantity[];
  /** A file that would be taken, where the definition has one. */
  readonly example?: Readonly<Record<string, unknown>>;
}

function quantitiesOf({ quantities, corrections }: CheckDefinition): DescribedQuantity[] {
  return Object.entries(quantities).map(([name, { label, unit, limit, words }]) => ({
    ...{ name, label, unit, limit: limit ?? null, plus: words?.plus ?? '', minus: words?.minus ?? '' },
    moves: [...new Set([...(corrections[name]?.plus ?? []), ...(corrections[name]?.minus ?? [])])],
  }));
}

/** The keys of a schema; what no screen asks for has its meaning from the table of those who write files. */
const linesOf = (name: string, schema: z.ZodType): FieldLine[] =>
  fieldLines(schema).map((line) => {
    const known = line.label ? undefined : (MEANINGS[`${name} ${line.path}`] ?? MEANINGS[line.path]);
    return known ? { ...line, label: known.label, unit: line.unit || (known.unit ?? '') } : line;
  });

/** A check, described from its schemas. */
function describeCheck(check: CheckDefinition): Description {
  const kinds = KINDS_FOR[check.reads];
  const parts: DescribedPart[] = [
    { part: 'instrument', about: `What it is read on: ${kinds.join(', ')}.`, fields: instrumentLines(kinds) },
    { part: 'setup', about: 'How the check was set up.', fields: linesOf(check.id, check.setup) },
    { part: 'readings[]', about: 'One entry for each reading, in the order they were taken.', fields: readingLines(check) },
    { part: 'conditions', about: 'What the round was taken under.', fields: linesOf(check.id, check.conditions) },
  ];
  return {
    ...{ kind: 'check', name: check.id, title: check.title, about: `${check.question} ${check.choose}`, machines: check.machines },
    ...{ parts: parts.filter(({ fields }) => fields.length > 0), quantities: quantitiesOf(check) },
  };
}

/** The keys of a reading, and its value. */
function readingLines(check: CheckDefinition): FieldLine[] {
  const help = check.valueFrom ? 'Left out where other keys tell it.' : '';
  const value = { path: 'value', label: 'What is read', unit: readUnit(check), required: !check.valueFrom, choices: [], example: '', help };
  return [...linesOf(check.id, check.reading), value];
}

/** The keys of an instrument, of the kinds that fit. */
const instrumentLines = (kinds: readonly string[]): FieldLine[] =>
  fieldLines(instrumentSchemaFor(kinds[0])).map((line) => (line.path === 'kind' ? { ...line, choices: kinds } : line));

/** What a bare number of a reading is. */
const readUnit = ({ reads }: CheckDefinition): string =>
  KINDS_FOR[reads].some((kind) => kind === 'lever' || kind === 'plunger' || kind === 'level') ? 'div' : DIMENSIONS.length.base;

/** What a move works out. Nobody has to give it: nothing of it is required. */
const answerLines = (answer: z.ZodObject): FieldLine[] => fieldLines(answer).map((line) => ({ ...line, required: false }));

/** A move, described from its schema. */
function describeMove(move: MoveDefinition): Description {
  return {
    ...{ kind: 'move', name: move.kind, title: move.title, about: '', machines: move.machines ?? [] },
    parts: [
      { part: '', about: 'Beside `format` and `move`.', fields: linesOf(move.kind, move.input) },
      ...(Object.keys(move.answer.shape).length
        ? [{ part: 'answer', about: 'What it works out, beside `format` and `move`.', fields: answerLines(move.answer) }]
        : []),
    ],
    quantities: [],
    ...(move.example && { example: { format: MOVE_FORMAT, move: move.kind, ...move.example } }),
  };
}

/** Everything that can be described: checks in working order, then the moves that a file may name. */
export const describable = (): Description[] => [
  ...[...CHECKS.values()].map(describeCheck),
  ...[...MOVES.values()].filter(({ plan }) => plan !== undefined).map(describeMove),
];

/** JSON Schema of a schema of ours: what is typed with a unit is a number or a text. */
export function jsonSchemaOf(schema: z.ZodType): Record<string, unknown> {
  return z.toJSONSchema(schema, {
    io: 'input',
    unrepresentable: 'any',
    override: ({ zodSchema, jsonSchema }) => {
      const info = zodSchema instanceof z.ZodType ? fieldInfo(zodSchema) : undefined;
      if (info?.label) jsonSchema.title = info.label;
      if (info?.help) jsonSchema.description = info.help;
      if (!info?.dimension || jsonSchema.type) return;
      Object.assign(jsonSchema, { type: ['number', 'string'] });
      if (info.example) jsonSchema.examples = [info.example];
      const unit = info.unit ?? DIMENSIONS[info.dimension].base;
      jsonSchema.description = [info.help, unit && `A bare number is in ${unit}.`].filter(Boolean).join(' ');
    },
  }) as Record<string, unknown>;
}

/** JSON Schema of the sheets of a check, or of the files of a move. */
export function fileSchema(name: string): Record<string, unknown> | undefined {
  const check = CHECKS.get(name);
  if (check) {
    const { $schema, ...reading } = jsonSchemaOf(check.reading.extend({ value: check.valueFrom ? z.unknown().optional() : z.unknown() }));
    const part = (schema: z.ZodType) => {
      const { $schema: _same, ...rest } = jsonSchemaOf(schema);
      return rest;
    };
    return {
      $schema,
      title: check.title,
      type: 'object',
      required: ['format', 'check', 'setup', 'readings'],
      properties: {
        format: { const: SHEET_FORMAT },
        check: { const: check.id },
        instrument: part(instrumentSchemaFor(KINDS_FOR[check.reads][0])),
        setup: part(check.setup),
        readings: { type: 'array', items: reading },
        conditions: part(check.conditions),
      },
    };
  }
  const move = MOVES.get(name);
  if (!move?.plan) return undefined;
  const { $schema, properties, required, ...rest } = jsonSchemaOf(move.input);
  return {
    ...{ $schema, title: move.title, ...rest },
    required: ['format', 'move', ...((required as string[] | undefined) ?? [])],
    properties: { format: { const: MOVE_FORMAT }, move: { const: move.kind }, ...(properties as object) },
  };
}
