import Papa from 'papaparse';
import type { Fault } from '@isometra/core';

/** A table as a file or a clipboard holds it, cells as text. Rows carry the number that a spreadsheet shows beside them. */
export interface Table {
  /** What stands over the columns; "Column A" where nothing does. */
  readonly head: readonly string[];
  readonly rows: readonly TableRow[];
  readonly faults: readonly Fault[];
}

export interface TableRow {
  readonly number: number;
  readonly cells: readonly string[];
  /** It has more cells than the head has names: which of them are meant nobody can know. */
  readonly ragged?: boolean;
}

/** Rows that are read at once: more belong in several files. */
export const MOST_ROWS = 5000;
const MOST_COLUMNS = 60;

/** A, B … Z, AA: as a spreadsheet names its columns. */
const letter = (index: number): string => (index >= 26 ? letter(Math.floor(index / 26) - 1) : '') + String.fromCharCode(65 + (index % 26));

/**
 * Cells laid out as a table. Empty rows are left out, but counted.
 *
 * @param cells rows of cells as they stand in the file. @param headed whether the first row with anything in it names the columns.
 * @returns the table; `faults` tell what makes it none (nothing in it, too many rows).
 */
export function tableOfCells(cells: readonly (readonly string[])[], headed: boolean): Table {
  const rows = cells
    .map((row, i) => ({ number: i + 1, cells: row.map((cell) => cell.trim()) }))
    .filter((row) => row.cells.some((cell) => cell !== ''));
  const [first, ...below] = rows;
  const names = first?.cells.findLastIndex((cell) => cell !== '') ?? -1;
  const isRagged = (row: TableRow): boolean => row.cells.some((cell, i) => i > names && cell !== '');
  const data = headed ? below.map((row) => (isRagged(row) ? { ...row, ragged: true } : row)) : rows;
  const width = headed ? names + 1 : rows.reduce((most, row) => Math.max(most, row.cells.length), 0);
  const named = (i: number): string => (headed && first?.cells[i]) || `Column ${letter(i)}`;
  const table = { head: distinct(Array.from({ length: Math.min(width, MOST_COLUMNS) }, (_, i) => named(i))), rows: data };
  const fault = (message: string, example: string): Table => ({ ...table, rows: [], faults: [{ path: 'file', message, example }] });
  if (data.length === 0) return fault('has no row with figures in it', 'a row of names, and a row for each thing below it');
  if (data.length > MOST_ROWS)
    return fault(`has ${data.length} rows: at most ${MOST_ROWS} are read at once`, 'split it into several files');
  if (width > MOST_COLUMNS) return fault(`has ${width} columns: at most ${MOST_COLUMNS} are read`, 'delete the columns that nothing needs');
  return { ...table, faults: [] };
}

/** Names of columns, each once: a second "value" is "value (2)". */
function distinct(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const times = (seen.get(name) ?? 0) + 1;
    seen.set(name, times);
    return times === 1 ? name : `${name} (${times})`;
  });
}

const SEPARATORS = [';', '\t', '|', ','] as const;
/** Rows that are looked at to see what parts the cells. */
const LOOKED_AT = 60;

/**
 * What parts the cells of a text: the sign that parts its first row and nearly all others into as many cells. What parts nothing in the
 * first row parts nothing: a column of figures with a decimal comma stays one column.
 */
function separatorOf(text: string, separators: readonly string[]): string {
  const tried = separators.map((separator) => {
    const { data } = Papa.parse<string[]>(text, { delimiter: separator, preview: LOOKED_AT, skipEmptyLines: 'greedy' });
    const width = data[0]?.length ?? 0;
    return { separator, alike: width > 1 ? data.filter((row) => row.length === width).length : 0 };
  });
  const best = tried.reduce((one, other) => (other.alike > one.alike ? other : one));
  return best.alike > 0 ? best.separator : '\t';
}

/** A text parted into cells. */
export interface Parted {
  readonly cells: readonly (readonly string[])[];
  /** The row whose quotation mark is opened and never closed: what follows it is one cell. Left out where all are. */
  readonly openQuote?: number;
}

/**
 * Cells of a text: semicolon, tab, bar or comma between them, found by what the text holds.
 *
 * @param pasted out of a spreadsheet: its cells have tabs between them, and a comma in a figure is a decimal one.
 */
export function partText(text: string, pasted = false): Parted {
  const plain = text.replace(/^\uFEFF/, '');
  const separators = pasted && !/[a-z]/i.test(plain.split('\n')[0]) ? SEPARATORS.filter((one) => one !== ',') : SEPARATORS;
  const { errors, data } = Papa.parse<string[]>(plain, { delimiter: separatorOf(plain, separators), skipEmptyLines: false });
  return { cells: data, ...(errors.some(({ code }) => code === 'MissingQuotes') && { openQuote: data.length }) };
}

/** Whether the first row names the columns: none of its cells is a figure, and there are rows below it. */
export function looksHeaded(cells: readonly (readonly string[])[]): boolean {
  const [first, ...below] = cells.filter((row) => row.some((cell) => cell.trim() !== ''));
  const isFigure = (cell: string): boolean => /^[-+−–]?[\d.,]+(\s|$|[a-zµ"])/i.test(cell.trim());
  return !!first && !first.some(isFigure) && below.length > 0;
}

/** Why a row cannot be read at all; undefined where it can. */
export const raggedFault = ({ ragged }: TableRow): string | undefined =>
  ragged ? 'has more cells than the columns have names: put quotes round a text with a comma in it' : undefined;
