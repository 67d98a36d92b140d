import Papa from 'papaparse';
import { CHECKS, LIMITS_FORMAT, readLimitSheet, type Fault, type LimitSheet } from '@isometra/core';

const COLUMNS = ['check', 'quantity', 'when', 'low', 'high', 'unit', 'over', 'least', 'aim', 'reason'] as const;
type Column = (typeof COLUMNS)[number];
type Row = Partial<Record<Column, string>>;

/** A limit sheet as a table, bounds in the unit beside them. The name of the sheet is that of the file. */
export function limitsToCsv(sheet: LimitSheet): string {
  const rows = sheet.lines.map(({ check, quantity, when, zone, over, aim, reason }) => ({
    check,
    quantity,
    when: when ?? '',
    low: zone[0] ?? '',
    high: zone[1] ?? '',
    unit: CHECKS.get(check)?.quantities[quantity]?.unit ?? '',
    over: over ? `${over.length} mm` : '',
    least: over?.least ?? '',
    aim: aim ?? '',
    reason: reason ?? '',
  }));
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows.map((row) => COLUMNS.map((column) => row[column])) }, { newline: '\n', escapeFormulae: /^[=@\t\r]/ })}\n`;
}

/** A bound with the row's unit behind it, when it has none of its own: "0,02" with "mm" is "0,02 mm". */
const withUnit = (text: string | undefined, unit: string | undefined): string | null => {
  const bare = text?.trim() ?? '';
  if (bare === '') return null;
  return unit?.trim() && /^[-+−]?[\d.,\s/]+$/.test(bare) ? `${bare} ${unit.trim()}` : bare;
};

function lineOf(row: Row): Record<string, unknown> {
  const over = row.over?.trim();
  const given = (key: Column) => (row[key]?.trim() ? { [key]: row[key].trim() } : {});
  const aim = withUnit(row.aim, row.unit);
  return {
    check: row.check?.trim() ?? '',
    quantity: row.quantity?.trim() ?? '',
    ...given('when'),
    zone: [withUnit(row.low, row.unit), withUnit(row.high, row.unit)],
    ...(over && { over: { length: over, least: withUnit(row.least, row.unit) } }),
    ...(aim !== null && { aim }),
    ...given('reason'),
  };
}

/** Which column a fault of a line is about. */
function columnOf(path: string): string {
  const inLine = path.replace(/^lines\[\d+\]\.?/, '');
  if (inLine === 'zone[0]') return 'low';
  if (inLine === 'zone[1]') return 'high';
  if (inLine === 'zone') return 'low and high';
  if (inLine === 'over.length') return 'over';
  if (inLine === 'over.least') return 'least';
  return inLine;
}

function headFaults(fields: readonly string[]): Fault[] {
  const missing = (['check', 'quantity', 'low', 'high'] as const).filter((column) => !fields.includes(column));
  const unknown = fields.filter((field) => field !== '' && !(COLUMNS as readonly string[]).includes(field));
  return [
    ...missing.map((column) => ({ path: 'row 1', message: `has no column "${column}"`, example: COLUMNS.join(',') })),
    ...unknown.map((field) => ({ path: 'row 1', message: `has a column "${field}" that nothing reads`, example: COLUMNS.join(',') })),
  ];
}

/**
 * Read a limit sheet from a table with the columns check, quantity, when, low, high, unit, over, least, aim, reason.
 * Comma, semicolon or tab between the cells.
 *
 * @param name of the sheet: a table has none of its own.
 * @returns the sheet, or every mistake with its row as a spreadsheet numbers it and its column.
 */
export function limitsFromCsv(text: string, name: string): { readonly sheet?: LimitSheet; readonly faults: readonly Fault[] } {
  const parsed = Papa.parse<Row>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: false,
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const head = headFaults(parsed.meta.fields ?? []);
  if (head.length) return { faults: head };
  const rows = parsed.data.map((row, i) => ({ row, number: i + 2 })).filter(({ row }) => COLUMNS.some((column) => row[column]?.trim()));
  if (rows.length === 0)
    return {
      faults: [
        {
          path: 'row 2',
          message: 'there is no line below the head of the table',
          example: 'bed-twist,twistPerMetre,,-20,20,um/m per m,,,,',
        },
      ],
    };
  const ragged = parsed.errors
    .filter((error) => error.code === 'TooManyFields' || error.type === 'Quotes')
    .map((error) => ({
      path: `row ${(error.row ?? 0) + 2}`,
      message: error.message.toLowerCase(),
      example: 'put quotes round a text with a comma in it',
    }));
  const { sheet, faults } = readLimitSheet({ format: LIMITS_FORMAT, name, lines: rows.map(({ row }) => lineOf(row)) });
  const told = faults.map((fault): Fault => {
    const index = /^lines\[(\d+)\]/.exec(fault.path)?.[1];
    if (index === undefined) return fault;
    const column = columnOf(fault.path);
    const message = fault.message.replace(/lines\[(\d+)\]/g, (_, other: string) => `row ${rows[Number(other)].number}`);
    return { ...fault, message, path: `row ${rows[Number(index)].number}${column ? `, ${column}` : ''}` };
  });
  return told.length || ragged.length || !sheet ? { faults: [...ragged, ...told] } : { sheet, faults: [] };
}
