import type { LOCK, Sequelize, Transaction } from 'sequelize';
import type { Archived, ArchivedKind } from '@isometra/contract';
import { notFound } from '../api/errors.js';
import { KitRow, LimitSheetRow, MachineRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

/** What is told of the archive beside a row: nothing for what is not in it. */
export const archivedOf = ({ archived }: { readonly archived?: Record<string, unknown> | null }): { readonly archived?: Archived } =>
  archived ? { archived: archived as Archived } : {};

interface FindOptions {
  readonly transaction: Transaction;
  readonly lock: LOCK;
}

type Archiving = { readonly at: string; readonly by: string } | null;

/** What is found, locked: what it is called in the log, and how it is put away or taken out. */
interface Found {
  readonly row: { readonly archived: Record<string, unknown> | null };
  readonly called: string;
  readonly put: (archived: Archiving, transaction: Transaction) => Promise<unknown>;
}

/** How each kind is found, and what it is called in an error. */
const KINDS: Readonly<
  Record<ArchivedKind, { readonly one: string; readonly find: (id: string, options: FindOptions) => Promise<Found | null> }>
> = {
  machines: {
    one: 'machine',
    find: async (id, options) => {
      const row = await MachineRow.findByPk(id, options);
      return row && { row, called: row.number, put: (archived, transaction) => row.update({ archived }, { transaction }) };
    },
  },
  kit: {
    one: 'piece of kit',
    find: async (id, options) => {
      const row = await KitRow.findByPk(id, options);
      return row && { row, called: row.name, put: (archived, transaction) => row.update({ archived }, { transaction }) };
    },
  },
  limits: {
    one: 'limit sheet',
    find: async (id, options) => {
      const row = await LimitSheetRow.findByPk(id, options);
      return row && { row, called: `Limit sheet “${row.name}”`, put: (archived, transaction) => row.update({ archived }, { transaction }) };
    },
  },
};

/**
 * Put something in the archive, or take it out again. Nothing that was entered is lost, and what it was used for stays as it is.
 * Safe to send twice.
 *
 * @returns since when it is there; nothing of that where it is not.
 */
export function archive(
  sequelize: Sequelize,
  kind: ArchivedKind,
  id: string,
  { away, by }: { readonly away: boolean; readonly by: string },
): Promise<{ readonly archived?: Archived }> {
  const { find, one } = KINDS[kind];
  return inOneGo(sequelize, async (transaction) => {
    const found = await find(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!found) throw notFound(one);
    const { row, called, put } = found;
    if (!!row.archived === away) return archivedOf(row);
    await put(away ? { at: new Date().toISOString(), by } : null, transaction);
    const text = `${called} ${away ? 'put in the archive' : 'restored from the archive'}`;
    await writeLog({ machineId: kind === 'machines' ? id : null, by, what: kind === 'machines' ? 'machine' : kind, text }, transaction);
    return archivedOf(row);
  });
}
