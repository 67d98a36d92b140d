import { Op, UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import { CHECKS, fieldPath, instrumentSchemaFor, nearest } from '@isometra/core';
import {
  pendingOf,
  sheetOf,
  trySolve,
  type MachineCardText,
  type MoveWrite,
  type ReadingWrite,
  type Round,
  type RoundWrite,
  type ShopFacts,
  type StoredReading,
  type Survey,
} from '@isometra/contract';
import { ApiError, notFound, stale } from '../api/errors.js';
import { CheckRow, KitRow, MachineRow, MoveRow, ReadingRow, RoundRow, SurveyRow } from '../db/models.js';
import { differencesOf } from './differences.js';
import { writeLog } from './log.js';
import { listSurveys } from './surveys.js';
import { moveShown } from './moves.js';
import { CORE_VERSION } from './version.js';

export const readingShown = (row: ReadingRow): StoredReading => ({
  id: row.id,
  roundId: row.roundId,
  sequence: row.sequence,
  keys: row.keys as StoredReading['keys'],
  value: row.value !== null && row.bare ? Number(row.value) : row.value,
  set: row.setUp,
  supersedes: row.supersedes,
  why: row.why,
  by: row.by,
  at: row.at.toISOString(),
});

function roundShown(row: RoundRow, number: number, readings: StoredReading[], moves: MoveWrite[], survey: Survey, facts: ShopFacts): Round {
  const write = {
    id: row.id,
    machineId: row.machineId,
    check: row.kind,
    setup: row.setup,
    plan: row.plan,
    instrument: row.instrument,
    instrumentName: row.instrumentName,
    conditions: row.conditions as Round['conditions'],
    purpose: row.purpose as Round['purpose'],
    ...(row.note !== null && { note: row.note }),
    by: row.by,
    at: row.at.toISOString(),
    version: row.version,
  };
  const { finding } = trySolve(sheetOf(write, readings, { ...facts, limits: survey.judge, pending: pendingOf(survey) }));
  return { ...write, surveyId: survey.id, number, readings, moves, finding, coreVersion: CORE_VERSION };
}

/** Rounds of a machine, oldest first within each check, with readings, moves and findings worked out anew. */
export function listRounds(machineId: string, check?: string): Promise<Round[]> {
  return readRounds(machineId, check);
}

/**
 * The rounds asked for, in full. All of a check are numbered by their time, but only those asked for
 * have their readings fetched and are solved.
 */
async function readRounds(machineId: string, check?: string, only?: string): Promise<Round[]> {
  const machine = await MachineRow.findByPk(machineId);
  if (!machine) throw notFound('machine');
  const all = await RoundRow.findAll({
    where: { machineId, ...(check && { kind: check }) },
    order: [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const numbers = new Map<string, number>();
  const numbered = all.map((row) => {
    const number = (numbers.get(row.kind) ?? 0) + 1;
    numbers.set(row.kind, number);
    return { row, number };
  });
  const wanted = numbered.filter(({ row }) => only === undefined || row.id === only);
  const ids = wanted.map(({ row }) => row.id);
  const [surveys, rungs, readings, moves, shims] = await Promise.all([
    listSurveys(machineId),
    CheckRow.findAll({ where: { id: { [Op.in]: [...new Set(wanted.map(({ row }) => row.checkId))] } } }),
    ReadingRow.findAll({ where: { roundId: { [Op.in]: ids } }, order: [['sequence', 'ASC']] }),
    MoveRow.findAll({
      where: { roundId: { [Op.in]: ids } },
      order: [
        ['at', 'ASC'],
        ['id', 'ASC'],
      ],
    }),
    KitRow.findAll({ where: { kind: 'shim-stock' } }),
  ]);
  const surveyOf = new Map(rungs.map((rung) => [rung.id, surveys.find((survey) => survey.id === rung.surveyId) as Survey]));
  const stock = shims.length ? shims.flatMap((row) => row.data['stock'] as unknown[]) : undefined;
  return wanted.map(({ row, number }) => {
    const own = readings.filter((reading) => reading.roundId === row.id).map(readingShown);
    const done = moves.filter((move) => move.roundId === row.id).map(moveShown);
    return roundShown(row, number, own, done, surveyOf.get(row.checkId) as Survey, {
      card: machine.card as unknown as MachineCardText,
      stock,
    });
  });
}

export async function getRound(id: string): Promise<Round> {
  const row = await RoundRow.findByPk(id);
  const [round] = row ? await readRounds(row.machineId, row.kind, id) : [];
  if (!round) throw notFound('round');
  return round;
}

/** The rung of a check in the machine's running survey; made when it is first measured. */
async function rungFor(machineId: string, kind: string, transaction: Transaction): Promise<CheckRow> {
  const survey = await SurveyRow.findOne({ where: { machineId, endedAt: null }, order: [['startedAt', 'DESC']], transaction });
  if (!survey) throw notFound('survey');
  const known = await CheckRow.findOne({ where: { surveyId: survey.id, kind }, transaction });
  return known ?? CheckRow.create({ id: crypto.randomUUID(), surveyId: survey.id, kind }, { transaction });
}

const columns = (round: RoundWrite) => ({ ...facts(round), note: round.note ?? null });

/** Begin a round. Safe to send twice. */
export async function addRound(sequelize: Sequelize, round: RoundWrite): Promise<Round> {
  if (!CHECKS.has(round.check)) {
    const known = [...CHECKS.keys()];
    throw new ApiError(400, [
      {
        path: 'check',
        message: `"${round.check}" is not a check; there are ${known.join(', ')}`,
        example: nearest(round.check, known) ?? known[0],
      },
    ]);
  }
  if (await RoundRow.findByPk(round.id)) return getRound(round.id);
  const machine = await MachineRow.findByPk(round.machineId);
  if (!machine) throw new ApiError(400, [{ path: 'machineId', message: 'no such machine', example: 'the id of a machine from its list' }]);
  await sequelize.transaction(async (transaction) => {
    const rung = await rungFor(round.machineId, round.check, transaction);
    await RoundRow.create(
      {
        id: round.id,
        checkId: rung.id,
        machineId: round.machineId,
        kind: round.check,
        ...columns(round),
        by: round.by,
        at: new Date(round.at),
        version: 1,
      },
      { transaction },
    );
    await writeLog(
      {
        machineId: round.machineId,
        by: round.by,
        what: 'round',
        text: `${CHECKS.get(round.check)?.title ?? round.check}: round begun`,
        at: new Date(round.at),
      },
      transaction,
    );
  });
  return getRound(round.id);
}

/** Change setup, plan, instrument or conditions of a round, and log what was put right; a stale version gets 409 with the newer one. */
export async function changeRound(sequelize: Sequelize, round: RoundWrite): Promise<Round> {
  const before = await getRound(round.id);
  const differences = differencesOf(facts(before), facts(round), (path) => partName(before, path));
  if (differences.length === 0) return before;
  const changed = await sequelize.transaction(async (transaction) => {
    const [count] = await RoundRow.update(
      { ...columns(round), version: round.version + 1 },
      { where: { id: round.id, version: round.version }, transaction },
    );
    const text = `${CHECKS.get(before.check)?.title ?? before.check}, round ${before.number}: ${differences.join('; ')}`;
    if (count) await writeLog({ machineId: before.machineId, by: round.by, what: 'round', text }, transaction);
    return count;
  });
  const now = await getRound(round.id);
  if (!changed && differencesOf(facts(now), facts(round)).length) throw stale(now);
  return now;
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

const facts = ({ setup, plan, instrument, instrumentName, conditions, purpose, note }: RoundWrite) => ({
  setup,
  plan,
  instrument,
  instrumentName,
  conditions,
  purpose,
  note,
});

/** Take readings down. Never changed afterwards: a reading that supersedes another says why. */
export async function addReadings(sequelize: Sequelize, roundId: string, readings: readonly ReadingWrite[]): Promise<StoredReading[]> {
  const round = await RoundRow.findByPk(roundId);
  if (!round) throw notFound('round');
  await sequelize.transaction(async (transaction) => {
    await RoundRow.findByPk(roundId, { transaction, lock: transaction.LOCK.UPDATE });
    const known = await ReadingRow.findAll({ where: { roundId }, order: [['sequence', 'ASC']], transaction });
    const ids = new Set(known.map((row) => row.id));
    let sequence = known.length ? known[known.length - 1].sequence : 0;
    for (const [i, reading] of readings.entries()) {
      if (ids.has(reading.id)) continue;
      refuseBadReading(reading, ids, readings.length > 1 ? `[${i}].` : '');
      await createReading(reading, roundId, ++sequence, transaction);
      ids.add(reading.id);
      if (reading.supersedes) {
        const text = reading.value === null ? 'Reading withdrawn' : `Reading corrected to ${reading.value}`;
        await writeLog(
          { machineId: round.machineId, by: reading.by, what: 'reading', text: `${text}: ${reading.why ?? ''}`, at: new Date(reading.at) },
          transaction,
        );
      }
    }
  });
  return (await ReadingRow.findAll({ where: { roundId }, order: [['sequence', 'ASC']] })).map(readingShown);
}

function refuseBadReading(reading: ReadingWrite, known: ReadonlySet<string>, prefix: string): void {
  if (reading.supersedes && !known.has(reading.supersedes)) {
    throw new ApiError(400, [
      { path: `${prefix}supersedes`, message: 'no such reading in this round', example: 'the id of a reading of this round' },
    ]);
  }
  if (reading.supersedes && !reading.why)
    throw new ApiError(400, [
      { path: `${prefix}why`, message: 'is missing: say why the reading is replaced', example: 'misread the dial' },
    ]);
  if (!reading.supersedes && reading.value === null)
    throw new ApiError(400, [{ path: `${prefix}value`, message: 'is missing: give what the dial reads', example: '3.5 div' }]);
}

async function createReading(reading: ReadingWrite, roundId: string, sequence: number, transaction: Transaction): Promise<void> {
  const { value, at, set: setUp, ...rest } = reading;
  try {
    await ReadingRow.create(
      {
        ...rest,
        setUp,
        roundId,
        sequence,
        value: value === null ? null : String(value),
        bare: typeof value === 'number',
        at: new Date(at),
      },
      { transaction },
    );
  } catch (error) {
    if (!(error instanceof UniqueConstraintError)) throw error;
    throw new ApiError(409, [
      {
        path: 'supersedes',
        message: 'that reading has already been replaced; replace the newer one',
        example: 'the id of the newer reading',
      },
    ]);
  }
}
