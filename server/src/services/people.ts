import { isDeepStrictEqual } from 'node:util';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { WEEKDAYS, type ListedPerson, type Person, type Working } from '@isometra/contract';
import { ApiError } from '../api/errors.js';
import { fromJson } from '../db/columns.js';
import { PersonRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

/** Initials that were a typing mistake, with whose they were meant to be. */
export async function typingMistakes(): Promise<ReadonlyMap<string, string>> {
  const rows = await PersonRow.findAll({ raw: true });
  return new Map(rows.flatMap(({ initials, meant }) => (meant === null ? [] : [[initials, meant] as const])));
}

/** All initials under which something of a person was written: their own, and typing mistakes for them. */
export async function writtenAs(initials: string): Promise<readonly string[]> {
  return [initials, ...[...(await typingMistakes())].flatMap(([typed, meant]) => (meant === initials ? [typed] : []))];
}

/** A value as it is told: what was written under mistyped initials was written by whom they were meant for. What is kept stays. */
export function putRight<T>(value: T, mistakes: ReadonlyMap<string, string>): T {
  if (mistakes.size === 0) return value;
  const told = (key: string, part: unknown): unknown =>
    (key === 'by' || key === 'chosenBy') && typeof part === 'string' ? (mistakes.get(part) ?? part) : part;
  return JSON.parse(JSON.stringify(value, told)) as T;
}

/** By whom an entry of the log was written, typing mistakes put right, and what that is read from. */
export const WRITTEN_BY = 'COALESCE(p.meant, l.`by`)';
export const FROM_LOG = 'FROM log_entries l LEFT JOIN people p ON p.initials = l.`by`';

const SEEN = "SELECT `by`, COUNT(*) AS entries FROM log_entries WHERE `by` NOT IN ('', '?') GROUP BY `by`";

/** Everybody who works in the shop, by initials: those who were added, and initials that were only used. */
export async function listPeople(sequelize: Sequelize): Promise<ListedPerson[]> {
  const [rows, seen] = await Promise.all([
    PersonRow.findAll({ raw: true }),
    sequelize.query<{ by: string; entries: number }>(SEEN, { type: QueryTypes.SELECT }),
  ]);
  const entries = new Map(seen.map((row) => [row.by, Number(row.entries)]));
  const added = rows.map(({ initials, name, meant, working }) => ({
    ...{ initials, name, meant },
    ...(working !== null && { working: fromJson<Working>(working) }),
    entries: entries.get(initials) ?? 0,
    added: true,
  }));
  const known = new Set(rows.map(({ initials }) => initials));
  const used = [...entries].flatMap(([initials, many]) =>
    known.has(initials) ? [] : [{ initials, name: '', meant: null, entries: many, added: false }],
  );
  return [...added, ...used].sort((one, other) => one.initials.localeCompare(other.initials));
}

function told({ initials, name, meant }: Person, before: PersonRow | null): string {
  if (meant !== null) return `${initials} was a typing mistake for ${meant}`;
  if (before && before.meant !== null) return `${initials} are initials of their own`;
  return before
    ? `${initials} is ${name || 'without a name'}`
    : `${[initials, name].filter(Boolean).join(', ')} added to the people of the shop`;
}

/** When somebody works, in words for the log. */
function hoursTold(initials: string, working: Working | null): string {
  if (!working) return `${initials} works the hours of the shop`;
  const hours = WEEKDAYS.flatMap((day) => (working.hours[day] ? [`${day} ${working.hours[day]} h`] : []));
  const off = working.off.length ? `; away on ${working.off.join(', ')}` : '';
  return `${initials} works ${hours.length ? hours.join(', ') : 'no hours'}${off}`;
}

/** Typing mistakes lead to a person, never to another typing mistake. */
async function refuseTangled({ initials, meant }: Person, transaction: Transaction): Promise<void> {
  if (meant === null) return;
  const other = await PersonRow.findByPk(meant, { transaction });
  if (other?.meant)
    throw new ApiError(400, [{ path: 'meant', message: `is itself a typing mistake for ${other.meant}`, example: other.meant }]);
  const leaning = await PersonRow.findOne({ where: { meant: initials }, transaction });
  if (leaning)
    throw new ApiError(400, [
      {
        path: 'initials',
        message: `are those that ${leaning.initials} was a typing mistake for`,
        example: 'initials nobody else counts as',
      },
    ]);
}

/**
 * Add somebody, name them, or say that initials were a typing mistake for somebody else’s. Nothing that was written is changed: from now on
 * it is told as written by whom it was meant for, and that can be taken back.
 */
export function keepPerson(sequelize: Sequelize, person: Person, by: string): Promise<Person> {
  return inOneGo(sequelize, async (transaction) => {
    const { initials, name, meant } = person;
    const before = await PersonRow.findByPk(initials, { transaction, lock: transaction.LOCK.UPDATE });
    const working = person.working === undefined ? (before?.working ?? null) : person.working;
    const sameHours = isDeepStrictEqual(working, before?.working ?? null);
    if (before && before.name === name && before.meant === meant && sameHours) return { ...person, ...(working && { working }) };
    await refuseTangled(person, transaction);
    await PersonRow.upsert({ initials, name, meant, working }, { transaction });
    await writeLog(
      { machineId: null, by, what: 'shop', text: sameHours || !before ? told(person, before) : hoursTold(initials, working) },
      transaction,
    );
    return { ...person, ...(working && { working }) };
  });
}
