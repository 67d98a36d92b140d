import type { Transaction } from 'sequelize';
import { PicturePartRow } from '../db/scrapingModels.js';
import { EarlierStateRow } from '../db/shopModels.js';
import { markSeen, type Content } from './files.js';
import type { OpenArchive } from './reading.js';
import { KEEPING, photoPath, picturePath, type List, type ThingKind } from './things.js';

/** Bytes of a photograph that are written at once. */
const PART = 1_000_000;

/** From where photographs come, and into what is written. */
interface Into {
  readonly archive: OpenArchive;
  readonly transaction: Transaction;
}

type Rows = Content[];

/** What a piece of an archive asks to be written. */
export interface Writes {
  readonly heads: Rows;
  readonly changed: { readonly key: string; readonly values: Content }[];
  readonly lists: Map<List, Rows>;
  readonly states: Rows;
  readonly marks: { readonly kind: string; readonly name: string; readonly hash: string }[];
}

/** Write what a piece asks for. */
export async function writePiece(kind: ThingKind, { heads, changed, lists, states, marks }: Writes, into: Into): Promise<void> {
  const { transaction } = into;
  const { model, key: keyColumn } = KEEPING[kind];
  if (heads.length) await model.bulkCreate(heads as never[], { transaction });
  for (const { key, values } of changed) await model.update(values, { where: { [keyColumn]: key }, transaction });
  if (kind === 'pictures') for (const row of heads) await writePicture(String(row['hash']), String(row['type']), into);
  for (const [list, rows] of lists) await writeList(list, rows, into);
  if (states.length) await EarlierStateRow.bulkCreate(states as never[], { transaction });
  for (let i = 0; i < marks.length; i += 1000) await markSeen(marks.slice(i, i + 1000), transaction);
}

async function writeList(list: List, rows: readonly Content[], { archive, transaction }: Into): Promise<void> {
  if (rows.length === 0) return;
  if (list.field !== 'photos') {
    for (let i = 0; i < rows.length; i += 500) await list.model.bulkCreate(rows.slice(i, i + 500) as never[], { transaction });
    return;
  }
  for (const row of rows) {
    const bytes = await archive.bytes(photoPath(String(row['kitItemId']), row));
    await list.model.create({ ...row, bytes } as never, { transaction });
  }
}

async function writePicture(hash: string, type: string, { archive, transaction }: Into): Promise<void> {
  const bytes = await archive.bytes(picturePath(hash, type));
  for (let part = 0; part * PART < bytes.length; part++)
    await PicturePartRow.create({ hash, part, bytes: bytes.subarray(part * PART, (part + 1) * PART) }, { transaction });
}
