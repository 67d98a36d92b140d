import type { Transaction } from 'sequelize';
import { kitFaults, leavesUsed, stockAfter, type Care, type KitItem } from '@isometra/contract';
import { AttachmentRow, KitRow } from '../db/models.js';
import { ApiError, notFound, stale } from '../api/errors.js';

const shown = (row: KitRow, photos: readonly string[]): KitItem => ({
  id: row.id,
  kind: row.kind as KitItem['kind'],
  name: row.name,
  data: row.data,
  care: (row.care ?? {}) as Care,
  photos,
  version: row.version,
});

function refuseFaulty(item: KitItem): void {
  const faults = kitFaults(item);
  if (faults.length) throw new ApiError(400, faults);
}

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

/** Add a piece of kit. Safe to send twice. */
export async function addKit(item: KitItem, transaction?: Transaction): Promise<KitItem> {
  refuseFaulty(item);
  const known = await KitRow.findByPk(item.id, { transaction });
  if (known) return getKit(item.id);
  return shown(await KitRow.create({ id: item.id, kind: item.kind, ...columns(item), version: 1 }, { transaction }), []);
}

/** Change a piece of kit; a stale version gets 409 with the newer row. */
export async function changeKit(item: KitItem): Promise<KitItem> {
  refuseFaulty(item);
  const { id, version } = item;
  const [changed] = await KitRow.update({ ...columns(item), version: version + 1 }, { where: { id, version } });
  const now = await getKit(id);
  const same = JSON.stringify([now.name, now.data, now.care]) === JSON.stringify([item.name, item.data, item.care]);
  if (!changed && !same) throw stale(now);
  return now;
}

/** Leaves are taken from the drawers when a move with them is done, and put back when it is not after all. */
export async function countLeaves(plan: Readonly<Record<string, unknown>>, by: 1 | -1, transaction: Transaction): Promise<void> {
  const leaves = leavesUsed(plan);
  if (leaves.length === 0) return;
  const drawer = await KitRow.findOne({
    where: { kind: 'shim-stock' },
    order: [['name', 'ASC']],
    transaction,
    lock: transaction.LOCK.UPDATE,
  });
  if (!drawer) return;
  const stock = stockAfter(drawer.data['stock'] as Parameters<typeof stockAfter>[0], leaves, by);
  await drawer.update({ data: { ...drawer.data, stock }, version: drawer.version + 1 }, { transaction });
}

const MIMES = ['image/jpeg', 'image/png', 'image/webp'];
const MOST_BYTES = 4_000_000;

/** Keep a photograph of a piece of kit. Safe to send twice. */
export async function addPhoto(kitItemId: string, id: string, mime: string, bytes: unknown, by: string): Promise<KitItem> {
  if (!MIMES.includes(mime))
    throw new ApiError(400, [{ path: 'photo', message: `"${mime}" is not a kind of picture that is kept`, example: MIMES.join(', ') }]);
  if (!Buffer.isBuffer(bytes) || bytes.length === 0)
    throw new ApiError(400, [{ path: 'photo', message: 'is empty', example: 'a photograph' }]);
  if (bytes.length > MOST_BYTES) throw new ApiError(413, [{ path: 'photo', message: 'is larger than 4 MB', example: 'a smaller picture' }]);
  await getKit(kitItemId);
  if (!(await AttachmentRow.findByPk(id, { attributes: ['id'] })))
    await AttachmentRow.create({ id, kitItemId, mime, bytes, by, at: new Date() });
  return getKit(kitItemId);
}

export async function getPhoto(id: string): Promise<{ readonly mime: string; readonly bytes: Buffer }> {
  const row = await AttachmentRow.findByPk(id);
  if (!row) throw notFound('photograph');
  return { mime: row.mime, bytes: row.bytes };
}
