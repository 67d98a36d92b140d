import { FILE_SIZES } from '@isometra/core';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { surfaceSchema, type DeskEntry, type StoredSurface, type Surface } from '@isometra/contract';
import { endsEvening, entryFaults, EVENING_PAUSE, entryWords, eveningUpTo, standing, surfaceFaults } from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { LogRow, MachineRow } from '../db/shopModels.js';
import { SurfaceEntryRow, SurfaceRow } from '../db/scrapingModels.js';
import { inOneGo } from '../db/transactions.js';
import { atMostNow } from './clock.js';
import { differencesOf } from './differences.js';
import { writeLog, type Entry } from './log.js';
import { lostPictures } from './pictureFaults.js';
import { keepState, type Version } from './states.js';

const faceOf = ({ id, machineId, name, card, version }: SurfaceRow): Surface => ({
  ...(card as Omit<Surface, 'id'>),
  id,
  machineId,
  name,
  version,
});
const entryOf = ({ id, surfaceId, kind, content, supersedes, by, at }: SurfaceEntryRow): DeskEntry =>
  ({ id, surfaceId, kind, content, supersedes, by, at: at.toISOString() }) as DeskEntry;
const columns = ({ id: _id, machineId: _machine, name, version: _version, ...card }: Surface) => ({ name, card: { ...card } });

function refuseFaulty(surface: Surface): void {
  const faults = surfaceFaults(surface);
  if (faults.length) throw new ApiError(400, faults);
}

/** The mate of a face is another face of its machine. */
async function refuseStrangeMate({ machineId, mate }: Surface, transaction: Transaction): Promise<void> {
  if (!mate || (await SurfaceRow.count({ where: { id: mate.surfaceId, machineId }, transaction }))) return;
  throw new ApiError(400, [{ path: 'mate.surfaceId', message: 'is no face of this machine', example: 'the id of another face' }]);
}

const IN_ORDER: [string, string][] = [
  ['at', 'ASC'],
  ['sequence', 'ASC'],
];

/** Everything written down at some faces, oldest first. */
async function entriesOf(surfaceIds: readonly string[], transaction?: Transaction): Promise<ReadonlyMap<string, DeskEntry[]>> {
  const rows = await SurfaceEntryRow.findAll({
    where: { surfaceId: { [Op.in]: [...surfaceIds] } },
    order: IN_ORDER,
    transaction,
  });
  const entries = new Map<string, DeskEntry[]>(surfaceIds.map((id) => [id, []]));
  for (const row of rows) entries.get(row.surfaceId)?.push(entryOf(row));
  return entries;
}

/** The faces of a machine with what was written down at them. */
export async function listSurfaces(machineId: string): Promise<StoredSurface[]> {
  const rows = await SurfaceRow.findAll({ where: { machineId }, order: [['name', 'ASC']] });
  const entries = await entriesOf(rows.map(({ id }) => id));
  return rows.map((row) => ({ ...faceOf(row), entries: entries.get(row.id) ?? [] }));
}

/** A face as it is described, by its version. */
function stateOf(row: SurfaceRow): Version {
  const { id: _id, machineId: _machine, version, ...state } = faceOf(row);
  return { version, state };
}

/** What the log says of every entry of a face. */
const placeOf = ({ id, machineId }: SurfaceRow, by: string) =>
  ({ machineId, by, what: 'scraping', part: id, thing: 'face', thingId: id }) as const;

/** Add a face. Safe to send twice, also at the same moment. */
export async function addSurface(sequelize: Sequelize, surface: Surface, by: string, given?: Transaction): Promise<Surface> {
  refuseFaulty(surface);
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        if (!(await MachineRow.findByPk(surface.machineId, { transaction, attributes: ['id'] }))) throw notFound('machine');
        await refuseStrangeMate(surface, transaction);
        const row = await SurfaceRow.create(
          { id: surface.id, machineId: surface.machineId, ...columns(surface), version: 1 },
          { transaction },
        );
        await writeLog({ ...placeOf(row, by), text: `${surface.name}: a face to scrape` }, transaction);
        await keepState({ what: 'surfaces', id: surface.id, by }, stateOf(row), null, transaction);
        return faceOf(row);
      },
      given,
    );
  } catch (error) {
    const known = brokenRule(error) === 'PRIMARY' ? await SurfaceRow.findByPk(surface.id) : null;
    if (!known) throw error;
    return faceOf(known);
  }
}

/** Change a face; a stale version gets 409 with the newer row. Zones that passes were made on stay. */
export function changeSurface(sequelize: Sequelize, surface: Surface, by: string): Promise<Surface> {
  refuseFaulty(surface);
  return inOneGo(sequelize, async (transaction) => {
    const row = await SurfaceRow.findByPk(surface.id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound('face');
    const before = faceOf(row);
    const differences = differencesOf({ ...before }, { ...surface, version: before.version });
    if (before.version !== surface.version) {
      if (differences.length) throw stale(before);
      return before;
    }
    if (differences.length === 0) return before;
    await refuseStrangeMate(surface, transaction);
    const then = stateOf(row);
    await row.update({ ...columns(surface), version: surface.version + 1 }, { transaction });
    await keepState({ what: 'surfaces', id: surface.id, by }, stateOf(row), then, transaction);
    const away = (surface.putAway ?? false) !== (before.putAway ?? false);
    const did = !away ? 'changed' : surface.putAway ? 'archived' : 'restored';
    await writeLog({ ...placeOf(row, by), text: `${surface.name}: ${did}` }, transaction);
    return faceOf(row);
  });
}

/** An entry in words for the log; a pass is counted at the end of the evening. */
function textOf(entry: DeskEntry, before: readonly DeskEntry[], unit: string): string | undefined {
  switch (entry.kind) {
    case 'pass':
    case 'blue':
      return undefined;
    case 'withdrawn': {
      const gone = before.find(({ id }) => id === entry.supersedes);
      return gone?.kind === 'pass' ? undefined : `taken back: ${gone ? entryWords(gone, unit, FILE_SIZES) : 'an entry'}`;
    }
    default:
      return entryWords(entry, unit, FILE_SIZES);
  }
}

/** Pictures that entries speak of and that are not kept here. */
const unknownPictures = (entries: readonly DeskEntry[], transaction: Transaction): Promise<ReadonlySet<string>> =>
  lostPictures(
    entries.flatMap((entry) => (entry.kind === 'print' && entry.content.picture !== null ? [entry.content.picture] : [])),
    transaction,
  );

/** Rows that entries speak of: themselves where they were sent before, and what they put right. A pass costs the same after ten and after ten thousand. */
async function spokenOf(entries: readonly DeskEntry[], transaction: Transaction): Promise<DeskEntry[]> {
  const ids = entries.flatMap(({ id, supersedes }) => (supersedes === null ? [id] : [id, supersedes]));
  return (await SurfaceEntryRow.findAll({ where: { id: { [Op.in]: ids } }, transaction })).map(entryOf);
}

/** An evening is no longer than this, ms. */
const LONGEST = 36 * 3_600_000;

/** Passes made in the evening that an entry ends, those of the same parcel among them. A pass costs the same after ten and after ten thousand. */
async function passesIn(entry: DeskEntry, fresh: readonly DeskEntry[], transaction: Transaction): Promise<number> {
  const rows = await SurfaceEntryRow.findAll({
    where: { surfaceId: entry.surfaceId, at: { [Op.gte]: new Date(Date.parse(entry.at) - LONGEST), [Op.lte]: new Date(entry.at) } },
    order: IN_ORDER,
    transaction,
  });
  const written = standing([...rows.map(entryOf), ...fresh, entry]);
  return eveningUpTo(written, entry.id, endsEvening).filter(({ kind }) => kind === 'pass').length;
}

const passWords = (passes: number): string => (passes === 1 ? '1 pass' : `${passes} passes`);
const eveningWords = (passes: number): string => `done for the evening, ${passWords(passes)}`;

/** The evening before a pass, where nobody said that it was done: told once the next one begins, at the time of its last entry. */
async function eveningLeft(pass: DeskEntry, row: SurfaceRow, transaction: Transaction): Promise<readonly Entry[]> {
  const last = await SurfaceEntryRow.findOne({
    where: { surfaceId: row.id, at: { [Op.lt]: new Date(pass.at) } },
    order: IN_ORDER.map(([column]): [string, string] => [column, 'DESC']),
    transaction,
  });
  if (!last || last.kind === 'done' || Date.parse(pass.at) - last.at.getTime() <= EVENING_PAUSE) return [];
  const passes = await passesIn(entryOf(last), [], transaction);
  if (passes === 0) return [];
  const told: Entry = {
    ...placeOf(row, last.by),
    text: `${row.name}: ${passWords(passes)}; nobody wrote that the evening was done`,
    at: last.at,
  };
  return (await LogRow.count({ where: { thingId: row.id, at: last.at, text: told.text }, transaction })) > 0 ? [] : [told];
}

async function writeEntries(sent: readonly DeskEntry[], surfaceId: string, transaction: Transaction): Promise<DeskEntry[]> {
  const row = await SurfaceRow.findByPk(surfaceId, { transaction, lock: transaction.LOCK.UPDATE });
  if (!row) throw notFound('face');
  const entries = sent.map((entry): DeskEntry => ({ ...entry, at: atMostNow(entry.at).toISOString() }));
  const written = await spokenOf(entries, transaction);
  const surface = surfaceSchema.parse(faceOf(row));
  const missing = await unknownPictures(entries, transaction);
  const answers: DeskEntry[] = [];
  const fresh: DeskEntry[] = [];
  const said: Entry[] = [];
  for (const entry of entries) {
    const known = written.find(({ id }) => id === entry.id);
    answers.push(known ?? entry);
    if (known) continue;
    const faults = entryFaults(entry, surface, written);
    if (entry.kind === 'print' && entry.content.picture !== null && missing.has(entry.content.picture))
      faults.push({ path: 'content.picture', message: 'is not kept here', example: 'the name of a picture that was sent before' });
    if (faults.length) throw new ApiError(400, faults);
    const text =
      entry.kind === 'done' ? eveningWords(await passesIn(entry, fresh, transaction)) : textOf(entry, written, surface.aim?.unit ?? '');
    if (entry.kind === 'pass' && fresh.length === 0) said.push(...(await eveningLeft(entry, row, transaction)));
    if (text) said.push({ ...placeOf(row, entry.by), text: `${row.name}: ${text}`, at: new Date(entry.at) });
    written.push(entry);
    fresh.push(entry);
  }
  await SurfaceEntryRow.bulkCreate(
    fresh.map(({ id, kind, content, supersedes, by, at }) => ({
      id,
      surfaceId,
      kind,
      content: { ...content },
      supersedes,
      by,
      at: new Date(at),
    })),
    { transaction },
  );
  await writeLog(said, transaction);
  return answers;
}

/**
 * Write something down at the desk, in order: never changed afterwards, only superseded. Safe to send twice, also at the same
 * moment. All of it or nothing.
 */
export async function addEntries(
  sequelize: Sequelize,
  entries: readonly DeskEntry[],
  surfaceId: string,
  given?: Transaction,
): Promise<DeskEntry[]> {
  return inOneGo(sequelize, (transaction) => writeEntries(entries, surfaceId, transaction), given);
}
