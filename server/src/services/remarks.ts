import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { isTakenBack, type Remark } from '@isometra/contract';
import { ticked, tickedOnly } from '@isometra/work';
import { ApiError } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { RemarkRow } from '../db/remarkModel.js';
import { MachineRow } from '../db/shopModels.js';
import { inOneGo } from '../db/transactions.js';
import { atMostNow } from './clock.js';
import { writeLog } from './log.js';
import { pictureFault } from './pictureFaults.js';

const shown = ({ id, machineId, part, place, text, pictures, supersedes, by, at }: RemarkRow): Remark => ({
  ...{ id, machineId, part, place, text, pictures, supersedes, by },
  at: at.toISOString(),
});

const photographs = (count: number): string => (count === 1 ? 'Photograph' : `${count} photographs`);

/** What the log says of a note: its own words, what was done of it, or that it was changed. */
function logText(remark: Remark, before: Remark | null): string {
  const own = [remark.text, remark.pictures.length ? `(${photographs(remark.pictures.length)})` : ''].filter(Boolean).join(' ');
  if (!before) return own;
  if (isTakenBack(remark)) return 'A note was taken back';
  const done = JSON.stringify(before.pictures) === JSON.stringify(remark.pictures) ? tickedOnly(before.text, remark.text) : undefined;
  if (!done?.length) return own;
  return done.map(({ text, done: now }) => `${now ? 'Done' : 'Not done after all'}: ${text}`).join('; ');
}

async function refuseFaulty({ machineId, supersedes, pictures }: Remark, transaction: Transaction): Promise<Remark | null> {
  if (machineId !== null && !(await MachineRow.findByPk(machineId, { transaction, attributes: ['id'] })))
    throw new ApiError(400, [{ path: 'machineId', message: 'no such machine', example: 'the id of a machine from its list' }]);
  const fault = await pictureFault(pictures, transaction);
  if (fault) throw new ApiError(400, [fault]);
  if (supersedes === null) return null;
  const before = await RemarkRow.findByPk(supersedes, { transaction, lock: transaction.LOCK.UPDATE });
  if (!before) throw new ApiError(400, [{ path: 'supersedes', message: 'no such note', example: 'the id of a note' }]);
  return shown(before);
}

/** Two people ticked things of one note: what the later one ticked is ticked on what stands now. Undefined where anything else was changed. */
async function tickedAsWell(remark: Remark, now: Remark): Promise<Remark | undefined> {
  const base = await RemarkRow.findByPk(remark.supersedes ?? '');
  const mine = base ? tickedOnly(base.text, remark.text) : undefined;
  const same = base && JSON.stringify(base.pictures) === JSON.stringify(remark.pictures);
  if (!mine?.length || !same || tickedOnly(base.text, now.text) === undefined) return undefined;
  const text = mine.reduce((words, { line, done = false }) => ticked(words, line, done), now.text);
  return { ...remark, text, pictures: now.pictures, supersedes: now.id };
}

/** Write a note. Safe to send twice, also at the same moment; one that was superseded already gets 409 with what stands now. */
export async function addRemark(sequelize: Sequelize, remark: Remark, given?: Transaction): Promise<Remark> {
  const at = atMostNow(remark.at);
  try {
    const write = async (transaction: Transaction): Promise<Remark> => {
      const before = await refuseFaulty(remark, transaction);
      const row = await RemarkRow.create({ ...remark, path: remark.place.path, at }, { transaction });
      const { id, machineId, part, by } = remark;
      const was = before && isTakenBack(remark) ? before.text : null;
      await writeLog(
        { machineId, by, what: 'note', text: logText(remark, before), was, part, thing: 'note', thingId: id, at },
        transaction,
      );
      return shown(row);
    };
    return await inOneGo(sequelize, write, given);
  } catch (error) {
    const rule = brokenRule(error);
    const known = rule === undefined ? null : await RemarkRow.findByPk(remark.id);
    if (known) return shown(known);
    const other =
      rule === undefined || !remark.supersedes ? undefined : (await newestOf(sequelize, [remark.supersedes])).get(remark.supersedes);
    if (!other) throw error;
    const both = await tickedAsWell(remark, other);
    if (both) return addRemark(sequelize, both, given);
    throw new ApiError(
      409,
      [{ path: 'supersedes', message: 'the note was changed meanwhile', example: 'what stands there now' }],
      other,
      'stale',
    );
  }
}

const CHAIN = `WITH RECURSIVE chain (root, id, depth) AS (
    SELECT id, id, 0 FROM remarks WHERE id IN (:ids)
    UNION ALL SELECT c.root, r.id, c.depth + 1 FROM remarks r JOIN chain c ON r.supersedes = c.id WHERE c.depth < 1000
  ) SELECT c.root, c.id FROM chain c JOIN (SELECT root, MAX(depth) AS depth FROM chain GROUP BY root) last USING (root, depth)`;

/** What stands now in the place of some notes, by their ids. */
export async function newestOf(sequelize: Sequelize, ids: readonly string[]): Promise<ReadonlyMap<string, Remark>> {
  if (ids.length === 0) return new Map();
  const ends = await sequelize.query<{ root: string; id: string }>(CHAIN, { replacements: { ids }, type: QueryTypes.SELECT });
  const rows = new Map(
    (await RemarkRow.findAll({ where: { id: { [Op.in]: ends.map(({ id }) => id) } } })).map((row) => [row.id, shown(row)]),
  );
  return new Map(ends.map(({ root, id }) => [root, rows.get(id) as Remark]));
}

/** The most notes that one screen is told of. */
const MOST = 50;

/** The most notes with something to do that are looked at. */
const MOST_OPEN = 2000;

/** Notes as they stand in which something may still be to be done, of one machine or of all, oldest first. */
export async function openRemarks(sequelize: Sequelize, machineId?: string): Promise<Remark[]> {
  const rows = await RemarkRow.findAll({
    where: {
      ...(machineId !== undefined && { machineId }),
      text: { [Op.like]: '%[ ]%' },
      id: { [Op.notIn]: sequelize.literal('(SELECT supersedes FROM remarks WHERE supersedes IS NOT NULL)') },
    },
    order: [['sequence', 'ASC']],
    limit: MOST_OPEN,
  });
  return rows.map(shown);
}

/** What was written on one screen and stands, newest first. */
export async function listRemarks({ path }: { readonly path: string }): Promise<Remark[]> {
  const rows = await RemarkRow.findAll({
    where: {
      path,
      id: { [Op.notIn]: (RemarkRow.sequelize as Sequelize).literal('(SELECT supersedes FROM remarks WHERE supersedes IS NOT NULL)') },
    },
    order: [['sequence', 'DESC']],
    limit: MOST,
  });
  return rows.map(shown).filter((remark) => !isTakenBack(remark));
}
