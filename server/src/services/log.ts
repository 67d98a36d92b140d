import type { Transaction } from 'sequelize';
import type { LogEntry } from '@isometra/contract';
import { LogRow } from '../db/shopModels.js';

export interface Entry {
  readonly machineId: string | null;
  readonly by: string;
  readonly what: string;
  readonly text: string;
  readonly at?: Date;
}

const MOST = 400;
const row = (entry: Entry) => ({ ...entry, text: entry.text.slice(0, MOST), at: entry.at ?? new Date() });

/** Write down who did what, in the transaction of what was done. */
export async function writeLog(entries: Entry | readonly Entry[], transaction: Transaction): Promise<void> {
  const rows = [entries].flat().map((entry) => row(entry as Entry));
  if (rows.length) await LogRow.bulkCreate(rows, { transaction });
}

/** The log of a machine, newest first. */
export async function readLog(machineId: string): Promise<LogEntry[]> {
  const rows = await LogRow.findAll({
    where: { machineId },
    order: [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 500,
  });
  return rows.map(({ id, at, by, what, text }) => ({ id: Number(id), at: at.toISOString(), by, what, text }));
}

/** What of the log is work on a machine, and not on its papers. */
const WORK = ['round', 'reading', 'move', 'note'];

/** What was done last on a machine, and by whom. */
export async function lastLog(machineId: string): Promise<Pick<LogEntry, 'text' | 'by' | 'at'> | null> {
  const row = await LogRow.findOne({
    where: { machineId, what: WORK },
    order: [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
  });
  return row && { text: row.text, by: row.by, at: row.at.toISOString() };
}
