import { LRUCache } from 'lru-cache';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import type { FindingHead, MoveWrite, RoundHead, RoundWrite } from '@isometra/contract';
import { campaignOf, halfRead, judgingKey, howRead, pendingOf, shopDate, spreadsBefore, type ShopFacts } from '@isometra/work';
import { CHECKS } from '@isometra/core';
import { fromJson } from '../db/columns.js';
import { inOneGo } from '../db/transactions.js';
import { FindingRow, MoveRow, ReadingRow, RoundRow } from '../db/surveyModels.js';
import type { HeadTask } from '../workers/solver.js';
import { writeLog } from './log.js';
import { moveShown, readingShown } from './roundRows.js';
import { shopZone } from './shop.js';
import type { Solver } from './solver.js';
import { listSurveys } from './surveys.js';
import { CORE_VERSION } from './version.js';

/** What is kept of a round beside its row: what it said, and how it was read. */
type Kept = Pick<RoundHead, 'finding' | 'mounting' | 'sense' | 'face' | 'unread'>;

/** A round with the last reading it has, and when what was kept of it was worked out; JSON as text. */
interface Row {
  readonly id: string;
  readonly surveyId: string;
  readonly kind: string;
  readonly instrumentName: string | null;
  readonly conditions: string;
  readonly by: string;
  readonly at: Date;
  readonly version: number;
  readonly last: number | null;
  readonly foundSequence: number | null;
  readonly foundVersion: number | null;
  readonly judging: string | null;
  readonly core: string | null;
  /** 1 where its date lies beyond the server's own time. */
  readonly ahead: number;
  readonly struck: string | null;
}

// Sorted and numbered here: the database would carry every round through a temporary table for it. What was found is fetched where it
// is not in memory.
const ROWS = `SELECT r.id, c.surveyId, r.kind, r.instrumentName, r.conditions, r.\`by\`, r.\`at\`, r.version, r.ahead, r.struck,
  (SELECT MAX(x.sequence) FROM readings x WHERE x.roundId = r.id) AS last,
  f.sequence AS foundSequence, f.version AS foundVersion, f.judging, f.core
  FROM rounds r JOIN checks c ON c.id = r.checkId LEFT JOIN findings f ON f.roundId = r.id
  WHERE r.machineId = :machineId`;

const byTime = (a: Row, b: Row): number => a.at.getTime() - b.at.getTime() || (a.id < b.id ? -1 : 1);

/**
 * Every round of a machine in short, oldest first, with what it said. A finding is kept until a reading, the round,
 * the judging of its survey or the core changes; only then is it worked out again.
 *
 * @param kinds only rounds of these checks.
 */
export async function listHeads(sequelize: Sequelize, solver: Solver, machineId: string, kinds?: readonly string[]): Promise<RoundHead[]> {
  const [surveys, rows, moves] = await Promise.all([
    listSurveys(machineId),
    sequelize.query<Row>(`${ROWS} ${kinds ? 'AND r.kind IN (:kinds)' : ''}`, {
      replacements: { machineId, kinds },
      type: QueryTypes.SELECT,
    }),
    movesOf(sequelize, machineId),
  ]);
  const ofSurvey = new Map(
    surveys.map((survey) => {
      const campaign = campaignOf(survey);
      return [survey.id, { key: judgingKey(campaign), facts: { limits: survey.judge, pending: pendingOf(campaign) } }];
    }),
  );
  rows.sort(byTime);
  const kept: (Kept | null)[] = [...(await keptOfAll(sequelize, rows))];
  // By what each was judged; null where it has changed since, whatever it was judged by.
  const judgedBy = rows.map((row) => (isAsFound(row) ? row.judging : null));
  // Its own set-ups do not depend on what others taught: once anew, and once more where the rounds before it now teach otherwise.
  for (let pass = 0; pass < 2; pass++) {
    const judgings = judgingsOf(rows, kept, ofSurvey);
    const old = rows.flatMap((_row, i) => (judgedBy[i] === judgings[i].key ? [] : [i]));
    if (old.length === 0) break;
    const fresh = await workOut(
      { sequelize, solver, machineId },
      old.map((i) => ({ row: { ...rows[i], before: kept[i] }, judging: judgings[i] })),
    );
    old.forEach((i, k) => ([kept[i], judgedBy[i]] = [fresh[k], judgings[i].key]));
  }
  const numbers = new Map<string, number>();
  const conditionsOf = readOnce();
  return rows.map((row, i): RoundHead => {
    const { id, surveyId, kind: check, instrumentName, by, version } = row;
    const number = (numbers.get(check) ?? 0) + 1;
    numbers.set(check, number);
    return {
      ...{ id, machineId, surveyId, check, number, instrumentName, by, version },
      at: row.at.toISOString(),
      ...(row.ahead && { ahead: true }),
      ...(row.struck !== null && { struck: fromJson<NonNullable<RoundHead['struck']>>(row.struck) ?? undefined }),
      conditions: conditionsOf(row.conditions),
      last: row.last ?? 0,
      moves: moves.get(id) ?? [],
      ...(kept[i] as Kept),
    };
  });
}

/** What was worked out stays in memory for this many rounds, those that were asked for last. */
const MOST_KEPT = 60_000;

/** By database: what each round was found to say, with what it was found from. */
const memories = new WeakMap<Sequelize, LRUCache<string, { readonly from: string; readonly kept: Kept }>>();

function memoryOf(sequelize: Sequelize) {
  const memory = memories.get(sequelize) ?? new LRUCache<string, { readonly from: string; readonly kept: Kept }>({ max: MOST_KEPT });
  memories.set(sequelize, memory);
  return memory;
}

const foundFrom = ({ foundSequence, foundVersion, judging, core }: Row): string =>
  foundVersion === null ? '' : `${foundVersion}/${foundSequence}/${core}/${judging}`;

/** What is kept of each round; null where nothing is. What is in memory and still of the same finding is not fetched. */
async function keptOfAll(sequelize: Sequelize, rows: readonly Row[]): Promise<readonly (Kept | null)[]> {
  const memory = memoryOf(sequelize);
  const missing = rows.filter((row) => row.foundVersion !== null && memory.get(row.id)?.from !== foundFrom(row));
  const fetched = new Map<string, Kept | null>();
  for (let from = 0; from < missing.length; from += LOT) {
    const lot = missing.slice(from, from + LOT);
    const found = await FindingRow.findAll({
      attributes: ['roundId', 'head'],
      where: { roundId: { [Op.in]: lot.map(({ id }) => id) } },
      raw: true,
    });
    for (const { roundId, head } of found) fetched.set(roundId, fromJson<Kept>(head));
  }
  for (const row of missing) {
    const kept = fetched.get(row.id);
    if (kept) memory.set(row.id, { from: foundFrom(row), kept });
  }
  return rows.map((row) => (row.foundVersion === null ? null : (fetched.get(row.id) ?? memory.get(row.id)?.kept ?? null)));
}

/** Conditions as they were written: many rounds were read under the same ones. */
function readOnce(): (text: string) => RoundWrite['conditions'] {
  const read = new Map<string, RoundWrite['conditions']>();
  return (text) => {
    const known = read.get(text) ?? (fromJson(text) as RoundWrite['conditions']);
    read.set(text, known);
    return known;
  };
}

async function movesOf(sequelize: Sequelize, machineId: string): Promise<ReadonlyMap<string, MoveWrite[]>> {
  const rows = await sequelize.query(
    'SELECT m.* FROM moves m JOIN rounds r ON r.id = m.roundId WHERE r.machineId = :machineId ORDER BY m.begunAt, m.id',
    { replacements: { machineId }, type: QueryTypes.SELECT, model: MoveRow, mapToModel: true },
  );
  const moves = new Map<string, MoveWrite[]>();
  for (const row of rows) moves.set(row.roundId, [...(moves.get(row.roundId) ?? []), moveShown(row)]);
  return moves;
}

/** Nothing of a round has changed since it was worked out, nor has the program. */
const isAsFound = (row: Row): boolean =>
  row.foundSequence === (row.last ?? 0) && row.foundVersion === row.version && row.core === CORE_VERSION;

interface Judging {
  readonly key: string;
  readonly facts: ShopFacts;
}

/** By what each round is judged: its survey, and what the rounds of its check before it have taught of setting up. */
function judgingsOf(rows: readonly Row[], kept: readonly (Kept | null)[], ofSurvey: ReadonlyMap<string, Judging>): readonly Judging[] {
  const spreads = spreadsBefore(
    rows.map(({ kind, ahead, struck }, i) => ({ check: kind, finding: ahead || struck !== null ? null : (kept[i]?.finding ?? null) })),
  );
  return rows.map(({ surveyId }, i) => {
    const { key, facts } = ofSurvey.get(surveyId) ?? { key: '', facts: {} };
    const spread = spreads[i];
    return spread ? { key: `${key}/${spread.s.toFixed(6)}/${spread.degrees}`, facts: { ...facts, setupSpread: spread } } : { key, facts };
  });
}

/** Whose rounds are worked out, and with what. */
interface Shelf {
  readonly sequelize: Sequelize;
  readonly solver: Solver;
  readonly machineId: string;
}

/** A round that is worked out, and what it is judged by. */
interface ToJudge {
  readonly row: Row & { readonly before: Kept | null };
  readonly judging: Judging;
}

/** Rounds that are worked out and kept in one go. */
const LOT = 500;

/** Work out anew what no longer stands, and keep it. */
async function workOut(shelf: Shelf, all: readonly ToJudge[]): Promise<readonly Kept[]> {
  const kept: Kept[] = [];
  for (let from = 0; from < all.length; from += LOT) {
    const lot = all.slice(from, from + LOT);
    const tasks = await tasksOf(lot);
    const heads = await shelf.solver.heads(tasks);
    await keep(lot, tasks, heads);
    await logJudgedAnew(shelf, lot, tasks, heads);
    kept.push(...tasks.map((task, i) => keptOf(task, heads[i])));
  }
  return kept;
}

const keptOf = ({ round, readings }: HeadTask, finding: FindingHead | null): Kept => ({
  finding,
  ...howRead(round.check, round),
  ...halfRead(round, readings),
});

/** Verdicts of a finding, by quantity. */
const verdictsOf = (finding: FindingHead | null): Record<string, string> =>
  Object.fromEntries(Object.entries(finding?.quantities ?? {}).flatMap(([name, { verdict }]) => (verdict ? [[name, verdict]] : [])));

/** Each verdict that a finding has, once. */
const verdictsIn = (finding: FindingHead | null): string => [...new Set(Object.values(verdictsOf(finding)))].sort().join();

/** A round whose readings and limits are the same, and which this version of the program judges otherwise, says so in the log. */
async function logJudgedAnew(
  { sequelize, machineId }: Shelf,
  lot: readonly ToJudge[],
  tasks: readonly RoundTask[],
  heads: readonly (FindingHead | null)[],
): Promise<void> {
  const anew = lot.flatMap(({ row, judging }, i) => {
    const same = row.foundSequence === tasks[i].last && row.foundVersion === row.version && row.judging === judging.key;
    return same && row.core !== null && row.core !== CORE_VERSION ? [{ row, now: verdictsOf(heads[i]) }] : [];
  });
  // After a reading nothing is: neither the log nor the zone of the shop is asked then.
  if (anew.length === 0) return;
  const zone = await shopZone();
  const entries = anew.flatMap(({ row, now }) => {
    const before = verdictsOf(row.before?.finding ?? null);
    const check = CHECKS.get(row.kind);
    const changed = Object.keys({ ...before, ...now }).filter((name) => before[name] !== now[name]);
    if (changed.length === 0) return [];
    const told = changed.map(
      (name) =>
        `${check?.quantities[name]?.label ?? name}: ${CALLED[before[name]] ?? 'no verdict'}, now ${CALLED[now[name]] ?? 'no verdict'}`,
    );
    const text = `${check?.title ?? row.kind}, round of ${shopDate(row.at.toISOString(), zone)}, judged again by a new version of the program. ${told.join('; ')}`;
    return [{ machineId, by: '', what: 'judged-anew', text, part: row.kind, thing: 'round', thingId: row.id } as const];
  });
  if (entries.length) await inOneGo(sequelize, (transaction) => writeLog(entries, transaction));
}

const CALLED: Readonly<Record<string, string>> = { in: 'in', out: 'out', unsure: 'too close to call' };

interface RoundTask extends HeadTask {
  /** The last reading that is looked at: one that comes in meanwhile makes what is kept stale again. */
  readonly last: number;
}

async function tasksOf(lot: readonly ToJudge[]): Promise<RoundTask[]> {
  const ids = lot.map(({ row }) => row.id);
  const [rounds, readings] = await Promise.all([
    RoundRow.findAll({ where: { id: { [Op.in]: ids } } }),
    ReadingRow.findAll({ where: { roundId: { [Op.in]: ids } }, order: [['sequence', 'ASC']] }),
  ]);
  const of = new Map<string, ReturnType<typeof readingShown>[]>(ids.map((id) => [id, []]));
  for (const row of readings) of.get(row.roundId)?.push(readingShown(row));
  const known = new Map(rounds.map((row) => [row.id, row]));
  return lot.map(({ row: { id, kind: check }, judging: { facts } }) => {
    const { setup = {}, plan = {}, instrument = null, conditions = {} } = known.get(id) ?? {};
    const own = of.get(id) ?? [];
    const round = { check, setup, plan, instrument, conditions: conditions as RoundWrite['conditions'] };
    return { round, readings: own, facts, last: own.at(-1)?.sequence ?? 0 };
  });
}

async function keep(lot: readonly ToJudge[], tasks: readonly RoundTask[], heads: readonly (FindingHead | null)[]): Promise<void> {
  if (lot.length === 0) return;
  await FindingRow.bulkCreate(
    lot.map(({ row: { id: roundId, version }, judging }, i) => ({
      ...{ roundId, version, sequence: tasks[i].last, core: CORE_VERSION, judging: judging.key },
      verdicts: verdictsIn(heads[i]),
      head: { ...keptOf(tasks[i], heads[i]) },
    })),
    { updateOnDuplicate: ['sequence', 'version', 'judging', 'core', 'verdicts', 'head'] },
  );
}
