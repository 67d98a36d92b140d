import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import type { MadeToken, Token } from '@isometra/contract';
import { notFound } from '../api/errors.js';
import { TokenRow } from '../db/archiveModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

const printOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
const shown = ({ id, name, by, at }: TokenRow): Token => ({ id, name, by, at: at.toISOString() });

/** Tokens that were given out, oldest first. */
export const listTokens = async (): Promise<Token[]> => (await TokenRow.findAll({ order: [['at', 'ASC']] })).map(shown);

/** A new token: it is told once, and only its SHA-256 kept. */
export function addToken(sequelize: Sequelize, name: string, by: string): Promise<MadeToken> {
  const token = randomBytes(24).toString('base64url');
  return inOneGo(sequelize, async (transaction) => {
    const row = await TokenRow.create({ id: randomUUID(), secret: printOf(token), name, by, at: new Date() }, { transaction });
    await writeLog({ machineId: null, by, what: 'device', text: `Token for ${name} made: it may read` }, transaction);
    return { ...shown(row), token };
  });
}

/** Nobody reads with that token any more. */
export function revokeToken(sequelize: Sequelize, id: string, by: string): Promise<Token[]> {
  return inOneGo(sequelize, async (transaction) => {
    const row = await TokenRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound('token');
    await row.destroy({ transaction });
    await writeLog({ machineId: null, by, what: 'device', text: `Token for ${row.name} revoked` }, transaction);
  }).then(listTokens);
}

/** Whether such a token was given out and not revoked. */
export const isToken = async (token: string): Promise<boolean> => (await TokenRow.count({ where: { secret: printOf(token) } })) > 0;
