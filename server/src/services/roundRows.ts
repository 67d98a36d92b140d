import type { RoundWrite, StoredReading, MoveWrite } from '@isometra/contract';
import type { MoveRow, ReadingRow, RoundRow } from '../db/surveyModels.js';

/** A reading as it was sent, with its place in its round. */
export const readingShown = (row: ReadingRow): StoredReading => ({
  id: row.id,
  roundId: row.roundId,
  sequence: row.sequence,
  keys: row.keys as StoredReading['keys'],
  value: row.value !== null && row.bare ? Number(row.value) : row.value,
  set: row.setUp,
  supersedes: row.supersedes,
  why: row.why,
  by: row.by,
  at: row.at.toISOString(),
});

export const moveShown = (row: MoveRow): MoveWrite => ({
  id: row.id,
  roundId: row.roundId,
  kind: row.kind,
  quantity: row.quantity,
  amount: row.amount,
  unit: row.unit,
  direction: row.direction,
  plan: row.plan,
  ticks: row.ticks,
  shift: row.shift,
  ...(row.made !== null && { made: row.made as MoveWrite['made'] }),
  by: row.by,
  begunAt: row.begunAt.toISOString(),
  doneAt: row.doneAt?.toISOString() ?? null,
  version: row.version,
});

/** A round as it was sent. */
export const roundShown = (row: RoundRow): RoundWrite => ({
  id: row.id,
  machineId: row.machineId,
  check: row.kind,
  setup: row.setup,
  plan: row.plan,
  instrument: row.instrument,
  instrumentName: row.instrumentName,
  conditions: row.conditions as RoundWrite['conditions'],
  purpose: row.purpose as RoundWrite['purpose'],
  ...(row.note !== null && { note: row.note }),
  by: row.by,
  at: row.at.toISOString(),
  version: row.version,
});
