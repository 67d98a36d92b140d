import { setTimeout as pause } from 'node:timers/promises';
import { DatabaseError, type Sequelize, type Transaction } from 'sequelize';

/** The database gave way to another transaction: the same again may succeed. */
const GAVE_WAY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);
const TRIES = 6;

/** Whether the database let another transaction go first. */
export const gaveWay = (error: unknown): boolean =>
  error instanceof DatabaseError && GAVE_WAY.has((error.parent as { code?: string }).code ?? '');

/**
 * Do some work in one transaction: all of it stands, or none. It joins the transaction it is given; one of its own it
 * tries again when the database let another one go first.
 */
export async function inOneGo<T>(sequelize: Sequelize, work: (transaction: Transaction) => Promise<T>, given?: Transaction): Promise<T> {
  if (given) return work(given);
  for (let attempt = 1; ; attempt++) {
    try {
      return await sequelize.transaction(work);
    } catch (error) {
      if (attempt >= TRIES || !gaveWay(error)) throw error;
      await pause(Math.random() * 10 * 2 ** attempt);
    }
  }
}
