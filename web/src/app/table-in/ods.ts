/** Columns and rows of a sheet that are looked at: beyond them only emptiness is repeated. */
const MOST_COLUMNS = 1000;
const MOST_ROWS = 100_000;
/** A sheet of 20 MB unpacks to less than this; what does not is no sheet. */
const MOST_UNPACKED = 200_000_000;

const OFFICE = 'urn:oasis:names:tc:opendocument:xmlns:office:1.0';
const TABLE = 'urn:oasis:names:tc:opendocument:xmlns:table:1.0';
const TEXT = 'urn:oasis:names:tc:opendocument:xmlns:text:1.0';

/** Whether a zip is an OpenDocument spreadsheet: its kind is written first of all, not packed. */
export function isOds(bytes: ArrayBuffer): boolean {
  return new TextDecoder('latin1').decode(bytes.slice(0, 120)).includes('application/vnd.oasis.opendocument.spreadsheet');
}

/** What stands in a cell as it would be typed: a number with a point, a day as 2027-03-31. */
function cellText(cell: Element): string {
  const of = (name: string): string | null => cell.getAttributeNS(OFFICE, name);
  switch (of('value-type')) {
    case 'float':
    case 'percentage':
    case 'currency':
      return String(Number(Number(of('value')).toPrecision(12)));
    case 'date':
      return (of('date-value') ?? '').slice(0, 10);
    case 'boolean':
      return of('boolean-value') ?? '';
    default:
      return [...cell.children]
        .filter(({ namespaceURI, localName }) => namespaceURI === TEXT && localName === 'p')
        .map((line) => lineText(line))
        .join('\n');
  }
}

/** The letters of a paragraph: several blanks, tabs and line ends are elements of their own; a note is none of it. */
function lineText(node: Node): string {
  return [...node.childNodes]
    .map((part) => {
      if (!(part instanceof Element)) return part.textContent ?? '';
      if (part.localName === 's') return ' '.repeat(Math.min(MOST_COLUMNS, Number(part.getAttributeNS(TEXT, 'c')) || 1));
      if (part.localName === 'tab' || part.localName === 'line-break') return ' ';
      return part.localName === 'annotation' ? '' : lineText(part);
    })
    .join('');
}

const timesOf = (element: Element, name: string): number => Math.max(1, Math.floor(Number(element.getAttributeNS(TABLE, name)) || 1));

const isCell = ({ namespaceURI, localName }: Element): boolean =>
  namespaceURI === TABLE && (localName === 'table-cell' || localName === 'covered-table-cell');

/** The cells of a row up to the last that is not empty. */
function cellsOf(row: Element): string[] {
  const cells: string[] = [];
  let last = 0;
  for (const cell of [...row.children].filter(isCell)) {
    // What a merged cell covers is empty.
    const text = cell.localName === 'table-cell' ? cellText(cell) : '';
    const times = Math.min(timesOf(cell, 'number-columns-repeated'), MOST_COLUMNS - cells.length);
    for (let i = 0; i < times; i++) cells.push(text);
    if (text !== '') last = cells.length;
  }
  return cells.slice(0, last);
}

/** The rows of a table in their order, those of its header and of groups with them. */
function rowsOf(table: Element): Element[] {
  return [...table.children].flatMap((part) => {
    if (part.namespaceURI !== TABLE) return [];
    if (part.localName === 'table-row') return [part];
    return /^table-(header-rows|rows|row-group)$/.test(part.localName) ? rowsOf(part) : [];
  });
}

/**
 * The first sheet of an OpenDocument spreadsheet (.ods) as rows of cells, as they would be typed.
 *
 * @throws Error where it holds no sheet.
 */
export async function odsCells(bytes: ArrayBuffer): Promise<readonly (readonly string[])[]> {
  const { unzipSync } = await import('fflate');
  const { 'content.xml': content } = unzipSync(new Uint8Array(bytes), {
    filter: ({ name, originalSize }) => name === 'content.xml' && originalSize < MOST_UNPACKED,
  });
  const document = new DOMParser().parseFromString(new TextDecoder().decode(content), 'application/xml');
  const table = document.getElementsByTagNameNS(TABLE, 'table').item(0);
  if (!content || !table || document.querySelector('parsererror')) throw new Error('no sheet');
  const rows: (readonly string[])[] = [];
  let last = 0;
  for (const row of rowsOf(table)) {
    const cells = cellsOf(row);
    // Below the last row that says something emptiness is repeated a million times.
    const times = Math.min(timesOf(row, 'number-rows-repeated'), MOST_ROWS - rows.length);
    for (let i = 0; i < times; i++) rows.push(cells);
    if (cells.length) last = rows.length;
  }
  return rows.slice(0, last);
}
