import { prettyUnit, readNumber } from '@isometra/core';
import { shopDate } from '../notebook/dates.js';
import { type InField, type Mapped, type Mapping } from './fields.js';
import type { Table, TableRow } from './table.js';

/** What a cell tells, as it would be typed; or why it tells nothing. Both left out: it is empty. */
export interface Cell {
  readonly text?: string;
  readonly fault?: string;
}

/**
 * What a row tells of a field. A bare figure gets the unit that its column is in; a figure with a unit of its own keeps it. A sign is
 * turned where the column counts the other way. A decimal comma becomes a point; a figure that may be either is a fault.
 */
export function cellOf(table: Table, row: TableRow, field: InField, mapping: Mapping): Cell {
  const mapped = mapping.fields[field.key] ?? { column: null };
  const raw = mapped.column === null ? (mapped.fixed ?? '') : (row.cells[table.head.indexOf(mapped.column)] ?? '');
  if (raw === '') return {};
  if (field.choices) return chosen(raw, field);
  if (field.day) return day(raw);
  return field.units ? figure(raw, field, mapped, mapping.decimal) : { text: raw };
}

const plain = (text: string): string => text.trim().toLowerCase();

function chosen(raw: string, { label, choices = [] }: InField): Cell {
  const found = choices.find((choice) => [choice.value, choice.label].some((word) => plain(word) === plain(raw)));
  const shown = choices.map((choice) => choice.label).slice(0, 6);
  if (found) return { text: found.value };
  return { fault: `${label} "${cut(raw)}" is none of ${shown.join(', ')}${choices.length > shown.length ? ' …' : ''}` };
}

/** A text as people read it: a day is "31 Mar 2027". */
export const dated = (text: string): string =>
  /^\d{4}-[01]\d-[0-3]\d$/.test(text) && !Number.isNaN(Date.parse(text)) ? shopDate(text, null) : text;

const cut = (raw: string): string => (raw.length > 30 ? `${raw.slice(0, 30)}…` : raw);

/** A day as it is kept: 2026-03-31. A day written 3/4/2026 may be in March or April: it is a fault. */
function day(raw: string): Cell {
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/.exec(raw);
  const european = /^(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4})$/.exec(raw);
  const parts = iso ? [iso[1], iso[2], iso[3]] : european ? [european[3], european[2], european[1]] : undefined;
  if (!parts) return { fault: `"${cut(raw)}" is no day: write the year, the month and the day, with a hyphen between them` };
  const text = `${parts[0]}-${parts[1].padStart(2, '0')}-${parts[2].padStart(2, '0')}`;
  const real = new Date(`${text}T00:00:00Z`);
  if (!Number.isNaN(real.valueOf()) && real.toISOString().startsWith(text)) return { text };
  return { fault: `there is no day ${Number(parts[2])} in month ${Number(parts[1])} of ${parts[0]}` };
}

/** A figure with a point in it and no separators of thousands; undefined where it may be read in two ways or is none. */
function pointed(raw: string, decimal: Mapping['decimal']): { readonly text: string } | { readonly fault: string } {
  const [apart, point] = decimal === 'comma' ? ['.', ','] : [',', '.'];
  const [, number = '', rest = ''] = /^([-+−–]?\s*[\d.,\s'’]*\d)(.*)$/.exec(raw) ?? [];
  if (!number || !number.includes(apart)) return { text: decimal === 'comma' ? number.replace(',', '.') + rest : raw };
  const grouped = new RegExp(`^[-+−–]?\\d{1,3}(\\${apart}\\d{3})+(\\${point}\\d+)?$`);
  const words = decimal === 'comma' ? 'a point, where figures have a decimal comma' : 'a comma, where figures have a decimal point';
  // With a decimal of its own behind it, 1,234.5 can only be read in one way.
  if (grouped.test(number) && number.includes(point)) return { text: number.replaceAll(apart, '').replace(point, '.') + rest };
  return { fault: `"${cut(raw)}" has ${words}` };
}

function figure(raw: string, field: InField, { unit, turned }: Mapped, decimal: Mapping['decimal']): Cell {
  const told = pointed(raw, decimal);
  if ('fault' in told) return told;
  const read = readNumber(told.text);
  if (!read) return { fault: `${field.label} "${cut(raw)}" is no figure` };
  if (read.unit === '' && field.units?.length && !unit)
    return { fault: `${field.label} "${cut(raw)}" has no unit: say what the column is in` };
  const text = read.unit === '' && unit ? `${told.text} ${prettyUnit(unit)}` : told.text;
  return { text: turned ? turnedSign(text) : text };
}

/** A figure with its sign turned, as it would be typed; a plain nought stays one. */
function turnedSign(text: string): string {
  const bare = text.replace(/^[-+−–]\s*/, '');
  return /^[-−–]/.test(text) || readNumber(bare)?.value === 0 ? bare : `-${bare}`;
}
