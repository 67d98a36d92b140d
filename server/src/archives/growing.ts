import type { Content } from './files.js';
import type { List } from './things.js';

/** What happens where both superseded the same row, each with one of their own. */
export type Settled = 'ours' | 'theirs' | undefined;

/** What a list grows by. */
export interface Growth {
  readonly rows: readonly Content[];
  /** Rows that supersede what was superseded here by another: without a choice they are left out. */
  readonly clashes: readonly Content[];
}

const text = (row: Content, key: string): string => String(row[key]);

/** The end of a chain of rows that supersede one another. */
function tipOf(id: string, next: ReadonlyMap<string, string>): string {
  const after = next.get(id);
  return after === undefined ? id : tipOf(after, next);
}

/** Take in rows that supersede what something of ours superseded already: ours stays what counts, or theirs comes after it. */
function settledRows(fresh: readonly Content[], ours: readonly Content[], settled: Settled): Growth {
  const next = new Map(
    ours.flatMap((row) => (typeof row['supersedes'] === 'string' ? [[row['supersedes'], text(row, 'id')] as const] : [])),
  );
  const clashes = fresh.filter((row) => typeof row['supersedes'] === 'string' && next.has(row['supersedes']));
  if (clashes.length === 0) return { rows: fresh, clashes };
  if (settled === 'theirs')
    return {
      rows: fresh.map((row) => (clashes.includes(row) ? { ...row, supersedes: tipOf(text(row, 'supersedes'), next) } : row)),
      clashes,
    };
  const dropped = new Set(clashes.map((row) => text(row, 'id')));
  for (const row of fresh) if (typeof row['supersedes'] === 'string' && dropped.has(row['supersedes'])) dropped.add(text(row, 'id'));
  return { rows: fresh.filter((row) => !dropped.has(text(row, 'id'))), clashes };
}

/** Numbers that are given out one after another within a thing: those that are taken here are given anew. */
function renumbered(rows: readonly Content[], ours: readonly Content[], field: string): Content[] {
  const taken = new Set(ours.map((row) => Number(row[field])));
  if (rows.every((row) => !taken.has(Number(row[field])))) return [...rows];
  const last = Math.max(...taken);
  return rows.map((row, i) => ({ ...row, [field]: last + 1 + i }));
}

/** What a list of ours grows by when theirs comes in: rows that it does not have yet. Nothing that is there is changed. */
export function growthOf({ key, columns }: List, ours: readonly Content[], theirs: readonly Content[], settled: Settled): Growth {
  const known = new Set(ours.map((row) => text(row, key)));
  const fresh = theirs.filter((row) => !known.has(text(row, key)));
  if (fresh.length === 0) return { rows: [], clashes: [] };
  const { rows, clashes } = columns.includes('supersedes') ? settledRows(fresh, ours, settled) : { rows: fresh, clashes: [] };
  const counted = ['sequence', 'version'].find((field) => columns.includes(field));
  return { rows: counted ? renumbered(rows, ours, counted) : rows, clashes };
}
