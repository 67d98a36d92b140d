/** A column from a spreadsheet, or why it is none. */
export type Pasted = { readonly figures: readonly string[] } | { readonly fault: string };

/** Figures that are taken at once: no round has more places. */
const MOST = 300;

/**
 * What was pasted into the field for one reading, where it is a column of them; undefined for a figure by itself, which is pasted as
 * everywhere. A row of cells is a column that lies.
 */
export function pastedColumn(text: string): Pasted | undefined {
  const rows = text
    .split(/\r?\n|\r/)
    .map((row) => row.split('\t').map((cell) => cell.trim()))
    .filter((cells) => cells.some((cell) => cell !== ''));
  if (rows.length === 0 || (rows.length === 1 && rows[0].length === 1)) return undefined;
  const cells = rows.length === 1 ? rows[0].map((cell) => [cell]) : rows;
  if (cells.some((row) => row.filter((cell) => cell !== '').length > 1))
    return { fault: 'Several columns were pasted. Copy the column with the figures alone.' };
  const figures = cells.flatMap((row) => row.find((cell) => cell !== '') ?? []);
  return figures.length > MOST ? { fault: `${figures.length} figures were pasted. At most ${MOST} are taken at once.` } : { figures };
}
