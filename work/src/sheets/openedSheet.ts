import { dequal } from 'dequal';
import { FaultError, readSheet, type Fault } from '@isometra/core';
import type { ReadingWrite, RoundWrite } from '@isometra/contract';
import { sheetOf, trySolve } from './sheet.js';

/** What of a sheet becomes a round of a machine, and its readings in their order. */
export interface OpenedSheet {
  readonly round: Pick<RoundWrite, 'check' | 'setup' | 'plan' | 'instrument' | 'conditions'>;
  readonly readings: readonly Pick<ReadingWrite, 'keys' | 'value' | 'set'>[];
}

type Row = Readonly<Record<string, unknown>>;
/** What stands in a row of a sheet beside its keys. */
const BESIDE = ['value', 'set', 'conditions', 'stylus'];

const fault = (path: string, message: string, example: string): { readonly faults: readonly Fault[] } => ({
  faults: [{ path, message, example }],
});

/** What every row says alike, or undefined where they differ; null where none says it. */
function alike(rows: readonly Row[], key: string): unknown {
  const [first, ...others] = rows.map((row) => row[key] ?? null);
  return others.every((value) => dequal(value, first)) ? (first ?? null) : undefined;
}

/** Keys of a place, in base units. */
const keysOf = (read: Row, row: Row): ReadingWrite['keys'] =>
  Object.fromEntries(Object.keys(row).flatMap((key) => (BESIDE.includes(key) ? [] : [[key, read[key] as string | number | boolean]])));

const figures = (sheet: unknown): unknown => {
  const { finding } = trySolve(sheet);
  return (
    finding && Object.fromEntries(Object.entries(finding.quantities).map(([name, { value, expanded }]) => [name, rounded(value, expanded)]))
  );
};
const rounded = (...values: readonly (number | null | undefined)[]): unknown =>
  values.map((value) => (typeof value === 'number' ? Number(value.toPrecision(9)) : value));

/**
 * A sheet as a round: its set-up, instrument and readings. Limits, aims and hardware are those of the machine and its survey from then
 * on. What the bench asks once for a round (the sides of the stylus, the conditions) must be the same in every reading. A sheet that
 * would say something else as a round than by itself is refused.
 *
 * @param raw what a file held, isometra-sheet/1. @returns the round, or every fault with its path in the sheet. Never throws.
 */
export function openSheet(raw: unknown): { readonly opened?: OpenedSheet; readonly faults: readonly Fault[] } {
  let sheet;
  try {
    sheet = readSheet(raw);
  } catch (error) {
    if (error instanceof FaultError) return { faults: error.faults };
    throw error;
  }
  const { readings: rows, setup = {}, instrument = null } = raw as { readings: readonly Row[]; setup?: Row; instrument?: Row | null };
  const [stylus, conditions] = [alike(rows, 'stylus'), alike(rows, 'conditions')];
  if (stylus === undefined)
    return fault('readings', 'say different sides of the stylus: a round has one set of sides', 'one round for each');
  if (conditions === undefined)
    return fault('readings', 'were taken under different conditions: a round has one set of them', 'one round for each');
  const opened: OpenedSheet = {
    round: {
      ...{ check: sheet.check.id, plan: {}, instrument, conditions: (conditions ?? {}) as RoundWrite['conditions'] },
      setup: { ...setup, ...(stylus !== null && { stylus }) },
    },
    readings: rows.map((row, i) => ({
      keys: keysOf(sheet.readings[i] as unknown as Row, row),
      value: (row['value'] ?? null) as ReadingWrite['value'],
      set: typeof row['set'] === 'number' ? row['set'] : 1,
    })),
  };
  const stored = opened.readings.map((reading, i) => ({ ...reading, id: String(i), supersedes: null }));
  const { limits: _limits, aims: _aims, hardware: _hardware, ...plain } = raw as Row;
  if (!dequal(figures(sheetOf(opened.round, stored)), figures(plain)))
    return fault('', 'says something else as a round than by itself', 'isometra solve sheet.json');
  return { opened, faults: [] };
}
