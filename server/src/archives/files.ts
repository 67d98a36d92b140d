import { createHash } from 'node:crypto';
import { Op, QueryTypes, type Model, type Transaction } from 'sequelize';
import { groupedBy } from '@isometra/work';
import { SeenRow } from '../db/archiveModels.js';
import { EarlierStateRow } from '../db/shopModels.js';
import { KEEPING, pathOf, type Keeping, type List, type ThingKind } from './things.js';

/** What stands in the file of a thing. */
export type Content = Readonly<Record<string, unknown>>;

/** A thing as its file has it. */
export interface ThingFile {
  readonly kind: ThingKind;
  readonly key: string;
  readonly path: string;
  readonly content: Content;
}

export const sha256 = (data: string | Uint8Array): string => createHash('sha256').update(data).digest('hex');

/** A thing as JSON text: the same thing gives the same bytes. */
export const textOf = (content: Content): string => `${JSON.stringify(content, null, 2)}\n`;

const plain = (value: unknown): unknown => (value instanceof Date ? value.toISOString() : (value ?? null));

const picked = (row: Model, columns: readonly string[]): Content =>
  Object.fromEntries(columns.map((column) => [column, plain(row.get(column))]));

/** The part of a file that can be changed: neither what was added to it nor what is known of its earlier states. */
export function headOf(kind: ThingKind, content: Content): Content {
  return Object.fromEntries(KEEPING[kind].columns.map((column) => [column, content[column]]));
}

/** Versions of a limit sheet, as its file has them. */
export const versionsOf = (content: Content): readonly Content[] => content['versions'] as readonly Content[];

/** The version of a limit sheet that counts. */
export const newestOf = (content: Content): Content | undefined =>
  versionsOf(content).find(({ version }) => version === content['version']);

/** The fingerprint of the state that a thing is in; a limit sheet is in another one with each version. */
export const stateHash = (kind: ThingKind, content: Content): string =>
  sha256(JSON.stringify([headOf(kind, content), ...(kind === 'limits' ? [newestOf(content)?.['id'] ?? null] : [])]));

async function listed(list: List, keys: readonly string[], transaction: Transaction): Promise<ReadonlyMap<string, Content[]>> {
  const { model, foreign, columns, order } = list;
  const rows = await model.findAll({ where: { [foreign]: { [Op.in]: [...keys] } }, attributes: [foreign, ...columns], order, transaction });
  return new Map(
    [...groupedBy(rows, (row) => String(row.get(foreign)))].map(([key, own]) => [key, own.map((row) => picked(row, columns))]),
  );
}

async function earlier(
  { kept }: Keeping,
  keys: readonly string[],
  transaction: Transaction,
): Promise<ReadonlyMap<string, Content[]> | undefined> {
  if (!kept) return undefined;
  const ids = new Map(keys.flatMap((key) => (kept.idOf(key) === null ? [] : [[kept.idOf(key) as string, key] as const])));
  const rows = await EarlierStateRow.findAll({
    where: { what: kept.what, thingId: { [Op.in]: [...ids.keys()] } },
    order: [['version', 'ASC']],
    transaction,
  });
  return new Map(
    [...groupedBy(rows, ({ thingId }) => ids.get(thingId) as string)].map(([key, own]) => [
      key,
      own.map((row) => picked(row, ['version', 'state', 'by', 'at'])),
    ]),
  );
}

async function seen(kind: ThingKind, keys: readonly string[], transaction: Transaction): Promise<ReadonlyMap<string, SeenRow[]>> {
  const rows = await SeenRow.findAll({ where: { kind, name: { [Op.in]: [...keys] } }, order: [['hash', 'ASC']], transaction });
  return groupedBy(rows, ({ name }) => name);
}

/** To which survey rounds belong: their row names the rung alone. */
async function surveysOf(keys: readonly string[], transaction: Transaction): Promise<ReadonlyMap<string, string>> {
  if (keys.length === 0) return new Map();
  const rows = await SeenRow.sequelize!.query<{ id: string; surveyId: string }>(
    'SELECT r.id, c.surveyId FROM rounds r JOIN checks c ON c.id = r.checkId WHERE r.id IN (:keys)',
    { replacements: { keys: [...keys] }, type: QueryTypes.SELECT, transaction },
  );
  return new Map(rows.map(({ id, surveyId }) => [id, surveyId]));
}

/** What of a file follows its own columns, in the order in which they stand there. */
function whole(kind: ThingKind, head: Content, surveyId: string | undefined): Content {
  if (kind !== 'rounds') return head;
  const { id, ...others } = head;
  return { id, surveyId, ...others };
}

/** Things as their files have them, in the order of their keys. Those that are not there are left out. @param lock nobody else changes them meanwhile. */
export async function readThings(
  kind: ThingKind,
  keys: readonly string[],
  transaction: Transaction,
  { lock = false } = {},
): Promise<ThingFile[]> {
  if (keys.length === 0) return [];
  const keeping = KEEPING[kind];
  const { model, key, columns, lists, changes } = keeping;
  // One after another: a transaction has one connection.
  const rows = await model.findAll({ where: { [key]: { [Op.in]: [...keys] } }, order: [[key, 'ASC']], transaction, lock });
  const inLists: [List, ReadonlyMap<string, Content[]>][] = [];
  for (const list of lists) inLists.push([list, await listed(list, keys, transaction)]);
  const states = await earlier(keeping, keys, transaction);
  const known = changes ? await seen(kind, keys, transaction) : undefined;
  const surveys = kind === 'rounds' ? await surveysOf(keys, transaction) : undefined;
  return rows.map((row) => {
    const name = String(row.get(key));
    const head = picked(row, columns);
    const lists = Object.fromEntries(inLists.map(([{ field }, all]) => [field, all.get(name) ?? []]));
    const now = stateHash(kind, { ...head, ...lists });
    const content = {
      ...whole(kind, head, surveys?.get(name)),
      ...(states && { earlier: states.get(name) ?? [] }),
      ...(known && { seen: (known.get(name) ?? []).map(({ hash }) => hash).filter((hash) => hash !== now) }),
      ...lists,
    };
    return { kind, key: name, path: pathOf(kind, name), content };
  });
}

/** Remember that states of things were seen outside this shop. */
export async function markSeen(
  marks: readonly { readonly kind: string; readonly name: string; readonly hash: string }[],
  transaction?: Transaction,
): Promise<void> {
  if (marks.length) await SeenRow.bulkCreate([...marks], { ignoreDuplicates: true, ...(transaction && { transaction }) });
}
