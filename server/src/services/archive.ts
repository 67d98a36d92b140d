import type { LOCK, Sequelize, Transaction } from 'sequelize';
import type { Archived, ArchivedKind } from '@isometra/contract';
import { ApiError, notFound } from '../api/errors.js';
import { KitRow, LimitSheetRow, MachineRow } from '../db/shopModels.js';
import { SurveyRow } from '../db/surveyModels.js';
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

/** A row of any of the kinds, as far as its archive goes. */
interface Archivable {
  readonly archived: Record<string, unknown> | null;
  update(values: { readonly archived: Archiving }, options: { readonly transaction: Transaction }): Promise<unknown>;
}

/** What is found, locked, and what it is called in the log. */
interface Found {
  readonly row: Archivable;
  readonly called: string;
  /** The machine that the log tells it of. */
  readonly machineId: string | null;
}

const found = <Row extends Archivable>(row: Row | null, called: (row: Row) => string, machineId: string | null = null): Found | null =>
  row && { row, called: called(row), machineId };

/** A survey that runs is worked in: it is ended first. */
function ended(row: SurveyRow | null): SurveyRow | null {
  if (row && row.endedAt === null && !row.archived)
    throw new ApiError(409, [
      { path: 'endedAt', message: 'this survey is running: start or resume another one first', example: 'an earlier survey' },
    ]);
  return row;
}

/** What the log calls each kind. */
const ONE_OF = { machines: 'machine', kit: 'kit', limits: 'limits', surveys: 'survey' } as const;

/** How each kind is found, and what it is called in an error. */
const KINDS: Readonly<
  Record<ArchivedKind, { readonly one: string; readonly find: (id: string, options: FindOptions) => Promise<Found | null> }>
> = {
  machines: { one: 'machine', find: async (id, options) => found(await MachineRow.findByPk(id, options), ({ number }) => number, id) },
  kit: { one: 'piece of kit', find: async (id, options) => found(await KitRow.findByPk(id, options), ({ name }) => name) },
  limits: {
    one: 'limit sheet',
    find: async (id, options) => found(await LimitSheetRow.findByPk(id, options), ({ name }) => `Limit sheet “${name}”`),
  },
  surveys: {
    one: 'survey',
    find: async (id, options) => {
      const row = ended(await SurveyRow.findByPk(id, options));
      return found(row, ({ title }) => `Survey “${title}”`, row?.machineId);
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
    const known = await find(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!known) throw notFound(one);
    const { row, called, machineId } = known;
    if (!!row.archived === away) return archivedOf(row);
    await row.update({ archived: away ? { at: new Date().toISOString(), by } : null }, { transaction });
    const text = `${called} ${away ? 'put in the archive' : 'restored from the archive'}`;
    const what = ONE_OF[kind];
    await writeLog({ machineId, by, what, text, thing: what, thingId: id }, transaction);
    return archivedOf(row);
  });
}
