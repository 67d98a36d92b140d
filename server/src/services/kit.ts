import type { Transaction } from 'sequelize';
import { kitFaults, type KitItem } from '@isometra/contract';
import { KitRow } from '../db/models.js';
import { ApiError, notFound, stale } from '../api/errors.js';

const shown = ({ id, kind, name, data, version }: KitRow): KitItem => ({ id, kind: kind as KitItem['kind'], name, data, version });

function refuseFaulty(item: KitItem): void {
  const faults = kitFaults(item);
  if (faults.length) throw new ApiError(400, faults);
}

export async function listKit(): Promise<KitItem[]> {
  return (
    await KitRow.findAll({
      order: [
        ['kind', 'ASC'],
        ['name', 'ASC'],
      ],
    })
  ).map(shown);
}

/** Add a piece of kit. Safe to send twice. */
export async function addKit(item: KitItem, transaction?: Transaction): Promise<KitItem> {
  refuseFaulty(item);
  const known = await KitRow.findByPk(item.id, { transaction });
  if (known) return shown(known);
  return shown(await KitRow.create({ ...item, data: item.data as Record<string, unknown>, version: 1 }, { transaction }));
}

/** Change a piece of kit; a stale version gets 409 with the newer row. */
export async function changeKit(item: KitItem): Promise<KitItem> {
  refuseFaulty(item);
  const { id, name, data, version } = item;
  const [changed] = await KitRow.update({ name, data: data as Record<string, unknown>, version: version + 1 }, { where: { id, version } });
  const row = await KitRow.findByPk(id);
  if (!row) throw notFound('piece of kit');
  const now = shown(row);
  if (!changed && (JSON.stringify(now.data) !== JSON.stringify(data) || now.name !== name)) throw stale(now);
  return now;
}
