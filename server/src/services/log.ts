import type { Transaction } from 'sequelize';
import type { LogEntry, LogKind, LogThing } from '@isometra/contract';
import { LogRow } from '../db/shopModels.js';

export interface Entry {
  readonly machineId: string | null;
  readonly by: string;
  readonly what: LogKind;
  readonly text: string;
  readonly at?: Date;
  /** The check or the face that it belongs to. */
  readonly part?: string | null;
  /** What it leads to. */
  readonly thing?: LogThing;
  readonly thingId?: string;
  /** What stood there before and counts no more. */
  readonly was?: string | null;
}

/** Characters of one entry: more than any card can change at once, and a page of the logbook still holds it. */
const MOST = 30_000;
const MOST_WAS = 200;

const row = (entry: Entry) => ({
  ...{ ...entry, part: entry.part ?? null, thing: entry.thing ?? null, thingId: entry.thingId ?? null },
  ...{ text: entry.text.slice(0, MOST), was: entry.was?.slice(0, MOST_WAS) ?? null, at: entry.at ?? new Date() },
});

/** Write down who did what, in the transaction of what was done. */
export async function writeLog(entries: Entry | readonly Entry[], transaction: Transaction): Promise<void> {
  const rows = [entries].flat().map((entry) => row(entry as Entry));
  if (rows.length) await LogRow.bulkCreate(rows, { transaction });
}

/** What of the log is work on a machine, and not on its papers. */
const WORK: readonly LogKind[] = ['round', 'reading', 'move'];

/** What was done last on a machine, and by whom. */
export async function lastLog(machineId: string): Promise<Pick<LogEntry, 'text' | 'by' | 'at'> | null> {
  const row = await LogRow.findOne({
    where: { machineId, what: [...WORK] },
    order: [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
  });
  return row && { text: row.text, by: row.by, at: row.at.toISOString() };
}
