import { QueryTypes, type Sequelize } from 'sequelize';
import { CHECKS } from '@isometra/core';
import type {
  Machine,
  MachinePlan,
  NamedDate,
  PlanSettled,
  PlannedPerson,
  PlanWrite,
  Remark,
  ShopCard,
  ShopPlan,
  Span,
  StoredPlan,
} from '@isometra/contract';
import {
  campaignOf,
  daysBetween,
  durationsIn,
  howGood,
  jobItemsBy,
  knownToDo,
  lookFaults,
  plannedPeople,
  shopDate,
  shopDay,
  type Firsts,
  type ShopRecords,
} from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { NamedDateRow, PlanRow } from '../db/planModels.js';
import { MachineRow } from '../db/shopModels.js';
import { SurveyRow } from '../db/surveyModels.js';
import { inOneGo } from '../db/transactions.js';
import { differencesOf } from './differences.js';
import { firstsOfKinds } from './firsts.js';
import { listHeads } from './heads.js';
import { listKit } from './kit.js';
import { lastLog, writeLog } from './log.js';
import type { Shelf } from './logbook.js';
import { listMachines } from './machines.js';
import { listPeople } from './people.js';
import { openRemarks } from './remarks.js';
import { readShopCard, shopZone } from './shop.js';
import { keepState, type Version } from './states.js';
import { listStripDowns } from './stripDowns.js';
import { listSurfaces } from './surfaces.js';
import { listSurveys } from './surveys.js';
import { timings } from './timings.js';

const NOTHING: PlanSettled = { changes: [], own: [], order: [] };

const settledOf = (machineId: string, row: PlanRow | null | undefined): StoredPlan => ({
  ...(row?.settled ?? NOTHING),
  machineId,
  version: row?.version ?? 0,
});

/** Machines whose records are fetched side by side. */
const AT_ONCE = 4;

/** Everything that the notebook has of a machine, with what was settled of its plan. */
async function recordsOf({ sequelize, solver }: Shelf, machine: Machine, notes: readonly Remark[]) {
  const { id } = machine;
  const [heads, surveys, surfaces, stripDowns, leftOff, row] = await Promise.all([
    listHeads(sequelize, solver, id),
    listSurveys(id),
    listSurfaces(id),
    listStripDowns(id),
    lastLog(id),
    PlanRow.findByPk(id),
  ]);
  const settled = settledOf(id, row);
  const records = { machine, heads, surveys: surveys.map(campaignOf), surfaces, stripDowns, notes, looks: settled.looks ?? [] };
  return { records, settled, leftOff };
}

type Records = Awaited<ReturnType<typeof recordsOf>>;

/** One machine's plan. */
function planOf({ records, settled, leftOff }: Records, shop: Shop): MachinePlan {
  const { id, card } = records.machine;
  const known = knownToDo(records, { ...shop.records, firsts: shop.firsts.get(String(card.kind)) ?? new Map() });
  return { machineId: id, number: String(card.number), items: jobItemsBy(known, settled.changes, shop.people), settled, leftOff };
}

interface Shop {
  readonly records: Omit<ShopRecords, 'firsts'>;
  readonly people: readonly PlannedPerson[];
  /** What first rounds said, by kind of machine and by check. */
  readonly firsts: ReadonlyMap<string, ReadonlyMap<string, Firsts>>;
}

/**
 * What is left to do on one machine, or on all that are not in the archive, with those who can do it.
 *
 * @param only the id of a machine. @param now ISO time.
 */
export async function shopPlan(shelf: Shelf, only?: string, now = new Date().toISOString()): Promise<ShopPlan> {
  const { sequelize } = shelf;
  const [all, zone, card, kit, timed, people, named] = await Promise.all([
    listMachines(),
    shopZone(),
    readShopCard(),
    listKit(),
    timings(sequelize),
    listPeople(sequelize),
    namedDates(sequelize),
  ]);
  const machines = all.filter((machine) => (only === undefined ? !machine.archived : machine.id === only));
  if (only !== undefined && machines.length === 0) throw notFound('machine');
  const notes = await openRemarks(sequelize, only);
  const planned = plannedPeople(
    people.filter(({ meant }) => meant === null),
    card.hours,
  );
  const notesOf = ({ id }: Machine) => notes.filter(({ machineId }) => machineId === id);
  const known: Records[] = [];
  for (let from = 0; from < machines.length; from += AT_ONCE) {
    const lot = machines.slice(from, from + AT_ONCE);
    known.push(...(await Promise.all(lot.map((machine) => recordsOf(shelf, machine, notesOf(machine))))));
  }
  const shop: Shop = {
    people: planned,
    records: { kit, takes: durationsIn(timed, card as Pick<ShopCard, 'durations'>), now, zone },
    // After the rounds of these machines have been worked out.
    firsts: await firstsOfKinds(sequelize),
  };
  return {
    today: shopDay(now, zone),
    timeZone: zone,
    people: planned,
    // What was worked at last goes first.
    machines: known.map((one) => planOf(one, shop)).sort((one, other) => (other.leftOff?.at ?? '').localeCompare(one.leftOff?.at ?? '')),
    named,
    widen: widenBy(named),
  };
}

/** By how much spreads are widened, because dates named before were too narrow. */
function widenBy(named: readonly NamedDate[]): number {
  const came = named.flatMap(({ at, p10, p50, p90, came: end }) =>
    end === null ? [] : [{ p10: daysBetween(at, p10), p50: daysBetween(at, p50), p90: daysBetween(at, p90), came: daysBetween(at, end) }],
  );
  return howGood(came)?.widen ?? 1;
}

const NAMED = `SELECT s.machineId, d.namedOn AS at, d.p10, d.p50, d.p90, s.endedAt AS came FROM named_dates d JOIN surveys s ON s.id = d.surveyId
  ORDER BY d.namedOn DESC LIMIT 1000`;

/** Dates that were named for the ends of surveys, newest first, with what came. */
async function namedDates(sequelize: Sequelize): Promise<readonly NamedDate[]> {
  const rows = await sequelize.query<Omit<NamedDate, 'came'> & { came: Date | null }>(NAMED, { type: QueryTypes.SELECT });
  const zone = await shopZone();
  return rows.map(({ came, ...row }) => ({ ...row, came: came && shopDay(came.toISOString(), zone) }));
}

/** Name a date for the end of what runs on a machine: one a day, the last one counts. Nothing where no survey runs. */
export async function nameDate(
  machineId: string,
  { p10, p50, p90 }: { readonly p10: string; readonly p50: string; readonly p90: string },
): Promise<void> {
  const survey = await SurveyRow.findOne({ where: { machineId, endedAt: null }, order: [['startedAt', 'DESC']] });
  if (!survey) return;
  const namedOn = shopDay(new Date().toISOString(), await shopZone());
  await NamedDateRow.bulkCreate([{ surveyId: survey.id, namedOn, p10, p50, p90 }], { updateOnDuplicate: ['p10', 'p50', 'p90'] });
}

const stateOf = ({ version, changes, own, order, looks = [] }: StoredPlan): Version => ({ version, state: { changes, own, order, looks } });

const lookTitle = (check: string, quantity: string): string => {
  const definition = CHECKS.get(check);
  return `“${definition?.title ?? check}”, ${definition?.quantities[quantity]?.label ?? quantity}`;
};

/** What was settled anew, in words for the log. */
function told(before: StoredPlan, now: PlanSettled): string {
  const was = new Map(before.own.map((one) => [one.id, one]));
  const added = now.own.filter(({ id }) => !was.has(id)).map(({ title }) => `added “${title}”`);
  const done = now.own.filter(({ id, doneAt }) => doneAt !== null && was.get(id)?.doneAt === null).map(({ title }) => `“${title}” is done`);
  const turned = now.own
    .filter(({ id, lastAt }) => lastAt !== undefined && was.has(id) && was.get(id)?.lastAt !== lastAt)
    .map(({ title, notBefore }) => `“${title}” is done${notBefore === null ? '' : `, next on ${shopDate(notBefore, null)}`}`);
  const otherwise = now.own.filter(({ id, at }) => was.has(id) && was.get(id)?.at !== at).map(({ title }) => `“${title}” put otherwise`);
  const gone = before.own.filter(({ id }) => !now.own.some((one) => one.id === id)).map(({ title }) => `“${title}” taken off`);
  const changed = now.changes
    .filter((change) => !before.changes.some((one) => JSON.stringify(one) === JSON.stringify(change)))
    .map(({ why, minutes }: { readonly why: string; readonly minutes?: Span }) => `${minutes ? 'minutes' : 'an item'} changed: ${why}`);
  const looked = (now.looks ?? [])
    .filter((look) => !before.looks?.some((one) => JSON.stringify(one) === JSON.stringify(look)))
    .map(
      ({ check, quantity, out }) => `rough look at ${lookTitle(check, quantity)}: ${out === null ? 'it looks right' : `about ${out} out`}`,
    );
  const unlooked = (before.looks ?? [])
    .filter(({ check, quantity }) => !now.looks?.some((one) => one.check === check && one.quantity === quantity))
    .map(({ check, quantity }) => `rough look at ${lookTitle(check, quantity)} taken back`);
  const parts = [...added, ...done, ...turned, ...otherwise, ...gone, ...changed, ...looked, ...unlooked];
  return `Plan: ${parts.length ? parts.join('; ') : 'another order'}`;
}

/** Settle something of a plan; a stale version gets 409 with what stands now. Safe to send twice. */
export function settlePlan(sequelize: Sequelize, { machineId, by, version, ...settled }: PlanWrite): Promise<StoredPlan> {
  const faults = lookFaults(settled.looks ?? []);
  if (faults.length) throw new ApiError(400, faults);
  return inOneGo(sequelize, async (transaction) => {
    const machine = await MachineRow.findByPk(machineId, { transaction, lock: transaction.LOCK.UPDATE });
    if (!machine) throw notFound('machine');
    const before = settledOf(machineId, await PlanRow.findByPk(machineId, { transaction }));
    if (differencesOf(stateOf(before).state, stateOf({ ...before, ...settled }).state).length === 0) return before;
    if (before.version !== version) throw stale(before);
    const now: StoredPlan = { ...settled, machineId, version: version + 1 };
    await PlanRow.upsert({ machineId, settled, version: now.version }, { transaction });
    await keepState({ what: 'plans', id: machineId, by }, stateOf(now), version === 0 ? null : stateOf(before), transaction);
    await writeLog({ machineId, by, what: 'plan', text: told(before, settled), thing: 'plan', thingId: machineId }, transaction);
    return now;
  });
}
