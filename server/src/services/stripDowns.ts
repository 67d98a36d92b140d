import { Op, type Sequelize, type Transaction } from 'sequelize';
import type { NeededPart, Part, PartWrite, StoredStripDown, StripDown } from '@isometra/contract';
import { partTitle } from '@isometra/contract';
import { conditionWords, freeNumber, inNeed, needOf, shopDate } from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { MachineRow } from '../db/shopModels.js';
import { PartRow, StripDownRow } from '../db/stripDownModels.js';
import { inOneGo } from '../db/transactions.js';
import { atMostNow } from './clock.js';
import { differencesOf } from './differences.js';
import { writeLog } from './log.js';
import { pictureFault } from './pictureFaults.js';
import { keepState, type Version } from './states.js';

/** Who wrote something, and when. */
interface Signed {
  readonly by: string;
  readonly at: string;
}

const stripDownOf = ({ id, machineId, name, archived, version }: StripDownRow): StripDown => ({
  ...{ id, machineId, name, version },
  ...(archived && { archived }),
});

const partOf = ({ id, stripDownId, number, place, details, need, fitted, pictures, standing, version }: PartRow): Part => ({
  ...{ id, stripDownId, number, place, details, need, fitted, pictures, version },
  ...(!standing && { removed: true }),
});

const columns = (part: Part) => ({
  ...{ number: part.number, place: part.place, details: { ...part.details }, need: part.need, fitted: part.fitted },
  ...{ pictures: part.pictures, needState: needOf(part)?.state ?? null, standing: part.removed ? null : (true as const) },
});

/** A part as it is kept of every state. */
function stateOf(row: PartRow): Version {
  const { id: _id, stripDownId: _stripDown, version, ...state } = partOf(row);
  return { version, state };
}

/** What was taken apart of a machine, oldest first, with its parts. */
export async function listStripDowns(machineId: string): Promise<StoredStripDown[]> {
  const rows = await StripDownRow.findAll({ where: { machineId }, order: [['begunAt', 'ASC']] });
  const parts = await PartRow.findAll({
    where: { stripDownId: { [Op.in]: rows.map(({ id }) => id) } },
    order: [
      ['place', 'ASC'],
      ['number', 'ASC'],
    ],
  });
  return rows.map((row) => ({
    ...stripDownOf(row),
    begunAt: row.begunAt.toISOString(),
    parts: parts.filter(({ stripDownId }) => stripDownId === row.id).map(partOf),
  }));
}

/** What is needed for the parts of all machines: what nobody has begun, what is on order, what is here. What is done is left out. */
export async function listNeeded(today: string): Promise<NeededPart[]> {
  const rows = await PartRow.findAll({ where: { needState: { [Op.in]: ['needed', 'ordered', 'here'] } } });
  const stripDowns = new Map(
    (await StripDownRow.findAll({ where: { id: { [Op.in]: rows.map(({ stripDownId }) => stripDownId) }, archived: false } })).map((row) => [
      row.id,
      row,
    ]),
  );
  const machines = new Map(
    (await MachineRow.findAll({ where: { id: { [Op.in]: [...stripDowns.values()].map(({ machineId }) => machineId) } } })).map((row) => [
      row.id,
      row,
    ]),
  );
  const needed = rows.flatMap((row): NeededPart[] => {
    const stripDown = stripDowns.get(row.stripDownId);
    const machine = stripDown && machines.get(stripDown.machineId);
    return machine && !machine.archived
      ? [{ machineId: machine.id, machine: machine.number, stripDown: stripDown.name, part: partOf(row) }]
      : [];
  });
  return [...inNeed(needed, today)];
}

const aboutStripDown = ({ id, machineId }: StripDown, { by, at }: Signed) =>
  ({ machineId, by, what: 'strip-down', part: id, thing: 'strip-down', thingId: id, at: atMostNow(at) }) as const;

/** Begin to take something apart. Safe to send twice, also at the same moment. */
export async function addStripDown(sequelize: Sequelize, stripDown: StripDown, signed: Signed, given?: Transaction): Promise<StripDown> {
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        const { id, machineId, name } = stripDown;
        if (!(await MachineRow.findByPk(machineId, { transaction, attributes: ['id'] }))) throw notFound('machine');
        const row = await StripDownRow.create(
          { id, machineId, name, archived: false, begunAt: atMostNow(signed.at), version: 1 },
          { transaction },
        );
        await writeLog({ ...aboutStripDown(stripDown, signed), text: `${name}: strip-down begun` }, transaction);
        return stripDownOf(row);
      },
      given,
    );
  } catch (error) {
    const known = brokenRule(error) === 'PRIMARY' ? await StripDownRow.findByPk(stripDown.id) : null;
    if (!known) throw error;
    return stripDownOf(known);
  }
}

/** Rename, archive or restore one; a stale version gets 409 with the newer row. */
export function changeStripDown(sequelize: Sequelize, stripDown: StripDown, signed: Signed): Promise<StripDown> {
  return inOneGo(sequelize, async (transaction) => {
    const row = await StripDownRow.findByPk(stripDown.id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound('strip-down');
    const before = stripDownOf(row);
    const archived = stripDown.archived ?? false;
    if (before.name === stripDown.name && row.archived === archived) return before;
    if (before.version !== stripDown.version) throw stale(before);
    const did = row.archived === archived ? `now called ${stripDown.name}` : archived ? 'archived' : 'restored';
    await row.update({ name: stripDown.name, archived, version: before.version + 1 }, { transaction });
    await writeLog({ ...aboutStripDown(before, signed), text: `${before.name}: ${did}` }, transaction);
    return stripDownOf(row);
  });
}

/** What was done to a part, in the words of the log. */
function doneTo(before: Part, now: Part): string {
  if (!!before.removed !== !!now.removed) return now.removed ? 'removed from the list' : 'put back in the list';
  if (!!before.fitted !== !!now.fitted) return now.fitted ? 'fitted' : 'not fitted after all';
  const [was, is] = [needOf(before)?.state, needOf(now)?.state];
  const rest = differencesOf({ ...before, need: null, version: 0 }, { ...now, need: null, version: 0 });
  if (rest.length) return 'changed';
  if (was !== is && is)
    return `${conditionWords(now)}: ${[is, now.need?.expected && `expected ${shopDate(now.need.expected, null)}`].filter(Boolean).join(', ')}`;
  return now.need?.expected ? `expected ${shopDate(now.need.expected, null)}` : 'changed';
}

/** The strip-down of a part, locked: numbers of its parts are given one after the other. */
async function lockedStripDown(id: string, transaction: Transaction): Promise<StripDownRow> {
  const row = await StripDownRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
  if (!row) throw notFound('strip-down');
  return row;
}

/** A number is on one part of a strip-down. */
async function refuseTakenNumber({ id, stripDownId, number, removed }: Part, transaction: Transaction): Promise<void> {
  if (removed) return;
  const others = await PartRow.findAll({ where: { stripDownId, standing: true, id: { [Op.ne]: id } }, transaction });
  const taken = others.find((row) => row.number === number);
  if (!taken) return;
  throw new ApiError(
    409,
    [
      {
        path: 'number',
        message: `${number} is on ${String(taken.details['name'] ?? 'another part')} already`,
        example: String(freeNumber(others)),
      },
    ],
    undefined,
    'duplicate',
  );
}

async function refuseFaulty(part: Part, transaction: Transaction): Promise<void> {
  await refuseTakenNumber(part, transaction);
  const fault = await pictureFault(part.pictures, transaction);
  if (fault) throw new ApiError(400, [fault]);
}

const partAlone = ({ by: _by, at: _at, ...part }: PartWrite): Part => part;

const aboutPart = (stripDown: StripDownRow, { id }: Part, { by, at }: Signed) =>
  ({ machineId: stripDown.machineId, by, what: 'strip-down', part: stripDown.id, thing: 'part', thingId: id, at: atMostNow(at) }) as const;

/** Write down a part that came off. Safe to send twice, also at the same moment; a number that is taken gets 409 and a free one. */
export async function addPart(sequelize: Sequelize, sent: PartWrite, given?: Transaction): Promise<Part> {
  const part = partAlone(sent);
  const write = async (transaction: Transaction): Promise<Part> => {
    const stripDown = await lockedStripDown(part.stripDownId, transaction);
    const known = await PartRow.findByPk(part.id, { transaction });
    if (known) return partOf(known);
    await refuseFaulty(part, transaction);
    const row = await PartRow.create({ id: part.id, stripDownId: part.stripDownId, ...columns(part), version: 1 }, { transaction });
    await writeLog({ ...aboutPart(stripDown, part, sent), text: `${stripDown.name}: ${partTitle(part)} came off` }, transaction);
    await keepState({ what: 'parts', id: part.id, by: sent.by, at: atMostNow(sent.at) }, stateOf(row), null, transaction);
    return partOf(row);
  };
  return inOneGo(sequelize, write, given);
}

/** Change a part: its record, its state, whether it is fitted. A stale version gets 409 with the newer row. */
export async function changePart(sequelize: Sequelize, sent: PartWrite, given?: Transaction): Promise<Part> {
  const part = partAlone(sent);
  const write = async (transaction: Transaction): Promise<Part> => {
    const stripDown = await lockedStripDown(part.stripDownId, transaction);
    const row = await PartRow.findByPk(part.id, { transaction, lock: transaction.LOCK.UPDATE });
    if (row?.stripDownId !== part.stripDownId) throw notFound('part');
    const before = partOf(row);
    const differences = differencesOf(
      { ...before, version: 0, removed: !!before.removed },
      { ...part, version: 0, removed: !!part.removed },
    );
    if (differences.length === 0) return before;
    if (before.version !== part.version) throw stale(before);
    await refuseFaulty(part, transaction);
    const then = stateOf(row);
    await row.update({ ...columns(part), version: before.version + 1 }, { transaction });
    await keepState({ what: 'parts', id: part.id, by: sent.by, at: atMostNow(sent.at) }, stateOf(row), then, transaction);
    await writeLog(
      { ...aboutPart(stripDown, part, sent), text: `${stripDown.name}: ${partTitle(part)}: ${doneTo(before, part)}` },
      transaction,
    );
    return partOf(row);
  };
  return inOneGo(sequelize, write, given);
}
