import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import { concatMap, finalize, from, type Subscription, tap } from 'rxjs';
import * as z from 'zod';
import { prettyUnit } from '@isometra/core';
import {
  dated,
  kept,
  likely,
  looksHeaded,
  rowsToWrite,
  tableOfCells,
  type InField,
  type InRow,
  type Mapped,
  type Mapping,
} from '@isometra/work/table-in';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Undo } from '../data/undo';
import { Choices } from '../ui/choices';
import { Button } from '../ui/controls';
import { File as FileButton } from '../ui/file';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { Progress } from '../ui/progress';
import { Tick } from '../ui/tick';
import { cellsIn, readCells, type FileCells } from './read-file';
import type { TableRead, TableTarget } from './table-target';

const mappedSchema = z.object({
  column: z.string().nullable(),
  unit: z.string().nullable().optional(),
  turned: z.boolean().optional(),
  fixed: z.string().optional(),
});
const mappingSchema = z.object({ decimal: z.enum(['point', 'comma']), fields: z.record(z.string(), mappedSchema) });

/** Rows that are drawn of each sort; the others are counted. */
const DRAWN = 100;
const NONE = ' none';

/** A table on its way into the shop: which column is what, what each row would become, and only then is anything written. */
@Component({
  selector: 'iso-table-in',
  imports: [Button, Choices, FileButton, Notice, Pick, Progress, Tick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './table-in.html',
  styleUrl: './table-in.css',
})
export class TableIn {
  readonly target = input.required<TableTarget>();
  /** Said whenever a table is read, or read otherwise. */
  readonly mapped = output<TableRead>();
  private readonly drafts = inject(Drafts);
  private readonly undo = inject(Undo);

  private readonly cells = signal<readonly (readonly string[])[] | null>(null);
  protected readonly source = signal('');
  protected readonly problem = signal('');
  protected readonly told = signal('');
  protected readonly headed = signal(true);
  private readonly own = signal<Mapping | null>(null);
  private readonly settled = signal<ReadonlySet<string>>(new Set());
  /** The rows as they stood when writing began, which are not read again with every one that is written, and how many are. */
  protected readonly writing = signal<{ readonly rows: readonly InRow<unknown>[]; readonly of: number; readonly done: number } | null>(
    null,
  );
  /** Fields that no column tells and nobody has to are shown once they are asked for. */
  protected readonly all = signal(false);
  private running: Subscription | undefined;

  protected readonly heads = [
    { value: true, label: 'names the columns' },
    { value: false, label: 'is a row like the others' },
  ];
  protected readonly signs = [
    { value: 'point', label: '0.02' },
    { value: 'comma', label: '0,02' },
  ];

  protected readonly table = computed(() => {
    const cells = this.cells();
    return cells && tableOfCells(cells, this.headed());
  });
  protected readonly mapping = computed((): Mapping => {
    const table = this.table();
    return this.own() ?? (table ? likely(table, this.target().fields) : { decimal: 'point', fields: {} });
  });
  protected readonly rows = computed((): readonly InRow<unknown>[] => {
    const [table, writing] = [this.table(), this.writing()];
    if (writing) return writing.rows;
    return table && table.faults.length === 0 ? this.target().read(table, this.mapping()) : [];
  });
  protected readonly going = computed(() => rowsToWrite(this.rows(), this.settled()));
  protected readonly faulty = computed(() => this.rows().filter(({ state }) => state === 'faulty'));
  protected readonly same = computed(() => this.rows().filter(({ state }) => state === 'same').length);
  /** What nobody can know but the one who reads the table, with its rows. */
  protected readonly doubts = computed(() => {
    const groups = new Map<string, number[]>();
    for (const { doubt, reason, number } of this.rows()) if (doubt && reason) groups.set(reason, [...(groups.get(reason) ?? []), number]);
    return [...groups].map(([reason, numbers]) => ({ reason, numbers, settled: this.settled().has(reason) }));
  });
  protected readonly shown = computed(() => ({ faulty: this.faulty().slice(0, DRAWN), going: this.going().slice(0, DRAWN) }));
  private readonly used = computed(() => new Set(Object.values(this.mapping().fields).flatMap(({ column }) => column ?? [])));
  protected readonly fields = computed(() =>
    this.target().fields.filter((field) => this.all() || field.required || this.isMapped(field) || this.target().fields.length <= 8),
  );
  protected readonly hidden = computed(() => this.target().fields.length - this.fields().length);
  /** Columns that nothing is read from. */
  protected readonly unused = computed(() => this.table()?.head.filter((column) => !this.used().has(column)) ?? []);

  constructor() {
    effect(() => {
      const [table, mapping] = [this.table(), this.mapping()];
      if (table) this.mapped.emit({ table, mapping });
    });
  }

  protected mappedOf(field: InField): Mapped {
    return this.mapping().fields[field.key] ?? { column: null };
  }

  private isMapped(field: InField): boolean {
    const { column, fixed } = this.mappedOf(field);
    return column !== null || fixed !== undefined;
  }

  /** The columns of the table, each with a cell of it. */
  protected readonly columns = computed(() => {
    const table = this.table();
    const sample = (i: number): string => dated(table?.rows.map(({ cells }) => cells[i]).find((cell) => cell) ?? '');
    return [
      { value: NONE, label: 'no column' },
      ...(table?.head ?? []).map((name, i) => ({ value: name, label: sample(i) ? `${name}: ${sample(i).slice(0, 18)}` : name })),
    ];
  });
  protected readonly none = NONE;

  protected units(field: InField) {
    return (field.units ?? []).map((value) => ({ value, label: prettyUnit(value) }));
  }

  protected fixedChoices(field: InField) {
    return [{ value: NONE, label: 'not the same' }, ...(field.choices ?? [])];
  }

  protected async open(file: globalThis.File): Promise<void> {
    this.take(await readCells(file), file.name);
  }

  protected paste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text') ?? '';
    if (!text.trim()) return;
    event.preventDefault();
    this.take(cellsIn(text, 'what was pasted', true), 'what was pasted');
  }

  private take(read: FileCells, source: string): void {
    if ('cells' in read) return this.begin(read.cells, source);
    this.leave();
    this.problem.set(read.fault);
  }

  private begin(cells: readonly (readonly string[])[], source: string): void {
    this.leave();
    this.cells.set(cells);
    this.source.set(source);
    this.headed.set(looksHeaded(cells));
    const table = this.table();
    if (!table) return;
    const [fault] = table.faults;
    if (fault) this.problem.set(`${source} ${fault.message}. What would do: ${fault.example}.`);
    const before = this.drafts.read(this.keptAs(), mappingSchema);
    if (before) {
      this.own.set(kept(before, table));
      this.told.set('The columns are read as they were last time.');
    }
  }

  /** Tables with the same columns are mapped alike. */
  private keptAs(): string {
    return `table-in:${this.target().name}:${this.headed() ? (this.table()?.head ?? []).join('|') : ''}`;
  }

  protected leave(): void {
    this.cells.set(null);
    this.own.set(null);
    this.settled.set(new Set());
    this.problem.set('');
    this.told.set('');
    this.all.set(false);
  }

  protected putHeaded(headed: boolean): void {
    this.headed.set(headed);
    this.own.set(null);
  }

  protected putDecimal(decimal: Mapping['decimal']): void {
    this.own.set({ ...this.mapping(), decimal });
  }

  protected put(field: InField, part: Partial<Mapped>): void {
    const { fields, decimal } = this.mapping();
    const next = { ...this.mappedOf(field), ...part };
    this.own.set({ decimal, fields: { ...fields, [field.key]: next } });
    this.told.set('');
  }

  protected putColumn(field: InField, column: string): void {
    this.put(field, column === NONE ? { column: null } : { column, fixed: undefined });
  }

  protected putFixed(field: InField, value: string): void {
    this.put(field, { fixed: value === NONE ? undefined : value });
  }

  protected settle(reason: string, on: boolean): void {
    this.settled.update((settled) => new Set(on ? [...settled, reason] : [...settled].filter((one) => one !== reason)));
  }

  /** Rows by their numbers: "3, 7 and 12 more". */
  protected numbered(numbers: readonly number[]): string {
    const first = numbers.slice(0, 6).join(', ');
    return numbers.length > 6 ? `${first} and ${numbers.length - 6} more` : first;
  }

  /** Write what can be written, row by row; what is written stays written when one of them fails. */
  protected write(): void {
    const [rows, left, { write }] = [this.going(), this.faulty().length, this.target()];
    if (this.headed()) this.drafts.keep(this.keptAs(), this.mapping());
    this.problem.set('');
    this.told.set('');
    this.writing.set({ rows: this.rows(), of: rows.length, done: 0 });
    const close = this.undo.gather();
    let [now, done] = [0, 0];
    const wrote = (): void => {
      done += 1;
      this.writing.update((step) => step && { ...step, done });
    };
    this.running = from(rows)
      .pipe(
        concatMap((row) => {
          now = row.number;
          return write(row.value).pipe(tap({ complete: wrote }));
        }),
        // However it ends, what was written is taken back as one thing.
        finalize(() => close(`${this.counted(done)} from a table`)),
      )
      .subscribe({
        error: (failure: ApiFailure) => {
          this.problem.set(`Row ${now} was not written. ${failure.message.replace(/\.?$/, '.')} ${this.counted(done)} before it stand.`);
          this.writing.set(null);
        },
        complete: () => {
          this.told.set(
            `${this.counted(rows.length)} written.${left ? ` ${left} rows were left out: put them right and read the file again.` : ''}`,
          );
          this.writing.set(null);
        },
      });
  }

  protected stop(): void {
    this.running?.unsubscribe();
    this.told.set(`Stopped. ${this.counted(this.writing()?.done ?? 0)} written: they stand.`);
    this.writing.set(null);
  }

  protected counted(n: number): string {
    const { one, many } = this.target();
    return `${n} ${n === 1 ? one : many}`;
  }
}
