import type { Sequelize, Transaction } from 'sequelize';
import type { Care, KitItem } from '@isometra/contract';
import { kitFaults, leavesMoved, type Drawer } from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { AttachmentRow, KitRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { archivedOf } from './archive.js';
import { differencesOf } from './differences.js';
import { writeLog } from './log.js';
import type { Solver } from './solver.js';
import { keepState, type Version } from './states.js';

const shown = (row: KitRow, photos: string[]): KitItem => ({
  id: row.id,
  kind: row.kind as KitItem['kind'],
  name: row.name,
  data: row.data,
  care: (row.care ?? {}) as Care,
  photos,
  version: row.version,
  ...archivedOf(row),
});

function refuseFaulty(item: KitItem): void {
  const faults = kitFaults(item);
  if (faults.length) throw new ApiError(400, faults);
}

const stateOf = ({ version, kind, name, data, care }: KitRow): Version => ({ version, state: { kind, name, data, care: care ?? {} } });
const columns = ({ name, data, care }: KitItem) => ({ name, data: { ...data }, care: { ...care }, dueOn: care.due ?? null });

/** Ids of the photographs of kit, oldest first, without their bytes. */
async function photosOf(kitItemId?: string): Promise<ReadonlyMap<string, string[]>> {
  const rows = await AttachmentRow.findAll({
    attributes: ['id', 'kitItemId'],
    ...(kitItemId && { where: { kitItemId } }),
    order: [['at', 'ASC']],
  });
  const photos = new Map<string, string[]>();
  for (const row of rows) photos.set(row.kitItemId, [...(photos.get(row.kitItemId) ?? []), row.id]);
  return photos;
}

export async function listKit(): Promise<KitItem[]> {
  const rows = await KitRow.findAll({
    order: [
      ['kind', 'ASC'],
      ['name', 'ASC'],
    ],
  });
  const photos = await photosOf();
  return rows.map((row) => shown(row, photos.get(row.id) ?? []));
}

async function getKit(id: string): Promise<KitItem> {
  const row = await KitRow.findByPk(id);
  if (!row) throw notFound('piece of kit');
  return shown(row, (await photosOf(id)).get(id) ?? []);
}

/** What the drawers hold, all of them. */
export async function shimStock(): Promise<unknown[] | undefined> {
  const rows = (await KitRow.findAll({ where: { kind: 'shim-stock' } })).filter(({ archived }) => !archived);
  return rows.length ? rows.flatMap((row) => row.data['stock'] as unknown[]) : undefined;
}

/** Add a piece of kit. Safe to send twice, also at the same moment. */
export async function addKit(sequelize: Sequelize, item: KitItem, by: string, given?: Transaction): Promise<KitItem> {
  refuseFaulty(item);
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        const row = await KitRow.create({ id: item.id, kind: item.kind, ...columns(item), version: 1 }, { transaction });
        await writeLog({ machineId: null, by, what: 'kit', text: `${item.name} added`, thing: 'kit', thingId: item.id }, transaction);
        await keepState({ what: 'kit', id: item.id, by }, stateOf(row), null, transaction);
        return shown(row, []);
      },
      given,
    );
  } catch (error) {
    if (brokenRule(error) !== 'PRIMARY' || given) throw error;
    return getKit(item.id);
  }
}

/** Change a piece of kit; a stale version gets 409 with the newer row. */
export async function changeKit(sequelize: Sequelize, item: KitItem, by: string): Promise<KitItem> {
  refuseFaulty(item);
  const { id, version } = item;
  await inOneGo(sequelize, async (transaction) => {
    const before = await KitRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!before) throw notFound('piece of kit');
    const differences = differencesOf(
      { name: before.name, ...before.data, ...before.care },
      { name: item.name, ...item.data, ...item.care },
    );
    if (before.version !== version) {
      if (differences.length) throw stale(shown(before, []));
      return;
    }
    const then = stateOf(before);
    await before.update({ ...columns(item), version: version + 1 }, { transaction });
    if (differences.length === 0) return;
    await keepState({ what: 'kit', id, by }, stateOf(before), then, transaction);
    await writeLog(
      { machineId: null, by, what: 'kit', text: `${item.name}: ${differences.join('; ')}`, thing: 'kit', thingId: item.id },
      transaction,
    );
  });
  return getKit(id);
}

/** Leaves are taken from the drawers when a move with them is done, and put back when it is not after all. */
export async function countLeaves(leaves: readonly number[], by: 1 | -1, who: string, transaction: Transaction): Promise<void> {
  if (leaves.length === 0) return;
  const all = await KitRow.findAll({
    where: { kind: 'shim-stock' },
    order: [['name', 'ASC']],
    transaction,
    lock: transaction.LOCK.UPDATE,
  });
  const rows = all.filter(({ archived }) => !archived);
  const drawers = rows.map((row): Drawer => ({ id: row.id, stock: row.data['stock'] as Drawer['stock'] }));
  for (const { id, stock } of leavesMoved(drawers, leaves, by)) {
    const row = rows.find((entry) => entry.id === id);
    if (!row) continue;
    const then = stateOf(row);
    await row.update({ data: { ...row.data, stock }, version: row.version + 1 }, { transaction });
    await keepState({ what: 'kit', id, by: who }, stateOf(row), then, transaction);
  }
}

const MIMES = ['image/jpeg', 'image/png'];
const MOST_BYTES = 4_000_000;
/** Photographs of one piece of kit. */
const MOST_PHOTOS = 20;

interface NewPhoto {
  readonly id: string;
  readonly mime: string;
  readonly bytes: unknown;
  readonly by: string;
}

/** Keep a photograph of a piece of kit: upright, and only what really is a picture. Safe to send twice. */
export async function addPhoto(
  sequelize: Sequelize,
  solver: Solver,
  kitItemId: string,
  { id, mime, bytes, by }: NewPhoto,
): Promise<KitItem> {
  if (!MIMES.includes(mime))
    throw new ApiError(400, [{ path: 'photo', message: `"${mime}" is not a kind of picture that is kept`, example: MIMES.join(', ') }]);
  if (!Buffer.isBuffer(bytes) || bytes.length === 0)
    throw new ApiError(400, [{ path: 'photo', message: 'is empty', example: 'a photograph' }]);
  if (bytes.length > MOST_BYTES) throw new ApiError(413, [{ path: 'photo', message: 'is larger than 4 MB', example: 'a smaller picture' }]);
  const { name, photos } = await getKit(kitItemId);
  if (photos.includes(id)) return getKit(kitItemId);
  if (photos.length >= MOST_PHOTOS)
    throw new ApiError(
      409,
      [
        {
          path: 'photo',
          message: `there are ${MOST_PHOTOS} photographs of it already: take one off first`,
          example: 'one photograph fewer',
        },
      ],
      undefined,
      'too-many',
    );
  const { type, bytes: clean } = await solver.cleaned(bytes);
  try {
    await inOneGo(sequelize, async (transaction) => {
      await AttachmentRow.create({ id, kitItemId, mime: `image/${type}`, bytes: Buffer.from(clean), by, at: new Date() }, { transaction });
      await writeLog(
        { machineId: null, by, what: 'kit', text: `${name}: photograph added`, thing: 'kit', thingId: kitItemId },
        transaction,
      );
    });
  } catch (error) {
    if (brokenRule(error) !== 'PRIMARY') throw error;
  }
  return getKit(kitItemId);
}

/** Take a photograph off a piece of kit. Safe to send twice. */
export async function removePhoto(sequelize: Sequelize, kitItemId: string, id: string, by: string): Promise<KitItem> {
  const { name } = await getKit(kitItemId);
  await inOneGo(sequelize, async (transaction) => {
    const gone = await AttachmentRow.destroy({ where: { id, kitItemId }, transaction });
    if (gone)
      await writeLog(
        { machineId: null, by, what: 'kit', text: `${name}: photograph taken off`, thing: 'kit', thingId: kitItemId },
        transaction,
      );
  });
  return getKit(kitItemId);
}

export async function getPhoto(id: string): Promise<{ readonly mime: string; readonly bytes: Buffer }> {
  const row = await AttachmentRow.findByPk(id);
  if (!row) throw notFound('photograph');
  return { mime: row.mime, bytes: row.bytes };
}
