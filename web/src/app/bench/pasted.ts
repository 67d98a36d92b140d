import { signal } from '@angular/core';
import type { BenchStore } from './bench-store';

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

/** What of a pasted column is still to be taken. */
interface Waiting {
  readonly rest: readonly string[];
  readonly taken: number;
  readonly of: number;
}

/** A pasted column on its way into a round: figure by figure, place by place, until one does not fit. */
export class PastedColumn {
  /** What is not taken yet; null where nothing waits. */
  readonly waiting = signal<Waiting | null>(null);
  /** What became of the last column. */
  readonly told = signal('');

  /** @param bench where the figures go. @param on when a hand is needed first, and what follows once all is taken. */
  constructor(
    private readonly bench: Pick<BenchStore, 'current' | 'standing' | 'typed' | 'type' | 'take' | 'fault'>,
    private readonly on: { readonly stopped: () => boolean; readonly done: () => void },
  ) {}

  /** Whether a text is a column: then it is taken, as far as it fits. */
  paste(text: string): boolean {
    const pasted = pastedColumn(text);
    if (!pasted) return false;
    this.told.set('');
    if ('fault' in pasted) this.bench.fault.set(pasted.fault);
    else {
      this.waiting.set({ rest: pasted.figures, taken: 0, of: pasted.figures.length });
      void this.fill();
    }
    return true;
  }

  /** Take the figures that are left, place by place in order, until one does not fit: it stays in the field, and the others wait. */
  async fill(): Promise<void> {
    for (let now = this.waiting(); now?.rest.length && this.bench.current() && !this.on.stopped(); now = this.waiting()) {
      const [figure, ...rest] = now.rest;
      const before = this.bench.standing().length;
      this.waiting.set({ ...now, rest });
      this.bench.type(figure);
      if (!this.bench.take()) break;
      this.waiting.set({ ...now, rest, taken: now.taken + 1 });
      await until(() => this.bench.standing().length > before);
    }
    this.finish();
  }

  /** Leave out what is not taken yet. */
  leave(): void {
    this.waiting.set(null);
    this.told.set('');
  }

  /** Once all of them are taken, or no place is left, the column is told of and gone. */
  private finish(): void {
    const now = this.waiting();
    if (!now || (now.rest.length && this.bench.current())) return;
    const over = now.rest.length ? ` ${now.rest.length} more than there are places: they were left out.` : '';
    if (!this.bench.typed()) this.waiting.set(null);
    this.told.set(`${now.taken} of ${now.of} pasted figures taken.${over}`);
    this.on.done();
  }
}

/** Wait for something that comes with the next answers of this browser. */
async function until(there: () => boolean): Promise<void> {
  for (let k = 0; k < 200 && !there(); k++) await new Promise((resolve) => setTimeout(resolve, 10));
}
