import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { isTakenBack, type LogEntry, type LoggedRound, type LogPage, type LogQuery, type Remark, type RoundHead } from '@isometra/contract';
import { CHECKS } from '@isometra/core';
import { dayBegins, wordsAlone } from '@isometra/work';
import { RemarkRow } from '../db/remarkModel.js';
import { fromJson } from '../db/columns.js';
import { listHeads } from './heads.js';
import { newestOf } from './remarks.js';
import { FROM_LOG, writtenAs, WRITTEN_BY } from './people.js';
import { shopZone } from './shop.js';
import type { Solver } from './solver.js';
import { CORE_VERSION } from './version.js';

/** Entries of a page. */
const PAGE = 60;
/** Characters of their texts: with what belongs to them a page stays below 200 kB. */
const MOST_TEXT = 100_000;

interface Row extends Pick<LogEntry, 'by' | 'what' | 'text' | 'machineId' | 'part' | 'thing' | 'thingId' | 'was'> {
  readonly id: number;
  readonly at: Date;
}

/** One condition of a search, with what stands for its marks. */
type Condition = readonly [sql: string, ...values: unknown[]];
const condition = (...parts: Condition): Condition => parts;
/** A condition on one value, where it is asked for. */
const when = (asked: unknown, sql: string, value = asked): Condition[] => (asked ? [condition(sql, value)] : []);

/** Words that the full-text index of the database does not hold: those shorter than three letters, and these. */
const UNINDEXED = new Set('about are com for from how that the this was what when where who will with und www'.split(' '));

/** Signs that mean something in a pattern. */
const likeText = (word: string): string => word.replace(/[\\%_]/g, (sign) => `\\${sign}`);

/**
 * Every word has to be there, as the beginning of a word. What the index cannot hold (short words, numbers with a point, `L-14`) is
 * looked for letter by letter among what the others leave.
 */
function searching(words: string): Condition[] {
  const all = words.split(/\s+/).filter(Boolean);
  const indexed = all.filter((word) => /^[\p{L}\p{N}]{3,60}$/u.test(word) && !UNINDEXED.has(word.toLowerCase()));
  const others = all.filter((word) => !indexed.includes(word));
  return [
    ...(indexed.length ? [condition('MATCH(l.text) AGAINST(? IN BOOLEAN MODE)', indexed.map((word) => `+${word}*`).join(' '))] : []),
    ...others.map((word) => condition('l.text LIKE ?', `%${likeText(word)}%`)),
  ];
}

/** How the worst quantity of a round came out, by what is kept of it. */
const VERDICT = (verdict: string): string =>
  `EXISTS (SELECT 1 FROM findings f WHERE f.roundId = l.thingId AND FIND_IN_SET('${verdict}', f.verdicts))`;
const STATES: Readonly<Record<'in' | 'out' | 'unsure', string>> = {
  out: VERDICT('out'),
  unsure: `${VERDICT('unsure')} AND NOT ${VERDICT('out')}`,
  in: `${VERDICT('in')} AND NOT ${VERDICT('out')} AND NOT ${VERDICT('unsure')}`,
};

/** A note that stands as it was written, with a box that is not ticked. */
const OPEN = `l.thing = 'note' AND EXISTS (SELECT 1 FROM remarks r WHERE r.id = l.thingId AND r.text REGEXP '(^|\\n)[[:space:]]*[-*]{0,1}[[:space:]]*[[] []]'
  AND NOT EXISTS (SELECT 1 FROM remarks s WHERE s.supersedes = r.id))`;

function conditionsOf(
  { machine, what, part, state, todo, from, to, words, before }: LogQuery,
  by: readonly string[] | undefined,
  zone: string | null,
): Condition[] {
  const [time, id] = before?.split('_').map(Number) ?? [];
  const cursor = new Date(time);
  return [
    ...when(machine, 'l.machineId = ?'),
    ...when(what, 'l.what = ?'),
    ...when(by?.length, 'l.by IN (?)', by),
    ...when(part, 'l.part = ?'),
    ...when(from && dayBegins(from, zone), 'l.at >= ?'),
    ...when(to && dayBegins(to, zone, 1), 'l.at < ?'),
    ...(todo ? [condition(OPEN)] : []),
    ...(state ? [condition(`l.thing = 'round' AND l.what <> 'reading' AND ${STATES[state]}`)] : []),
    ...(before ? [condition('(l.at < ? OR (l.at = ? AND l.id < ?))', cursor, cursor, id)] : []),
    ...searching(words ?? ''),
  ];
}

/** What is shown of a round beside an entry of it. */
interface RoundRow extends Pick<LoggedRound, 'id' | 'check' | 'number' | 'instrumentName'> {
  readonly ahead: number;
  readonly struck: string | null;
  readonly head: string | null;
}

// Rounds are numbered as everywhere: by check, in the order of their dates.
const ROUNDS = `SELECT n.id, n.kind AS \`check\`, n.number, n.instrumentName, n.ahead, n.struck, f.head FROM (
    SELECT r.id, r.kind, r.instrumentName, r.ahead, r.struck,
      ROW_NUMBER() OVER (PARTITION BY r.machineId, r.kind ORDER BY r.at, r.id) AS number
    FROM rounds r JOIN (SELECT DISTINCT machineId, kind FROM rounds WHERE id IN (:ids)) wanted USING (machineId, kind)
  ) n LEFT JOIN findings f ON f.roundId = n.id WHERE n.id IN (:ids)`;

function loggedRound({ head, ahead, struck, number, ...round }: RoundRow): LoggedRound {
  const kept = head === null ? null : fromJson<Pick<RoundHead, 'unread' | 'finding'>>(head);
  const counts = !ahead && struck === null;
  return {
    ...{ ...round, number: Number(number), finding: counts ? (kept?.finding ?? null) : null },
    ...(kept?.unread && { unread: kept.unread }),
    ...(struck !== null && { struck: true as const }),
    ...(ahead && { ahead: true as const }),
  };
}

interface MoveRow {
  readonly id: string;
  readonly roundId: string;
  readonly quantity: string;
}

const STALE = `SELECT DISTINCT r.machineId, r.kind FROM rounds r LEFT JOIN findings f ON f.roundId = r.id
  WHERE r.id IN (:ids) AND (f.roundId IS NULL OR f.version <> r.version OR f.core <> :core
    OR f.sequence <> (SELECT COALESCE(MAX(x.sequence), 0) FROM readings x WHERE x.roundId = r.id))`;

/** Work out what was not worked out yet of some rounds, or has changed since. */
async function workOutStale({ sequelize, solver }: Shelf, ids: readonly string[]): Promise<void> {
  const stale = await sequelize.query<{ machineId: string; kind: string }>(STALE, {
    replacements: { ids, core: CORE_VERSION },
    type: QueryTypes.SELECT,
  });
  for (const machineId of new Set(stale.map((row) => row.machineId))) {
    const kinds = stale.filter((row) => row.machineId === machineId).map(({ kind }) => kind);
    await listHeads(sequelize, solver, machineId, kinds);
  }
}

/** Where entries are read, and with what rounds are worked out. */
export interface Shelf {
  readonly sequelize: Sequelize;
  readonly solver: Solver;
}

/** Rounds and moves that entries are about. */
async function storiesOf({ sequelize, solver }: Shelf, rows: readonly Row[]) {
  const idsOf = (thing: string): string[] => [...new Set(rows.flatMap((row) => (row.thing === thing && row.thingId ? [row.thingId] : [])))];
  const select = <T extends object>(sql: string, ids: readonly string[]): Promise<T[]> =>
    ids.length ? sequelize.query<T>(sql, { replacements: { ids }, type: QueryTypes.SELECT }) : Promise.resolve([]);
  const moves = await select<MoveRow>('SELECT id, roundId, quantity FROM moves WHERE id IN (:ids)', idsOf('move'));
  const ids = [...new Set([...idsOf('round'), ...moves.map(({ roundId }) => roundId)])];
  if (ids.length) await workOutStale({ sequelize, solver }, ids);
  const rounds = await select<RoundRow>(ROUNDS, ids);
  const notes = idsOf('note');
  const own = notes.length ? await RemarkRow.findAll({ where: { id: { [Op.in]: notes } }, attributes: ['id', 'text'] }) : [];
  return {
    texts: new Map(own.map(({ id, text }) => [id, text])),
    remarks: await newestOf(sequelize, notes),
    moves: new Map(moves.map((move) => [move.id, move])),
    rounds: new Map(rounds.map((round) => [round.id, loggedRound(round)])),
  };
}

/** How the note of an entry stands now. @param own what it said then. */
function standing(told: string, own: string, now: Remark): 'stands' | 'reworded' | 'about' {
  if (own === '' ? !told.startsWith('(') : !told.startsWith(own)) return 'about';
  return !isTakenBack(now) && wordsAlone(now.text) === wordsAlone(own) ? 'stands' : 'reworded';
}

/** What belongs to an entry: its round, its move, its note as it stands now. */
function toldBy(
  { thing, thingId, text }: Row,
  { moves, rounds, remarks, texts }: Awaited<ReturnType<typeof storiesOf>>,
): Pick<LogEntry, 'round' | 'quantity' | 'remark' | 'note'> {
  const idOf = (wanted: string): string => (thing === wanted ? (thingId ?? '') : '');
  const move = moves.get(idOf('move'));
  const now = remarks.get(idOf('note'));
  return {
    round: rounds.get(move?.roundId ?? idOf('round')) ?? null,
    quantity: move?.quantity ?? null,
    remark: now && !isTakenBack(now) ? now : null,
    note: now ? standing(text, texts.get(idOf('note')) ?? '', now) : null,
  };
}

// What a card or a face was changed to is kept before the log says so; a state that still stands is no earlier one.
const VERSIONS = `SELECT l.id, MAX(s.version) AS version,
    (SELECT MAX(n.version) FROM earlier_states n WHERE n.what = s.what AND n.thingId = s.thingId) AS newest
  FROM log_entries l JOIN earlier_states s ON s.thingId = l.thingId AND s.what = IF(l.thing = 'machine', 'machines', 'surfaces')
    AND s.at <= l.at
  WHERE l.id IN (:ids) GROUP BY l.id, s.what, s.thingId`;

/** The states that entries of cards and faces brought about, by the id of the entry. */
async function versionsOf(sequelize: Sequelize, rows: readonly Row[]): Promise<ReadonlyMap<number, number>> {
  const ids = rows.flatMap(({ id, thing, what, text }) =>
    thing === 'machine' || (thing === 'face' && what === 'scraping' && text.endsWith(': changed')) ? [id] : [],
  );
  if (ids.length === 0) return new Map();
  const found = await sequelize.query<{ id: number; version: number; newest: number }>(VERSIONS, {
    replacements: { ids },
    type: QueryTypes.SELECT,
  });
  return new Map(found.flatMap(({ id, version, newest }) => (version < newest ? [[Number(id), version] as const] : [])));
}

/** As many entries as a page may carry: one at least. */
function fitting(rows: readonly Row[]): readonly Row[] {
  let size = 0;
  const end = rows.findIndex(({ text }, i) => (size += text.length) > MOST_TEXT && i > 0);
  return rows.slice(0, Math.min(end < 0 ? PAGE : end, PAGE));
}

/** Who has written, and what about: what can be asked for. */
async function choicesOf(sequelize: Sequelize, machine: string | undefined): Promise<NonNullable<LogPage['choices']>> {
  const where = machine ? 'machineId = :machine' : 'TRUE';
  const ask = <T extends object>(sql: string): Promise<T[]> =>
    sequelize.query<T>(sql, { replacements: { machine }, type: QueryTypes.SELECT });
  const [people, parts, faces, stripDowns] = await Promise.all([
    ask<{ by: string }>(`SELECT DISTINCT ${WRITTEN_BY} AS \`by\` ${FROM_LOG} WHERE ${where} AND l.\`by\` <> '' ORDER BY 1`),
    ask<{ part: string }>(`SELECT DISTINCT part FROM log_entries WHERE ${where} AND part IS NOT NULL`),
    ask<{ id: string; name: string }>(
      `SELECT s.id, ${machine ? 's.name' : "CONCAT(m.number, ': ', s.name)"} AS name FROM surfaces s JOIN machines m ON m.id = s.machineId WHERE ${machine ? 's.machineId = :machine' : 'TRUE'}`,
    ),
    ask<{ id: string; name: string }>(
      `SELECT s.id, ${machine ? 's.name' : "CONCAT(m.number, ': ', s.name)"} AS name FROM strip_downs s JOIN machines m ON m.id = s.machineId WHERE ${machine ? 's.machineId = :machine' : 'TRUE'}`,
    ),
  ]);
  const named = parts.flatMap(({ part }) => {
    const name = CHECKS.get(part)?.title ?? [...faces, ...stripDowns].find(({ id }) => id === part)?.name;
    return name === undefined ? [] : [{ id: part, name }];
  });
  return { people: people.map(({ by }) => by), parts: named.sort((one, other) => one.name.localeCompare(other.name)) };
}

/**
 * A page of the logbook, newest first, as it is asked for. Rounds come with what they say now, and moves with the round that they were
 * made from.
 */
export async function readLogbook(shelf: Shelf, query: LogQuery): Promise<LogPage> {
  const { sequelize } = shelf;
  const conditions = conditionsOf(query, query.by ? await writtenAs(query.by) : undefined, await shopZone());
  const where = conditions.map(([sql]) => sql).join(' AND ') || 'TRUE';
  const rows = await sequelize.query<Row>(
    `SELECT l.id, l.at, l.by, l.what, l.text, l.machineId, l.part, l.thing, l.thingId, l.was FROM log_entries l
      WHERE ${where} ORDER BY l.at DESC, l.id DESC LIMIT ${PAGE + 1}`,
    { replacements: conditions.flatMap(([, ...values]) => values), type: QueryTypes.SELECT },
  );
  const shown = fitting(rows);
  const [stories, versions, choices] = await Promise.all([
    storiesOf(shelf, shown),
    versionsOf(sequelize, shown),
    query.before ? undefined : choicesOf(sequelize, query.machine),
  ]);
  const last = shown.at(-1);
  return {
    entries: shown.map((row): LogEntry => ({
      ...row,
      id: Number(row.id),
      at: row.at.toISOString(),
      version: versions.get(Number(row.id)) ?? null,
      ...toldBy(row, stories),
    })),
    next: last && rows.length > shown.length ? `${last.at.getTime()}_${last.id}` : null,
    ...(choices && { choices }),
  };
}
