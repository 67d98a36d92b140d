import type { Sequelize } from 'sequelize';
import type { Archived, ArchivedKind } from '@isometra/contract';
import { notFound } from '../api/errors.js';
import { KitRow, LimitSheetRow, MachineRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

/** What is told of the archive beside a row: nothing for what is not in it. */
export const archivedOf = ({ archived }: { readonly archived?: Record<string, unknown> | null }): { readonly archived?: Archived } =>
  archived ? { archived: archived as Archived } : {};

interface Kept {
  archived: Record<string, unknown> | null;
}

/** How each kind is found, and what it is called in the log. */
const KINDS = {
  machines: { model: MachineRow, one: 'machine', called: (row: MachineRow) => row.number },
  kit: { model: KitRow, one: 'piece of kit', called: (row: KitRow) => row.name },
  limits: { model: LimitSheetRow, one: 'limit sheet', called: (row: LimitSheetRow) => `Limit sheet “${row.name}”` },
} as const;

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
  const { model, one, called } = KINDS[kind];
  return inOneGo(sequelize, async (transaction) => {
    const row = await (model as typeof MachineRow).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound(one);
    if (!!row.archived === away) return archivedOf(row);
    const archived: Kept['archived'] = away ? { at: new Date().toISOString(), by } : null;
    await row.update({ archived }, { transaction });
    const text = `${called(row as never)} ${away ? 'put in the archive' : 'restored from the archive'}`;
    await writeLog({ machineId: kind === 'machines' ? id : null, by, what: kind === 'machines' ? 'machine' : kind, text }, transaction);
    return archivedOf(row);
  });
}
