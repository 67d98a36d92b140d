import { isOds, odsCells } from './ods';
import { partText } from '@isometra/work/table-in';

/** What a file holds as rows of cells, or why it holds none. */
export type FileCells = { readonly cells: readonly (readonly string[])[] } | { readonly fault: string };

const MOST_BYTES = 20_000_000;

/** A cell of a spreadsheet as it would be typed: a day as 2027-03-31, a number with a point. */
function typed(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  // A spreadsheet keeps a day as midnight of Greenwich.
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  // 0.1 + 0.2 is kept as 0.30000000000000004, and nobody typed that.
  return typeof cell === 'number' ? String(Number(cell.toPrecision(12))) : String(cell as string | boolean);
}

/** Letters of a file: UTF-8, or what old spreadsheets write where it is none. */
function letters(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Cells of a text, or the row whose quotation mark is never closed. @param pasted out of a spreadsheet. */
export function cellsIn(text: string, called: string, pasted = false): FileCells {
  const { cells, openQuote } = partText(text, pasted);
  if (openQuote === undefined) return { cells };
  return {
    fault: `A quotation mark in row ${openQuote} of ${called} is never closed: the rows below it would be one cell. Close it or delete it.`,
  };
}

/** Read a file of a spreadsheet: its first sheet where it is a workbook (.xlsx, .ods), else text with something between the cells. */
export async function readCells(file: File): Promise<FileCells> {
  if (file.size > MOST_BYTES) return { fault: `${file.name} is larger than 20 MB. Save the sheet that is wanted by itself.` };
  const bytes = await file.arrayBuffer();
  const [first, second, third, fourth] = new Uint8Array(bytes.slice(0, 4));
  if (first === 0xd0 && second === 0xcf)
    return { fault: `${file.name} is a workbook of the old kind (.xls). Save it as .xlsx, .ods or .csv.` };
  if (first === 0x50 && second === 0x4b && third === 3 && fourth === 4) return workbook(file, bytes);
  const text = letters(bytes);
  if (text.includes('\u0000')) return { fault: `${file.name} is no table. Save it as .csv, .xlsx or .ods.` };
  return cellsIn(text, file.name);
}

async function workbook(file: File, bytes: ArrayBuffer): Promise<FileCells> {
  try {
    if (isOds(bytes)) return { cells: await odsCells(bytes) };
    const { readSheet } = await import('read-excel-file/browser');
    const rows = await readSheet(file);
    return { cells: rows.map((row) => row.map(typed)) };
  } catch {
    return { fault: `${file.name} could not be read as a workbook. Save it as .xlsx or .csv.` };
  }
}
