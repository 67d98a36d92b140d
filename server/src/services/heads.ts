import { Op, QueryTypes, type Sequelize } from 'sequelize';
import type { FindingHead, MoveWrite, RoundHead, RoundWrite } from '@isometra/contract';
import { campaignOf, judgingKey, mountingOf, pendingOf, senseOf, type ShopFacts } from '@isometra/work';
import { CHECKS } from '@isometra/core';
import { fromJson } from '../db/columns.js';
import { inOneGo } from '../db/transactions.js';
import { FindingRow, MoveRow, ReadingRow, RoundRow } from '../db/surveyModels.js';
import type { HeadTask } from '../workers/solver.js';
import { writeLog } from './log.js';
import { moveShown, readingShown } from './roundRows.js';
import type { Solver } from './solver.js';
import { listSurveys } from './surveys.js';
import { CORE_VERSION } from './version.js';

/** What is kept of a round beside its row: what it said, and how it was read. */
type Kept = Pick<RoundHead, 'finding' | 'mounting' | 'sense'>;

/** A round with the last reading it has, and what was kept of it; JSON as text. */
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
  readonly head: string | null;
  readonly foundSequence: number | null;
  readonly foundVersion: number | null;
  readonly judging: string | null;
  readonly core: string | null;
}

// Sorted and numbered here: the database would carry every head through a temporary table for it.
const ROWS = `SELECT r.id, c.surveyId, r.kind, r.instrumentName, r.conditions, r.\`by\`, r.\`at\`, r.version,
  (SELECT MAX(x.sequence) FROM readings x WHERE x.roundId = r.id) AS last,
  f.head, f.sequence AS foundSequence, f.version AS foundVersion, f.judging, f.core
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
  const judgings = new Map(
    surveys.map((survey) => {
      const campaign = campaignOf(survey);
      return [survey.id, { key: judgingKey(campaign), facts: { limits: survey.judge, pending: pendingOf(campaign) } }];
    }),
  );
  const stands = (row: Row): boolean =>
    row.foundSequence === (row.last ?? 0) &&
    row.foundVersion === row.version &&
    row.core === CORE_VERSION &&
    row.judging === judgings.get(row.surveyId)?.key;
  const fresh = await workOut(
    { sequelize, solver, machineId },
    rows.filter((row) => !stands(row)),
    judgings,
  );
  const numbers = new Map<string, number>();
  return rows.sort(byTime).map((row): RoundHead => {
    const { id, surveyId, kind: check, instrumentName, by, version } = row;
    const number = (numbers.get(check) ?? 0) + 1;
    numbers.set(check, number);
    return {
      ...{ id, machineId, surveyId, check, number, instrumentName, by, version },
      at: row.at.toISOString(),
      conditions: fromJson(row.conditions) as RoundWrite['conditions'],
      last: row.last ?? 0,
      moves: moves.get(id) ?? [],
      ...(fresh.get(id) ?? (fromJson(row.head) as unknown as Kept)),
    };
  });
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

interface Judging {
  readonly key: string;
  readonly facts: ShopFacts;
}

/** Whose rounds are worked out, and with what. */
interface Shelf {
  readonly sequelize: Sequelize;
  readonly solver: Solver;
  readonly machineId: string;
}

/** Rounds that are worked out and kept in one go. */
const LOT = 500;

/** Work out anew what no longer stands, and keep it. */
async function workOut(shelf: Shelf, rows: readonly Row[], judgings: ReadonlyMap<string, Judging>): Promise<ReadonlyMap<string, Kept>> {
  const kept = new Map<string, Kept>();
  for (let from = 0; from < rows.length; from += LOT) {
    const lot = rows.slice(from, from + LOT);
    const tasks = await tasksOf(lot, judgings);
    const heads = await shelf.solver.heads(tasks);
    await keep(lot, tasks, heads, judgings);
    await logJudgedAnew(shelf, lot, tasks, heads, judgings);
    lot.forEach(({ id }, i) => kept.set(id, keptOf(tasks[i], heads[i])));
  }
  return kept;
}

const keptOf = ({ round }: HeadTask, finding: FindingHead | null): Kept => ({
  finding,
  mounting: mountingOf(round.check, round.setup, round.plan),
  sense: senseOf(round.instrument),
});

/** Verdicts of a finding, by quantity. */
const verdictsOf = (finding: FindingHead | null): Record<string, string> =>
  Object.fromEntries(Object.entries(finding?.quantities ?? {}).flatMap(([name, { verdict }]) => (verdict ? [[name, verdict]] : [])));

/** A round whose readings and limits are the same, and which this version of the program judges otherwise, says so in the log. */
async function logJudgedAnew(
  { sequelize, machineId }: Shelf,
  lot: readonly Row[],
  tasks: readonly RoundTask[],
  heads: readonly (FindingHead | null)[],
  judgings: ReadonlyMap<string, Judging>,
): Promise<void> {
  const entries = lot.flatMap((row, i) => {
    const same = row.foundSequence === tasks[i].last && row.foundVersion === row.version && row.judging === judgings.get(row.surveyId)?.key;
    if (!same || row.core === null || row.core === CORE_VERSION) return [];
    const [before, now] = [verdictsOf((fromJson(row.head) as unknown as Kept | null)?.finding ?? null), verdictsOf(heads[i])];
    const check = CHECKS.get(row.kind);
    const changed = Object.keys({ ...before, ...now }).filter((name) => before[name] !== now[name]);
    if (changed.length === 0) return [];
    const told = changed.map(
      (name) =>
        `${check?.quantities[name]?.label ?? name}: ${CALLED[before[name]] ?? 'no verdict'}, now ${CALLED[now[name]] ?? 'no verdict'}`,
    );
    const text = `${check?.title ?? row.kind}, round of ${row.at.toISOString().slice(0, 10)}, judged anew by a new version of the program. ${told.join('; ')}`;
    return [{ machineId, by: '', what: 'judged-anew', text }];
  });
  if (entries.length) await inOneGo(sequelize, (transaction) => writeLog(entries, transaction));
}

const CALLED: Readonly<Record<string, string>> = { in: 'in', out: 'out', unsure: 'too close to call' };

interface RoundTask extends HeadTask {
  /** The last reading that is looked at: one that comes in meanwhile makes what is kept stale again. */
  readonly last: number;
}

async function tasksOf(lot: readonly Row[], judgings: ReadonlyMap<string, Judging>): Promise<RoundTask[]> {
  const ids = lot.map(({ id }) => id);
  const [rounds, readings] = await Promise.all([
    RoundRow.findAll({ where: { id: { [Op.in]: ids } } }),
    ReadingRow.findAll({ where: { roundId: { [Op.in]: ids } }, order: [['sequence', 'ASC']] }),
  ]);
  const of = new Map<string, ReturnType<typeof readingShown>[]>(ids.map((id) => [id, []]));
  for (const row of readings) of.get(row.roundId)?.push(readingShown(row));
  const known = new Map(rounds.map((row) => [row.id, row]));
  return lot.map(({ id, kind: check, surveyId }) => {
    const { setup = {}, plan = {}, instrument = null, conditions = {} } = known.get(id) ?? {};
    const own = of.get(id) ?? [];
    const round = { check, setup, plan, instrument, conditions: conditions as RoundWrite['conditions'] };
    return { round, readings: own, facts: judgings.get(surveyId)?.facts ?? {}, last: own.at(-1)?.sequence ?? 0 };
  });
}

async function keep(
  lot: readonly Row[],
  tasks: readonly RoundTask[],
  heads: readonly (FindingHead | null)[],
  judgings: ReadonlyMap<string, Judging>,
): Promise<void> {
  await FindingRow.bulkCreate(
    lot.map(({ id: roundId, version, surveyId }, i) => ({
      ...{ roundId, version, sequence: tasks[i].last, core: CORE_VERSION },
      judging: judgings.get(surveyId)?.key ?? '',
      head: { ...keptOf(tasks[i], heads[i]) },
    })),
    { updateOnDuplicate: ['sequence', 'version', 'judging', 'core', 'head'] },
  );
}
