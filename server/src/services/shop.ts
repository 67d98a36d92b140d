import type { Sequelize } from 'sequelize';
import type { Shop } from '@isometra/contract';
import { SettingRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

const ZONE = 'time-zone';

/** What is settled for the whole shop. */
export async function getShop(): Promise<Shop> {
  const row = await SettingRow.findByPk(ZONE);
  return { timeZone: row?.value ?? null, chosenBy: row?.by ?? null };
}

/** The time zone of the shop; null until a browser has told it. */
export const shopZone = async (): Promise<string | null> => (await getShop()).timeZone;

/** Take the zone of the first browser that comes: it counts until somebody chooses one. Later browsers change nothing. */
export async function takeFirstZone(timeZone: string): Promise<Shop> {
  await SettingRow.bulkCreate([{ name: ZONE, value: timeZone, by: null, at: new Date() }], { ignoreDuplicates: true });
  return getShop();
}

/** Choose the zone of the shop. */
export function chooseZone(sequelize: Sequelize, timeZone: string, by: string): Promise<Shop> {
  return inOneGo(sequelize, async (transaction) => {
    const before = await SettingRow.findByPk(ZONE, { transaction, lock: transaction.LOCK.UPDATE });
    await SettingRow.upsert({ name: ZONE, value: timeZone, by, at: new Date() }, { transaction });
    const was = before && before.value !== timeZone ? `, was ${before.value}` : '';
    await writeLog({ machineId: null, by, what: 'shop', text: `Time zone of the shop: ${timeZone}${was}` }, transaction);
    return { timeZone, chosenBy: by };
  });
}
