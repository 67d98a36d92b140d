/** What one row of a table would become, or why it would not. */
export interface InRow<Value> {
  /** As a spreadsheet numbers it. */
  readonly number: number;
  /** What it is about, as a person calls it. */
  readonly what: string;
  /** What it tells, in short. */
  readonly says: string;
  readonly state: 'new' | 'changed' | 'same' | 'faulty';
  /** Why it cannot be taken, or what nobody can know of it but the one who reads the table. */
  readonly reason?: string;
  /** It can be taken, once somebody has said that it is so. Rows with the same reason are settled together. */
  readonly doubt?: boolean;
  /** What is written; left out where it cannot be. */
  readonly value?: Value;
}

/** Rows that would be written, with those in doubt that were settled. */
export function rowsToWrite<Value>(
  rows: readonly InRow<Value>[],
  settled: ReadonlySet<string>,
): readonly (InRow<Value> & { value: Value })[] {
  return rows.filter(
    (row): row is InRow<Value> & { value: Value } =>
      row.value !== undefined && (row.state === 'new' || row.state === 'changed') && (!row.doubt || settled.has(row.reason ?? '')),
  );
}
