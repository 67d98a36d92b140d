import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { ReadingWrite, RoundWrite, StoredReading } from '@isometra/contract';
import { isWithdrawn, readingFaults, readingTold } from '@isometra/work';
import { ApiError, notFound } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { fromJson } from '../db/columns.js';
import { ReadingRow } from '../db/surveyModels.js';
import { gaveWay, inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';
import { readingShown } from './roundRows.js';

/** The round that readings are put into. */
type ReadInto = Pick<RoundWrite, 'machineId' | 'check' | 'setup' | 'instrument' | 'version'>;

/** A reading as it is told. */
type Told = Pick<ReadingWrite, 'value' | 'keys'>;

/** Every reading that its check cannot read, by its place among those sent. */
function refuseFaulty(round: ReadInto, readings: readonly ReadingWrite[]): void {
  const prefix = (i: number): string => (readings.length > 1 ? `[${i}].` : '');
  const faults = readings.flatMap((reading, i) =>
    [...replacementFaults(reading), ...readingFaults(round, reading)].map((fault) => ({
      ...fault,
      path: `${prefix(i)}${fault.path}`,
    })),
  );
  if (faults.length) throw new ApiError(400, faults.slice(0, 50));
}

function replacementFaults({ supersedes, why }: ReadingWrite) {
  return supersedes && !why ? [{ path: 'why', message: 'is missing: say why the reading is replaced', example: 'misread the dial' }] : [];
}

/** What a reading replaces must stand in the same round, or be sent with it. */
async function refuseStrangers(
  roundId: string,
  readings: readonly ReadingWrite[],
  transaction: Transaction,
): Promise<ReadonlyMap<string, Told>> {
  const wanted = readings.flatMap(({ supersedes }) => (supersedes ? [supersedes] : []));
  if (wanted.length === 0) return new Map();
  const known = await ReadingRow.findAll({ where: { roundId, id: { [Op.in]: wanted } }, transaction });
  const all = new Map<string, Told>([...known.map(readingShown), ...readings].map((reading) => [reading.id, reading]));
  const stranger = readings.findIndex(({ supersedes }) => supersedes && !all.has(supersedes));
  if (stranger < 0) return all;
  const path = `${readings.length > 1 ? `[${stranger}].` : ''}supersedes`;
  throw new ApiError(400, [{ path, message: 'no such reading in this round', example: 'the id of a reading of this round' }]);
}

const COLUMNS = ['id', 'roundId', 'sequence', 'keys', 'value', 'bare', 'setUp', 'supersedes', 'why', 'by', 'at'] as const;
const INSERT = `INSERT INTO readings (${COLUMNS.map((column) => `\`${column}\``).join(', ')}) VALUES `;
const ROW = `(${COLUMNS.map(() => '?').join(', ')})`;

const valuesOf = ({ id, roundId, sequence, keys, value, set, supersedes, why, by, at }: StoredReading) => [
  ...[id, roundId, sequence, JSON.stringify(keys), value === null ? null : String(value)],
  ...[typeof value === 'number', set, supersedes, why, by, new Date(at)],
];

/** Put readings at the end of their round, whose row is locked. By hand: the models cost more here than the database does. */
async function append(
  sequelize: Sequelize,
  roundId: string,
  readings: readonly ReadingWrite[],
  transaction: Transaction,
): Promise<StoredReading[]> {
  const [{ last }] = await sequelize.query<{ last: number | null }>('SELECT MAX(sequence) AS last FROM readings WHERE roundId = ?', {
    replacements: [roundId],
    type: QueryTypes.SELECT,
    transaction,
  });
  const taken = readings.map((reading, i): StoredReading => ({ ...reading, roundId, sequence: Number(last ?? 0) + i + 1 }));
  await sequelize.query(INSERT + taken.map(() => ROW).join(', '), {
    replacements: taken.flatMap(valuesOf),
    type: QueryTypes.INSERT,
    transaction,
  });
  return taken;
}

/**
 * Rounds that readings were put into lately, as the door needs them. Only a hint: a statement that leans on one names
 * its version, and does nothing when that is no longer the round's.
 */
const lately = new Map<string, ReadInto>();
const MOST_LATELY = 500;

function remember(roundId: string, round: ReadInto): void {
  lately.delete(roundId);
  lately.set(roundId, round);
  if (lately.size > MOST_LATELY) for (const oldest of [...lately.keys()].slice(0, lately.size - MOST_LATELY)) lately.delete(oldest);
}

const QUICK = `INSERT INTO readings (${COLUMNS.map((column) => `\`${column}\``).join(', ')})
  SELECT ${COLUMNS.map((column) => (column === 'sequence' ? '(SELECT COALESCE(MAX(x.sequence), 0) + 1 FROM readings x WHERE x.roundId = r.id)' : '?')).join(', ')}
  FROM rounds r WHERE r.id = ? AND r.version = ? RETURNING sequence`;

/**
 * One reading in one statement: the usual case, at the speed of the database. Undefined where that does not do, because
 * the round was changed, the reading is known, or another is being put into the round: then it is done with care.
 */
async function takeQuickly(sequelize: Sequelize, roundId: string, reading: ReadingWrite): Promise<StoredReading | undefined> {
  const round = lately.get(roundId);
  if (!round || reading.supersedes !== null) return undefined;
  refuseFaulty(round, [reading]);
  const [id, , , ...rest] = valuesOf({ ...reading, roundId, sequence: 0 });
  try {
    const [placed] = await sequelize.query<{ sequence: number }>(QUICK, {
      replacements: [id, roundId, ...rest, roundId, round.version],
      type: QueryTypes.SELECT,
    });
    return placed && { ...reading, roundId, sequence: Number(placed.sequence) };
  } catch (error) {
    if (brokenRule(error) === undefined && !gaveWay(error)) throw error;
    return undefined;
  }
}

/** What the door needs to know of a round; its row is locked until the transaction ends. */
async function lockRound(sequelize: Sequelize, roundId: string, transaction: Transaction): Promise<ReadInto> {
  const [row] = await sequelize.query<{ machineId: string; kind: string; setup: string; instrument: string | null; version: number }>(
    'SELECT machineId, kind, setup, instrument, version FROM rounds WHERE id = ? FOR UPDATE',
    { replacements: [roundId], type: QueryTypes.SELECT, transaction },
  );
  if (!row) throw notFound('round');
  const { machineId, kind: check, setup, instrument, version } = row;
  const round = { machineId, check, setup: fromJson(setup) ?? {}, instrument: fromJson(instrument), version };
  remember(roundId, round);
  return round;
}

/** Take readings down, in one transaction; those that were taken down before are left as they are. */
function take(
  sequelize: Sequelize,
  roundId: string,
  readings: readonly ReadingWrite[],
  known: ReadonlySet<string>,
  given?: Transaction,
): Promise<StoredReading[]> {
  return inOneGo(
    sequelize,
    async (transaction) => {
      const round = await lockRound(sequelize, roundId, transaction);
      const fresh = readings.filter(({ id }) => !known.has(id));
      if (fresh.length === 0) return [];
      refuseFaulty(round, readings);
      const before = await refuseStrangers(roundId, fresh, transaction);
      const taken = await append(sequelize, roundId, fresh, transaction);
      await writeLog(
        fresh
          .filter(({ supersedes }) => supersedes)
          .map((reading) => {
            const { why, by, at, supersedes } = reading;
            const old = before.get(supersedes ?? '');
            const place = { part: round.check, thing: 'round', thingId: roundId } as const;
            return {
              ...{ machineId: round.machineId, by, what: 'reading', ...place },
              text: `${isWithdrawn(reading) ? 'Reading taken back' : `Reading corrected to ${readingTold(round.check, reading)}`}: ${why ?? ''}`,
              was: old ? readingTold(round.check, old) || null : null,
              at: new Date(at),
            };
          }),
        transaction,
      );
      return taken;
    },
    given,
  );
}

/**
 * Take readings down at the end of their round. Never changed afterwards: a reading that supersedes another says why.
 * Safe to send twice, also at the same moment, and together with others that are new.
 *
 * @returns the readings that were sent, each with its place in its round.
 */
export async function addReadings(
  sequelize: Sequelize,
  roundId: string,
  readings: readonly ReadingWrite[],
  given?: Transaction,
): Promise<StoredReading[]> {
  const once = [...new Map(readings.map((reading) => [reading.id, reading])).values()];
  const quick = once.length === 1 && !given ? await takeQuickly(sequelize, roundId, once[0]) : undefined;
  if (quick) return [quick];
  try {
    return await take(sequelize, roundId, once, new Set(), given);
  } catch (error) {
    if (brokenRule(error) !== 'PRIMARY') throw error;
  }
  const ids = once.map(({ id }) => id);
  const before = await ReadingRow.findAll({ where: { roundId, id: { [Op.in]: ids } } });
  const taken = await take(sequelize, roundId, once, new Set(before.map(({ id }) => id)), given);
  const all = new Map([...before.map(readingShown), ...taken].map((reading) => [reading.id, reading]));
  return ids.map((id) => all.get(id) as StoredReading);
}
