import { parseQuantity, type Dimension } from '@isometra/core';
import type { BenchSlot } from '../sheets/slots.js';
import { cellOf, type Cell } from './cell.js';
import type { InField, Mapping } from './fields.js';
import { Laying } from './laying.js';
import { readingFields } from './readingFields.js';
import { infoOf, type Key, type Keys, type ReadingIn, type ReadingsAbout } from './readingPlaces.js';
import type { InRow } from './rows.js';
import { raggedFault, type Table, type TableRow } from './table.js';

/**
 * The place that a table without places begins at: the first one where it has a row for each place (read once more, what stands is
 * known again), else the first that is not read yet.
 */
export function startOf(rows: number, slots: readonly BenchSlot[]): number {
  if (rows >= slots.filter(({ closing }) => !closing).length) return 0;
  return slots.find(({ done }) => !done)?.index ?? 0;
}

/** What the columns of a row say beside its reading, as it would be typed. A text: what is wrong with it. */
function toldBeside(table: Table, row: TableRow, mapping: Mapping, fields: readonly InField[]): Readonly<Record<string, string>> | string {
  const told: Record<string, string> = {};
  for (const field of fields.filter(({ key }) => key.startsWith('beside.'))) {
    const { text, fault } = cellOf(table, row, field, mapping);
    if (fault !== undefined) return fault;
    if (text !== undefined) told[field.key.slice('beside.'.length)] = text;
  }
  return told;
}

/** What the columns of a row say of its place; what is left out is not told. A text: what is wrong with it. */
function toldKeys(table: Table, row: TableRow, mapping: Mapping, fields: readonly InField[], about: ReadingsAbout): Keys | string {
  const told: Record<string, Key> = {};
  for (const field of fields.filter(({ key }) => key.startsWith('keys.'))) {
    const key = field.key.slice('keys.'.length);
    const { text, fault } = cellOf(table, row, field, mapping);
    if (fault !== undefined) return fault;
    if (text === undefined) continue;
    const value = field.units ? quantity(text, infoOf(about.check, key)?.dimension ?? 'number') : ownValue(text, key, about);
    if (value === undefined) return `${field.label} "${text}" cannot be read`;
    told[key] = value;
  }
  return told;
}

function quantity(text: string, dimension: Dimension): number | undefined {
  const parsed = parseQuantity(text, dimension);
  return parsed.ok ? Number(parsed.value.toFixed(3)) : undefined;
}

const ownValue = (text: string, key: string, { slots }: ReadingsAbout): Key | undefined =>
  slots.map(({ keys }) => keys[key]).find((value) => value !== undefined && String(value) === text);

/** Whether no column tells places: rows are taken in working order. */
export const isByOrder = ({ fields }: Mapping): boolean =>
  Object.entries(fields).every(([key, { column }]) => !key.startsWith('keys.') || column === null);

/** Rows in their order, the empty ones between them with them: where order tells the place, an empty row is a place that was passed over. */
function withGaps(rows: readonly TableRow[]): TableRow[] {
  const first = rows[0]?.number ?? 0;
  const known = new Map(rows.map((row) => [row.number, row]));
  const last = rows.at(-1)?.number ?? -1;
  return Array.from({ length: last - first + 1 }, (_, i) => known.get(first + i) ?? { number: first + i, cells: [] });
}

/** How many places a table takes where order tells them: an empty row between two others passes one over. */
export const placesTaken = ({ rows }: Table): number => withGaps(rows).length;

/**
 * Lay a table of readings on the places of a round. Where no column tells the place, rows are taken in working order: a row that cannot
 * be read, or an empty one, leaves its place out and never moves those below it. Rows of one place one after another are repeats; a
 * reading that the round has already is told as such and not written twice.
 *
 * @returns a row for each row of the table, in its order.
 */
export function readingRows(table: Table, mapping: Mapping, about: ReadingsAbout): InRow<ReadingIn>[] {
  const fields = readingFields(about);
  const value = fields.find(({ key }) => key === 'value');
  const laying = new Laying(about);
  const byOrder = isByOrder(mapping);
  const rows = byOrder ? withGaps(table.rows) : table.rows;
  const start = about.start ?? startOf(rows.length, about.slots);
  // A column beside the readings may well be their places, under a name that nobody here knows.
  const unsure = byOrder && table.head.length > 1;
  const laid = rows.map((row, i): InRow<ReadingIn> => {
    const told = byOrder ? {} : toldKeys(table, row, mapping, fields, about);
    const ragged = raggedFault(row);
    const { text, fault }: Cell = ragged ? { fault: ragged } : value ? cellOf(table, row, value, mapping) : {};
    const beside = ragged ? {} : toldBeside(table, row, mapping, fields);
    const says = row.cells.filter(Boolean).slice(0, 4).join(' · ');
    if (typeof told === 'string') return { number: row.number, what: '', says, state: 'faulty', reason: told };
    if (!byOrder && Object.keys(told).length === 0) return { number: row.number, what: '', says, state: 'faulty', reason: 'says no place' };
    if (fault !== undefined) return laying.unread(row.number, told, says, start + i, fault);
    if (typeof beside === 'string') return laying.unread(row.number, told, says, start + i, beside);
    return laying.lay(row.number, told, beside, text, start + i);
  });
  return unsure ? laid.map(inOrderOnly) : laid;
}

const IN_ORDER = 'No column says the place: the rows stand in working order';

/** A row that order alone gives its place: it is taken once somebody has said that the order is right. */
function inOrderOnly(row: InRow<ReadingIn>): InRow<ReadingIn> {
  if (row.state !== 'new') return row;
  return { ...row, doubt: true, reason: row.reason === undefined ? IN_ORDER : `${row.reason}. ${IN_ORDER}` };
}
