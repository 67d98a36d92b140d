import { createHash } from 'node:crypto';
import type { Sequelize, Transaction } from 'sequelize';
import type { StoredPicture } from '@isometra/contract';
import { ApiError, notFound } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { PicturePartRow, PictureRow } from '../db/scrapingModels.js';
import { inOneGo } from '../db/transactions.js';
import type { Solver } from './solver.js';

/** Bytes that are written at once: every server of the kind takes so many, a replicated one too. */
const PART = 1_000_000;

const shown = ({ hash, type, width, height, size }: PictureRow): StoredPicture => ({
  hash,
  type: type as StoredPicture['type'],
  width,
  height,
  size,
});

const partsOf = (bytes: Buffer): Buffer[] =>
  Array.from({ length: Math.ceil(bytes.length / PART) }, (_, i) => bytes.subarray(i * PART, (i + 1) * PART));

/** Write a picture that is clean. The same one twice, also at the same moment, is kept once. */
export async function keepPicture(
  sequelize: Sequelize,
  { bytes, by, ...facts }: Pick<StoredPicture, 'type' | 'width' | 'height'> & { readonly bytes: Buffer; readonly by: string },
  given?: Transaction,
): Promise<StoredPicture> {
  const hash = createHash('sha256').update(bytes).digest('hex');
  const known = await PictureRow.findByPk(hash, { ...(given && { transaction: given }) });
  if (known) return shown(known);
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        const row = await PictureRow.create({ hash, ...facts, size: bytes.length, by, at: new Date() }, { transaction });
        for (const [part, piece] of partsOf(bytes).entries()) await PicturePartRow.create({ hash, part, bytes: piece }, { transaction });
        return shown(row);
      },
      given,
    );
  } catch (error) {
    const other = brokenRule(error) === 'PRIMARY' ? await PictureRow.findByPk(hash) : null;
    if (!other) throw error;
    return shown(other);
  }
}

/**
 * Keep a picture by what is in it: told by its content, turned the way it was held, without what the camera wrote beside it.
 * Safe to send twice.
 */
export async function addPicture(sequelize: Sequelize, solver: Solver, raw: unknown, by: string): Promise<StoredPicture> {
  if (!Buffer.isBuffer(raw) || raw.length === 0)
    throw new ApiError(400, [{ path: 'photo', message: 'is empty', example: 'a PNG or JPEG photograph' }]);
  const { type, width, height, bytes } = await solver.cleaned(raw);
  return keepPicture(sequelize, { type, width, height, bytes: Buffer.from(bytes), by });
}

export async function getPicture(hash: string): Promise<{ readonly mime: string; readonly bytes: Buffer }> {
  const row = /^[0-9a-f]{64}$/.test(hash) ? await PictureRow.findByPk(hash) : null;
  if (!row) throw notFound('picture');
  const parts = await PicturePartRow.findAll({ where: { hash }, order: [['part', 'ASC']] });
  return { mime: `image/${row.type}`, bytes: Buffer.concat(parts.map(({ bytes }) => bytes)) };
}
