import type { Transaction } from 'sequelize';
import type { LogEntry } from '@isometra/contract';
import { LogRow } from '../db/models.js';

interface Entry {
  readonly machineId: string | null;
  readonly by: string;
  readonly what: string;
  readonly text: string;
  readonly at?: Date;
}

/** Write down who did what. */
export async function writeLog(entry: Entry, transaction?: Transaction): Promise<void> {
  await LogRow.create({ ...entry, text: entry.text.slice(0, 400), at: entry.at ?? new Date() }, { transaction });
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
