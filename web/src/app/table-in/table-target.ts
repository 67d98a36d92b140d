import type { Observable } from 'rxjs';
import type { InField, InRow, Mapping, Table } from '@isometra/work/table-in';

/** What a table is read into: its facts, what each row would become, and how those rows are written. */
export interface TableTarget<Value = unknown> {
  /** "Kit"; under this name its mappings are kept. */
  readonly name: string;
  /** One of them, and several. */
  readonly one: string;
  readonly many: string;
  readonly fields: readonly InField[];
  readonly read: (table: Table, mapping: Mapping) => readonly InRow<Value>[];
  /** Write one row. Fails with an ApiFailure. */
  readonly write: (value: Value) => Observable<unknown>;
}

/** A table as it is read now. */
export interface TableRead {
  readonly table: Table;
  readonly mapping: Mapping;
}
