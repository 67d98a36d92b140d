import { createHash, randomBytes, randomInt, randomUUID, timingSafeEqual } from 'node:crypto';
import { argon2id, argon2Verify } from 'hash-wasm';
import type { Sequelize } from 'sequelize';
import type { Device, PairingCode } from '@isometra/contract';
import { ApiError, notFound } from '../api/errors.js';
import { DeviceRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

/** How long a code lets a device in, ms, and how often a wrong one may be tried. */
const LIFE = 10 * 60_000;
const TRIES = 3;
/** How exactly it is known when a device was here last, ms. */
const SEEN_EVERY = 60_000;

/** What a code or a secret is turned into before it is kept: argon2id, 19 MiB, two passes. */
const hashed = (password: string): Promise<string> =>
  argon2id({ password, salt: randomBytes(16), parallelism: 1, iterations: 2, memorySize: 19_456, hashLength: 32, outputType: 'encoded' });

const fingerprint = (secret: string): Buffer => createHash('sha256').update(secret).digest();

interface Known {
  readonly print: Buffer;
  seen: number;
}

/**
 * Phones and tablets of the shop: each is let in once by a code of six digits, and known from then on by a secret of its own. Codes
 * live in memory only; of a secret the argon2id hash is kept.
 */
export class Devices {
  private code: { readonly hash: string; readonly until: number; tries: number } | null = null;
  /** Devices whose secret was checked since the start: the slow hash is worked out once for each. */
  private readonly known = new Map<string, Known>();

  /** @param now the time, ms; specs give one of their own. */
  constructor(
    private readonly sequelize: Sequelize,
    private readonly now: () => number = Date.now,
  ) {}

  /** A new code; one that was given out before lets nobody in any more. */
  async issue(): Promise<PairingCode> {
    const code = String(randomInt(1_000_000)).padStart(6, '0');
    const until = this.now() + LIFE;
    this.code = { hash: await hashed(code), until, tries: TRIES };
    return { code, until: new Date(until).toISOString() };
  }

  /**
   * Let a device in.
   *
   * @returns what it shows from now on: its id and its secret. @throws ApiError for a code that is wrong, too old or used up.
   */
  async pair(typed: string, name: string): Promise<string> {
    const code = this.code;
    if (!code || this.now() > code.until || code.tries <= 0) {
      this.code = null;
      throw refused('There is no code that is still good. Ask for a new one at the machine that Isometra runs on.');
    }
    // Counted before it is looked at: several at once have no more tries than one after the other.
    code.tries -= 1;
    const right = await argon2Verify({ password: typed.replace(/\D/g, ''), hash: code.hash });
    if (!right) throw refused(wrongWords(code.tries));
    if (this.code !== code) throw refused('This code has just been used. Ask for a new one.');
    this.code = null;
    const [id, secret] = [randomUUID(), randomBytes(32).toString('base64url')];
    const at = new Date(this.now());
    const called = name.trim().slice(0, 40) || 'a device';
    const kept = await hashed(secret);
    await inOneGo(this.sequelize, async (transaction) => {
      await DeviceRow.create({ id, name: called, secret: kept, pairedAt: at, seenAt: at }, { transaction });
      await writeLog({ machineId: null, by: '?', what: 'device', text: `${called} was let in` }, transaction);
    });
    this.known.set(id, { print: fingerprint(secret), seen: this.now() });
    return `${id}.${secret}`;
  }

  /** Whether what a device shows is that of one that was let in. */
  async knows(shown: string | undefined): Promise<boolean> {
    const [id, secret] = shown?.split('.') ?? [];
    if (!id || !secret || !/^[0-9a-f-]{36}$/.test(id)) return false;
    const known = this.known.get(id) ?? (await this.checked(id, secret));
    if (!known || !timingSafeEqual(known.print, fingerprint(secret))) return false;
    if (this.now() - known.seen > SEEN_EVERY) {
      known.seen = this.now();
      await DeviceRow.update({ seenAt: new Date(known.seen) }, { where: { id } });
    }
    return true;
  }

  private async checked(id: string, secret: string): Promise<Known | undefined> {
    const row = await DeviceRow.findByPk(id);
    if (!row || !(await argon2Verify({ password: secret, hash: row.secret }))) return undefined;
    const known = { print: fingerprint(secret), seen: 0 };
    // Taken off the list while its secret was being checked, it stays out.
    if ((await DeviceRow.count({ where: { id } })) === 0) return undefined;
    this.known.set(id, known);
    return known;
  }

  /** Devices that are let in, the last one first. */
  async list(): Promise<Device[]> {
    const rows = await DeviceRow.findAll({ order: [['pairedAt', 'DESC']] });
    return rows.map(({ id, name, pairedAt, seenAt }) => ({
      ...{ id, name, pairedAt: pairedAt.toISOString(), seenAt: seenAt.toISOString() },
    }));
  }

  /** A device is let in no more, from its next question on. */
  async revoke(id: string, by: string): Promise<Device[]> {
    await inOneGo(this.sequelize, async (transaction) => {
      const row = await DeviceRow.findByPk(id, { transaction });
      if (!row) throw notFound('device');
      await row.destroy({ transaction });
      await writeLog({ machineId: null, by, what: 'device', text: `${row.name} is let in no more` }, transaction);
    });
    this.known.delete(id);
    return this.list();
  }
}

const refused = (message: string): ApiError => new ApiError(403, [{ path: 'code', message, example: '123456' }], undefined, 'forbidden');

const wrongWords = (left: number): string =>
  left > 0
    ? `This is not the code. ${left === 1 ? 'One more try' : `${left} more tries`}.`
    : 'This is not the code, and it lets nobody in any more. Ask for a new one at the machine that Isometra runs on.';
