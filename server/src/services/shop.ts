import type { Sequelize, Transaction } from 'sequelize';
import {
  SHOP_ID,
  shopCardSchema,
  storedShopCardSchema,
  type Shop,
  type ShopCard,
  type ShopCardWrite,
  type StoredShopCard,
} from '@isometra/contract';
import { ApiError, stale } from '../api/errors.js';
import { SettingRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { differencesOf } from './differences.js';
import { writeLog } from './log.js';
import { pictureFault } from './pictureFaults.js';
import { keepState } from './states.js';

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

const CARD = 'card';
const NOTHING_TOLD: StoredShopCard = { card: {}, mark: null, version: 0 };

const cardIn = (row: SettingRow | null): StoredShopCard => (row ? storedShopCardSchema.parse(JSON.parse(row.value)) : NOTHING_TOLD);

/** What is told of the shop on its page; version 0 where nobody has told anything. */
export const getShopCard = async (): Promise<StoredShopCard> => cardIn(await SettingRow.findByPk(CARD));

/** The page of the shop as it is read: as if nobody had told anything where it cannot be. */
export async function readShopCard(): Promise<Partial<ShopCard>> {
  return shopCardSchema.safeParse((await getShopCard()).card).data ?? {};
}

/** Tell the page of the shop anew; a stale version gets 409 with what stands now. */
export function changeShopCard(sequelize: Sequelize, { by, ...sent }: ShopCardWrite, given?: Transaction): Promise<StoredShopCard> {
  const write = async (transaction: Transaction): Promise<StoredShopCard> => {
    const row = await SettingRow.findByPk(CARD, { transaction, lock: transaction.LOCK.UPDATE });
    const before = cardIn(row);
    if (differencesOf({ ...before, version: 0 }, { ...sent, version: 0 }).length === 0) return before;
    if (before.version !== sent.version) throw stale(before);
    const fault = sent.mark === null ? undefined : await pictureFault([{ hash: sent.mark }], transaction);
    if (fault) throw new ApiError(400, [{ ...fault, path: 'mark' }]);
    const now = { card: sent.card, mark: sent.mark, version: before.version + 1 };
    await SettingRow.upsert({ name: CARD, value: JSON.stringify(now), by, at: new Date() }, { transaction });
    const state = ({ version, card, mark }: StoredShopCard) => ({ version, state: { ...card, ...(mark && { mark }) } });
    await keepState({ what: 'shops', id: SHOP_ID, by }, state(now), before.version === 0 ? null : state(before), transaction);
    await writeLog({ machineId: null, by, what: 'shop', text: 'The page of the shop was changed' }, transaction);
    return now;
  };
  return inOneGo(sequelize, write, given);
}
