import { isDeepStrictEqual } from 'node:util';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { STARTING_SHEETS, startingSheet, type LimitSheet, type StartingSheet } from '@isometra/core';
import type { Pinned, StoredLimitSheet } from '@isometra/contract';
import { contentOf } from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { LimitSheetRow, LimitVersionRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { archivedOf } from './archive.js';
import { writeLog } from './log.js';

const shown = (row: LimitVersionRow): StoredLimitSheet => ({
  id: row.limitSheetId,
  content: row.content,
  version: row.version,
  by: row.by,
  at: row.at.toISOString(),
});

/** The newest version of every sheet of the shop's own, by name. */
export async function listLimitSheets(): Promise<StoredLimitSheet[]> {
  const sheets = await LimitSheetRow.findAll({ order: [['name', 'ASC']] });
  if (sheets.length === 0) return [];
  const rows = await LimitVersionRow.findAll({
    where: { [Op.or]: sheets.map(({ id, version }) => ({ limitSheetId: id, version })) },
  });
  return sheets.flatMap((sheet) =>
    rows.filter((row) => row.limitSheetId === sheet.id).map((row) => ({ ...shown(row), ...archivedOf(sheet) })),
  );
}

/** Every version of a sheet, newest first. */
export async function listVersions(id: string): Promise<StoredLimitSheet[]> {
  const rows = await LimitVersionRow.findAll({ where: { limitSheetId: id }, order: [['version', 'DESC']] });
  if (rows.length === 0) throw notFound('limit sheet');
  return rows.map(shown);
}

interface LimitWrite {
  readonly id: string;
  readonly content?: unknown;
  readonly version: number;
  readonly by: string;
}

function readContent(raw: unknown): LimitSheet {
  const { content, faults } = contentOf(raw);
  if (!content) throw new ApiError(400, faults);
  return content;
}

const versionOf = (limitSheetId: string, version: number, transaction?: Transaction) =>
  LimitVersionRow.findOne({ where: { limitSheetId, version }, transaction });

async function keepVersion(
  { id, by }: LimitWrite,
  content: LimitSheet,
  version: number,
  transaction: Transaction,
): Promise<StoredLimitSheet> {
  const row = { id: crypto.randomUUID(), limitSheetId: id, version, content: { ...content }, by, at: new Date() };
  const kept = await LimitVersionRow.create(row, { transaction });
  const text = version === 1 ? `Limit sheet “${content.name}” added` : `Limit sheet “${content.name}” changed: version ${version}`;
  await writeLog({ machineId: null, by, what: 'limits', text, thing: 'limits', thingId: id }, transaction);
  return shown(kept);
}

/** Add a sheet of the shop's own. Safe to send twice, also at the same moment. */
export async function addLimitSheet(sequelize: Sequelize, write: LimitWrite, given?: Transaction): Promise<StoredLimitSheet> {
  const content = readContent(write.content);
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        await LimitSheetRow.create({ id: write.id, name: content.name, version: 1 }, { transaction });
        return keepVersion(write, content, 1, transaction);
      },
      given,
    );
  } catch (error) {
    const known = brokenRule(error) === undefined ? null : await versionOf(write.id, 1, given);
    if (known) return shown(known);
    throw error;
  }
}

/** Change a sheet: a new version of it. A stale version gets 409 with the newest one. Safe to send twice. */
export async function changeLimitSheet(sequelize: Sequelize, write: LimitWrite): Promise<StoredLimitSheet> {
  const content = readContent(write.content);
  const next = write.version + 1;
  const kept = await inOneGo(sequelize, async (transaction) => {
    const [changed] = await LimitSheetRow.update(
      { name: content.name, version: next },
      { where: { id: write.id, version: write.version }, transaction },
    );
    return changed ? keepVersion(write, content, next, transaction) : undefined;
  });
  if (kept) return kept;
  const [newest] = await listVersions(write.id);
  if (!isDeepStrictEqual(newest.content, JSON.parse(JSON.stringify(content)))) throw stale(newest);
  return newest;
}

export const isStarting = (sheet: string): sheet is StartingSheet => STARTING_SHEETS.some((entry) => entry.id === sheet);

/** The row columns of a pinned sheet, or the fault that there is no such version. */
export async function pinColumns(
  { sheet, version }: Pinned,
  transaction?: Transaction,
): Promise<{ startingLimits: string | null; limitVersionId: string | null }> {
  if (isStarting(sheet)) return { startingLimits: sheet, limitVersionId: null };
  const row = await versionOf(sheet, version, transaction);
  if (!row)
    throw new ApiError(400, [
      { path: 'limits.sheet', message: 'no such version of a limit sheet', example: 'a sheet from the list, at its newest version' },
    ]);
  return { startingLimits: null, limitVersionId: row.id };
}

/** The pinned sheet of some surveys, written out, by survey id. */
export async function pinnedSheets(
  surveys: readonly {
    readonly id: string;
    readonly limitVersionId: string | null;
    readonly startingLimits: string | null;
    readonly usual: StartingSheet;
  }[],
  transaction?: Transaction,
): Promise<ReadonlyMap<string, { readonly limits: Pinned; readonly judge: LimitSheet }>> {
  const ids = surveys.flatMap(({ limitVersionId }) => (limitVersionId ? [limitVersionId] : []));
  const rows = ids.length ? await LimitVersionRow.findAll({ where: { id: { [Op.in]: ids } }, transaction }) : [];
  return new Map(
    surveys.map(({ id, limitVersionId, startingLimits, usual }) => {
      const row = rows.find((entry) => entry.id === limitVersionId);
      if (row) return [id, { limits: { sheet: row.limitSheetId, version: row.version }, judge: row.content }];
      const sheet = startingLimits && isStarting(startingLimits) ? startingLimits : usual;
      return [id, { limits: { sheet, version: 1 }, judge: startingSheet(sheet) }];
    }),
  );
}
