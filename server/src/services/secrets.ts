import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { CreationAttributes, Model, ModelStatic, Sequelize } from 'sequelize';
import type { GivenOut, LogKind } from '@isometra/contract';
import { notFound } from '../api/errors.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

/** A secret that was given out, as it is kept: its SHA-256 alone. */
interface SecretRow extends Model {
  id: string;
  secret: string;
  name: string;
  by: string;
  at: Date;
}

const printOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
const shown = ({ id, name, by, at }: SecretRow): GivenOut => ({ id, name, by, at: at.toISOString() });

/**
 * Secrets that are given out one by one: each is told once, when it is made, and can be revoked.
 *
 * @param called what one is called in an error: "token". @param told what the log says of one, by its name.
 */
export function secretsIn<Row extends SecretRow>(
  model: ModelStatic<Row>,
  {
    called,
    what,
    made,
    revoked,
  }: Readonly<Record<'called', string>> & {
    readonly what: LogKind;
    readonly made: (name: string) => string;
    readonly revoked: (name: string) => string;
  },
) {
  /** Those that were given out, oldest first. */
  const list = async (): Promise<GivenOut[]> => (await model.findAll({ order: [['at', 'ASC']] })).map(shown);
  return {
    list,
    /** A new one, with its secret. */
    add: (sequelize: Sequelize, name: string, by: string): Promise<GivenOut & { readonly secret: string }> => {
      const secret = randomBytes(24).toString('base64url');
      return inOneGo(sequelize, async (transaction) => {
        const row = { id: randomUUID(), secret: printOf(secret), name, by, at: new Date() } as unknown as CreationAttributes<Row>;
        const kept = await model.create(row, { transaction });
        await writeLog({ machineId: null, by, what, text: made(name) }, transaction);
        return { ...shown(kept), secret };
      });
    },
    /** Nobody comes in with it any more. */
    revoke: (sequelize: Sequelize, id: string, by: string): Promise<GivenOut[]> =>
      inOneGo(sequelize, async (transaction) => {
        const row = await model.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (!row) throw notFound(called);
        await row.destroy({ transaction });
        await writeLog({ machineId: null, by, what, text: revoked(row.name) }, transaction);
      }).then(list),
    /** Whether such a secret was given out and not revoked. */
    knows: async (secret: string): Promise<boolean> => (await model.findOne({ where: { secret: printOf(secret) } as never })) !== null,
  };
}
