import { Op, type Sequelize } from 'sequelize';
import { STARTING_SHEETS, startingSheet, type LimitSheet, type StartingSheet } from '@isometra/core';
import { contentOf, type Pinned, type StoredLimitSheet } from '@isometra/contract';
import { ApiError, notFound, stale } from '../api/errors.js';
import { LimitSheetRow, LimitVersionRow } from '../db/models.js';

const shown = (row: LimitVersionRow): StoredLimitSheet => ({
  id: row.limitSheetId,
  content: row.content as unknown as LimitSheet,
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
  return sheets.flatMap(({ id }) => rows.filter((row) => row.limitSheetId === id).map(shown));
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

const versionOf = (limitSheetId: string, version: number) => LimitVersionRow.findOne({ where: { limitSheetId, version } });

/** Add a sheet of the shop's own. Safe to send twice. */
export async function addLimitSheet(sequelize: Sequelize, write: LimitWrite): Promise<StoredLimitSheet> {
  const content = readContent(write.content);
  const known = await versionOf(write.id, 1);
  if (known) return shown(known);
  const row = await sequelize.transaction(async (transaction) => {
    await LimitSheetRow.create({ id: write.id, name: content.name, version: 1 }, { transaction });
    return LimitVersionRow.create(
      { id: crypto.randomUUID(), limitSheetId: write.id, version: 1, content: { ...content }, by: write.by, at: new Date() },
      { transaction },
    );
  });
  return shown(row);
}

/** Change a sheet: a new version of it. A stale version gets 409 with the newest one. Safe to send twice. */
export async function changeLimitSheet(sequelize: Sequelize, write: LimitWrite): Promise<StoredLimitSheet> {
  const content = readContent(write.content);
  const next = write.version + 1;
  const row = await sequelize.transaction(async (transaction) => {
    const [changed] = await LimitSheetRow.update(
      { name: content.name, version: next },
      { where: { id: write.id, version: write.version }, transaction },
    );
    if (!changed) return undefined;
    return LimitVersionRow.create(
      { id: crypto.randomUUID(), limitSheetId: write.id, version: next, content: { ...content }, by: write.by, at: new Date() },
      { transaction },
    );
  });
  if (row) return shown(row);
  const [newest] = await listVersions(write.id);
  if (JSON.stringify(newest.content) !== JSON.stringify(content)) throw stale(newest);
  return newest;
}

export const isStarting = (sheet: string): sheet is StartingSheet => STARTING_SHEETS.some((entry) => entry.id === sheet);

/** The row columns of a pinned sheet, or the fault that there is no such version. */
export async function pinColumns({ sheet, version }: Pinned): Promise<{ startingLimits: string | null; limitVersionId: string | null }> {
  if (isStarting(sheet)) return { startingLimits: sheet, limitVersionId: null };
  const row = await versionOf(sheet, version);
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
): Promise<ReadonlyMap<string, { readonly limits: Pinned; readonly judge: LimitSheet }>> {
  const ids = surveys.flatMap(({ limitVersionId }) => (limitVersionId ? [limitVersionId] : []));
  const rows = ids.length ? await LimitVersionRow.findAll({ where: { id: { [Op.in]: ids } } }) : [];
  return new Map(
    surveys.map(({ id, limitVersionId, startingLimits, usual }) => {
      const row = rows.find((entry) => entry.id === limitVersionId);
      if (row) return [id, { limits: { sheet: row.limitSheetId, version: row.version }, judge: row.content as unknown as LimitSheet }];
      const sheet = startingLimits && isStarting(startingLimits) ? startingLimits : usual;
      return [id, { limits: { sheet, version: 1 }, judge: startingSheet(sheet) }];
    }),
  );
}
