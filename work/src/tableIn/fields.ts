import { DIMENSIONS, type Dimension } from '@isometra/core';
import type { Table } from './table.js';

/** A fact that a row may tell. */
export interface InField {
  readonly key: string;
  readonly label: string;
  readonly required?: boolean;
  /** Words over a column that mean it, lower case. */
  readonly names: readonly string[];
  /** Where it is a measured quantity: units that a bare figure may be in, as typed; whoever maps the column says which. */
  readonly units?: readonly string[];
  /** Its figures may count the other way round from how they are kept. */
  readonly signed?: boolean;
  /** Where it is one of a few. */
  readonly choices?: readonly { readonly value: string; readonly label: string }[];
  readonly day?: boolean;
}

/** Where a fact stands in a table, and how its figures are meant. */
export interface Mapped {
  /** Name of its column; null where the table has none. */
  readonly column: string | null;
  /** What a bare figure is in; null as long as nobody has said. */
  readonly unit?: string | null;
  /** Figures count the other way. */
  readonly turned?: boolean;
  /** The same for every row, where no column tells it. */
  readonly fixed?: string;
}

export interface Mapping {
  readonly decimal: 'point' | 'comma';
  readonly fields: Readonly<Record<string, Mapped>>;
}

/** A name without its unit and punctuation: "Value (mm)" and "value_mm" are looked up as "value". */
const plain = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[([].*?[)\]]/g, ' ')
    .replace(/[_.,:/-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** The unit in the head of a column, where it is one of those that the field takes: "Value (µm)" → "um". */
function unitInHead(name: string, units: readonly string[]): string | undefined {
  const bracketed = /[([]\s*([^)\]]+?)\s*[)\]]/.exec(name)?.[1] ?? /[\s_]([a-zµ/]+)$/i.exec(name)?.[1] ?? '';
  const typed = bracketed.toLowerCase().replace(/[µμ]/g, 'u');
  return units.find((unit) => unit === typed);
}

/** Units that a bare figure of a dimension may be in, as typed, the common ones first. */
export const unitsOf = (dimension: Dimension): readonly string[] => {
  const { named, factors } = DIMENSIONS[dimension];
  const known = (named ?? Object.keys(factors)).filter((unit) => unit in factors);
  return dimension === 'number' ? [] : known;
};

/**
 * Which column is likely to tell which fact: by the name over it, each column once. Only what a name says is taken: no unit and no sign
 * is guessed but the unit that stands in the head itself.
 */
export function likely(table: Table, fields: readonly InField[]): Mapping {
  const free = new Set(table.head);
  const of = (field: InField): [string, Mapped] => {
    const wanted = [field.label, field.key, ...field.names].map(plain);
    const column = [...free].find((name) => wanted.includes(plain(name)) || wanted.includes(plain(name.replace(/[\s_][a-zµ]+$/i, ''))));
    if (column === undefined) return [field.key, { column: null }];
    free.delete(column);
    const unit = field.units && unitInHead(column, field.units);
    return [field.key, { column, ...(field.units && { unit: unit ?? null }) }];
  };
  return { decimal: commas(table) ? 'comma' : 'point', fields: Object.fromEntries(fields.map(of)) };
}

/** Whether its figures have a decimal comma: more cells have one than a point. */
function commas(table: Table): boolean {
  const all = table.rows.flatMap(({ cells }) => cells);
  const count = (pattern: RegExp): number => all.filter((cell) => pattern.test(cell)).length;
  return count(/^[-+−–]?\d+,\d+(\s|$|[a-zµ])/i) > count(/^[-+−–]?\d+\.\d+(\s|$|[a-zµ])/i);
}

/** A mapping that was kept, as far as this table has its columns. */
export function kept(mapping: Mapping, table: Table): Mapping {
  const there = (mapped: Mapped): Mapped => (mapped.column === null || table.head.includes(mapped.column) ? mapped : { column: null });
  return { ...mapping, fields: Object.fromEntries(Object.entries(mapping.fields).map(([key, mapped]) => [key, there(mapped)])) };
}
