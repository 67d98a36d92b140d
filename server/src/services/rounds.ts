import { Op, QueryTypes, type InferAttributes, type Sequelize, type Transaction } from 'sequelize';
import { CHECKS, fieldPath, instrumentSchemaFor, type SolveContext } from '@isometra/core';
import type {
  MoveWrite,
  Redate,
  RoundFinding,
  RoundHead,
  RoundWrite,
  Strike,
  StoredReading,
  StoredRound,
  StoredSurvey,
} from '@isometra/contract';
import {
  campaignOf,
  groupedBy,
  isMade,
  mayHalt,
  pendingOf,
  roundFaults,
  ruling,
  sheetOf,
  type ShopFacts,
  shopTime,
  solveWhatStands,
  spreadBefore,
  waitNotes,
} from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { MoveRow, ReadingRow, RoundRow, SurveyRow } from '../db/surveyModels.js';
import { inOneGo } from '../db/transactions.js';
import { cardThen } from './cardThen.js';
import { atMostNow, isAhead } from './clock.js';
import { differencesOf } from './differences.js';
import { listHeads } from './heads.js';
import { shimStock } from './kit.js';
import { writeLog } from './log.js';
import { getMachine } from './machines.js';
import { moveShown, readingShown, roundShown } from './roundRows.js';
import type { Solver } from './solver.js';
import { keepState, type Version } from './states.js';
import { shopZone } from './shop.js';
import { getSurvey } from './surveys.js';
import { CORE_VERSION } from './version.js';

/** What places a round: its survey, and its number among those of its check on its machine. */
interface Placed {
  readonly id: string;
  readonly surveyId: string;
  readonly number: number;
}

const PLACES = `SELECT r.id, c.surveyId, ROW_NUMBER() OVER (PARTITION BY r.kind ORDER BY r.\`at\`, r.id) AS number
  FROM rounds r JOIN checks c ON c.id = r.checkId WHERE r.machineId = :machineId`;

/** Where the rounds of a machine stand; of one check, when it is named. */
async function placesOf(sequelize: Sequelize, machineId: string, check: string | null): Promise<ReadonlyMap<string, Placed>> {
  const rows = await sequelize.query<Placed>(`${PLACES} ${check === null ? '' : 'AND r.kind = :check'}`, {
    replacements: { machineId, check },
    type: QueryTypes.SELECT,
  });
  return new Map(rows.map((row) => [row.id, { ...row, number: Number(row.number) }]));
}

const IN_ORDER: [string, string][] = [
  ['at', 'ASC'],
  ['id', 'ASC'],
];

/** Readings of some rounds, in the order in which they were taken, and their moves in the order in which they were begun. */
async function belongings(
  roundIds: readonly string[],
): Promise<{ readings: ReadonlyMap<string, StoredReading[]>; moves: ReadonlyMap<string, MoveWrite[]> }> {
  const where = { roundId: { [Op.in]: [...roundIds] } };
  const [readings, moves] = await Promise.all([
    ReadingRow.findAll({ where, order: [['sequence', 'ASC']] }),
    MoveRow.findAll({
      where,
      order: [
        ['begunAt', 'ASC'],
        ['id', 'ASC'],
      ],
    }),
  ]);
  return {
    readings: groupedBy(readings.map(readingShown), ({ roundId }) => roundId),
    moves: groupedBy(moves.map(moveShown), ({ roundId }) => roundId),
  };
}

async function stored(sequelize: Sequelize, rows: readonly RoundRow[], machineId: string, check: string | null): Promise<StoredRound[]> {
  if (rows.length === 0) return [];
  const [places, { readings, moves }] = await Promise.all([placesOf(sequelize, machineId, check), belongings(rows.map(({ id }) => id))]);
  return rows.map((row) => {
    const { surveyId, number } = places.get(row.id) as Placed;
    return {
      ...roundShown(row),
      ...(row.ahead && { ahead: true as const }),
      ...struckOf(row),
      surveyId,
      number,
      readings: readings.get(row.id) ?? [],
      moves: moves.get(row.id) ?? [],
    };
  });
}

/** Most rounds that one answer holds in full. */
export const MOST_ROUNDS = 1000;

/** The last rounds of a machine with their readings, oldest first; of one check, when it is named. */
export async function listRounds(sequelize: Sequelize, machineId: string, check?: string): Promise<StoredRound[]> {
  await getMachine(machineId);
  const order = IN_ORDER.map(([column]): [string, string] => [column, 'DESC']);
  const rows = await RoundRow.findAll({ where: { machineId, ...(check && { kind: check }) }, order, limit: MOST_ROUNDS });
  return stored(sequelize, rows.reverse(), machineId, check ?? null);
}

/** Whether there is such a round. */
export const hasRound = async (id: string): Promise<boolean> => (await RoundRow.count({ where: { id } })) > 0;

/** One round as it was written, with its readings and moves. */
export async function getRound(sequelize: Sequelize, id: string): Promise<StoredRound> {
  const row = await RoundRow.findByPk(id);
  if (!row) throw notFound('round');
  return (await stored(sequelize, [row], row.machineId, row.kind))[0];
}

/** What a round says, worked out by what its survey judges by, with what it waits for. */
export async function findingOf(sequelize: Sequelize, solver: Solver, id: string): Promise<RoundFinding> {
  const { sheet, context } = await sheetFor(sequelize, solver, id);
  const { finding, faults } = solveWhatStands(sheet, context);
  return { finding, faults, coreVersion: CORE_VERSION };
}

/**
 * A round as a sheet: a file that the command line solves as the application does.
 *
 * @param known the heads of its machine, where they are at hand.
 */
export async function sheetFor(
  sequelize: Sequelize,
  solver: Solver,
  id: string,
  known?: readonly RoundHead[],
): Promise<{ readonly round: StoredRound; readonly sheet: Readonly<Record<string, unknown>>; readonly context: SolveContext }> {
  const round = await getRound(sequelize, id);
  const check = CHECKS.get(round.check);
  const hangsOn = check ? mayHalt(check) : [];
  const [machine, survey, stock, heads] = await Promise.all([
    getMachine(round.machineId),
    getSurvey(round.surveyId),
    shimStock(),
    known ?? listHeads(sequelize, solver, round.machineId, [...hangsOn, round.check]),
  ]);
  const counting = ruling(heads.filter(({ check: kind }) => kind === round.check || hangsOn.includes(kind)));
  const context: SolveContext = { waits: waitNotes(round.check, counting) };
  const setupSpread = spreadBefore(round, counting);
  // One that was read again, or of a survey that has ended, is told by the card as it stood then: nothing is done by it any more.
  const old = survey.endedAt !== null || counting.some((other) => other.check === round.check && other.at > round.at);
  const { card } = old ? await cardThen(round) : machine;
  const facts: ShopFacts = { card, stock, ...judgingOf(survey), ...(setupSpread && { setupSpread }) };
  return { round, sheet: sheetOf(round, round.readings, facts), context };
}

/** What a survey judges its rounds by. */
export const judgingOf = (survey: StoredSurvey): Pick<ShopFacts, 'limits' | 'pending'> => ({
  limits: survey.judge,
  pending: pendingOf(campaignOf(survey)),
});

/** The rung of the running survey that a new round belongs to; made on the first round of its check, by however many ask at once. */
async function rungFor(sequelize: Sequelize, machineId: string, kind: string, transaction: Transaction): Promise<string> {
  const running = await SurveyRow.findOne({ where: { machineId, endedAt: null }, order: [['startedAt', 'DESC']], transaction });
  const survey = running ?? (await SurveyRow.findOne({ where: { machineId }, order: [['startedAt', 'DESC']], transaction }));
  if (!survey) throw notFound('survey');
  const [{ id }] = await sequelize.query<{ id: string }>(
    'INSERT INTO checks (id, surveyId, kind) VALUES (:id, :surveyId, :kind) ON DUPLICATE KEY UPDATE kind = VALUES(kind) RETURNING id',
    { replacements: { id: crypto.randomUUID(), surveyId: survey.id, kind }, type: QueryTypes.SELECT, transaction },
  );
  return id;
}

const columns = ({ setup, plan, instrument, instrumentName, conditions, purpose, note }: RoundWrite) => ({
  setup,
  plan,
  instrument,
  instrumentName,
  conditions,
  purpose,
  note: note ?? null,
});

const title = (check: string): string => CHECKS.get(check)?.title ?? check;

const cautionsRead = (cautions: readonly string[]): string => `Cautions read and ticked: ${cautions.join(' ')}`;

function refuseFaulty(round: RoundWrite): void {
  const faults = roundFaults(round);
  if (faults.length) throw new ApiError(400, faults);
}

/** Begin a round. Safe to send twice, also at the same moment: the answer is the round as it was begun. */
export async function addRound(sequelize: Sequelize, round: RoundWrite, given?: Transaction): Promise<RoundWrite> {
  refuseFaulty(round);
  const { id, machineId, check, by } = round;
  const at = new Date(round.at);
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        const checkId = await rungFor(sequelize, machineId, check, transaction);
        const placed = { id, checkId, machineId, kind: check, by, at, ahead: isAhead(round.at), version: 1 };
        const row = await RoundRow.create({ ...placed, ...columns(round) }, { transaction });
        const about = { machineId, by, part: check, thing: 'round', thingId: id, at: atMostNow(round.at) } as const;
        const ticked = round.cautions?.length ? [{ ...about, what: 'caution', text: cautionsRead(round.cautions) } as const] : [];
        await writeLog([...ticked, { ...about, what: 'round', text: `${title(check)}: round begun` }], transaction);
        return roundShown(row);
      },
      given,
    );
  } catch (error) {
    if (error instanceof ApiError && error.status === 404)
      throw new ApiError(400, [{ path: 'machineId', message: 'no such machine', example: 'the id of a machine from its list' }]);
    const known = brokenRule(error) === 'PRIMARY' ? await RoundRow.findByPk(id) : null;
    if (known?.machineId !== machineId || known.kind !== check) throw error;
    return roundShown(known);
  }
}

/** What is changed of a round, and what the log says of it after "round 3: ". */
interface Rewritten {
  readonly columns: Partial<InferAttributes<RoundRow>>;
  readonly text: string;
  /** It was set up otherwise: its earlier set-up is kept. */
  readonly setUp?: true;
}

/** Keep the set-up of a round as it is now, and as it was before. */
function keepSetUp(now: RoundWrite, before: RoundWrite, by: string, transaction: Transaction): Promise<void> {
  const stateOf = ({ check, setup, plan, conditions, instrument, version }: RoundWrite): Version => ({
    version,
    state: { check, setup, plan, conditions, instrument },
  });
  const first = before.version === 1 && { by: before.by, at: new Date(before.at) };
  return keepState({ what: 'rounds', id: now.id, by }, stateOf(now), { ...stateOf(before), ...first }, transaction);
}

/**
 * Change a round under lock and log it; nothing where there is nothing to change. A stale version gets 409 with the newer one.
 *
 * @param change undefined where it stands as it is wanted.
 */
async function rewrite(
  sequelize: Sequelize,
  { id, by, version, number }: { readonly id: string; readonly by: string; readonly version: number; readonly number: number },
  change: (row: RoundRow, before: RoundWrite) => Rewritten | undefined,
): Promise<RoundWrite> {
  return inOneGo(sequelize, async (transaction) => {
    const row = await RoundRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound('round');
    const before = roundShown(row);
    const changed = change(row, before);
    if (!changed) return before;
    if (before.version !== version) throw stale(before);
    await row.update({ ...changed.columns, version: version + 1 }, { transaction });
    if (changed.setUp) await keepSetUp(roundShown(row), before, by, transaction);
    const text = `${title(before.check)}, round ${number}: ${changed.text}`;
    const { machineId, check: part } = before;
    await writeLog({ machineId, by, what: 'round', text, part, thing: 'round', thingId: id }, transaction);
    return roundShown(row);
  });
}

/** Change setup, plan, instrument or conditions of a round, and log what was put right; a stale version gets 409 with the newer one. */
export async function changeRound(sequelize: Sequelize, round: RoundWrite): Promise<RoundWrite> {
  refuseFaulty(round);
  const { number } = await getRound(sequelize, round.id);
  return rewrite(sequelize, { ...round, number }, (_row, before) => {
    const differences = differencesOf(columns(before), columns(round), (path) => partName(before, path));
    return differences.length ? { columns: columns(round), text: differences.join('; '), setUp: true } : undefined;
  });
}

const struckOf = ({ struck }: RoundRow): Pick<StoredRound, 'struck'> => (struck ? { struck: struck as StoredRound['struck'] } : {});

/**
 * Strike a round out with the reason, or let it count again: it is kept either way. One whose move was done is not struck out: what was
 * moved by it was moved. A stale version gets 409 with the newer one.
 */
export async function strikeRound(sequelize: Sequelize, { id, why, by, version }: Strike): Promise<RoundWrite> {
  const { number, moves } = await getRound(sequelize, id);
  if (why !== null && moves.some(isMade))
    throw new ApiError(
      409,
      [
        {
          path: 'id',
          message: 'its move was done: say on its job card first that it was not, or that it is out again',
          example: 'not done after all',
        },
      ],
      undefined,
      'done',
    );
  return rewrite(sequelize, { id, by, version, number }, ({ struck }) =>
    (struck === null) === (why === null)
      ? undefined
      : {
          columns: { struck: why === null ? null : { why, by, at: new Date().toISOString() } },
          text: why === null ? 'restored' : `discarded. ${why}`,
        },
  );
}

/** Give a round another date, with the reason in the log; from then on it rules. A stale version gets 409 with the newer one. */
export async function redateRound(sequelize: Sequelize, { id, at, why, by, version }: Redate): Promise<RoundWrite> {
  if (isAhead(at))
    throw new ApiError(400, [{ path: 'at', message: 'is later than the clock of the server', example: new Date().toISOString() }]);
  const { number } = await getRound(sequelize, id);
  const zone = await shopZone();
  return rewrite(sequelize, { id, by, version, number }, ({ ahead }, before) => {
    // Sent twice: it stands.
    if (before.version !== version && !ahead && Date.parse(before.at) === Date.parse(at)) return undefined;
    return {
      columns: { at: new Date(at), ahead: false },
      text: `date put right from ${shopTime(before.at, zone)} to ${shopTime(at, zone)}. ${why}`,
    };
  });
}

/** What a person calls a path of a round: "Bar, bar diameter" for `setup.bar.diameter`. */
function partName({ check, instrument }: RoundWrite, path: string): string {
  const [part, ...keys] = path.split('.');
  const known = CHECKS.get(check);
  const schema = {
    setup: known?.setup,
    plan: known?.plan,
    conditions: known?.conditions,
    instrument: instrumentSchemaFor(instrument?.['kind']),
  }[part];
  return schema && keys.length ? fieldPath(schema, keys) : path;
}
