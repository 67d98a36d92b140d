import type { Sequelize, Transaction } from 'sequelize';
import { MOVES } from '@isometra/core';
import {
  NOTHING_SEEN,
  type NoteKind,
  type Pinned,
  type RegisterUse,
  type Remark,
  type StoredReading,
  type StoredSurvey,
  type SurveyNote,
} from '@isometra/contract';
import { sheetOf, solveWhatStands, surveyWriteOf } from '@isometra/work';
import { KitRow, MachineRow } from '../../db/shopModels.js';
import { inOneGo } from '../../db/transactions.js';
import { addKit } from '../kit.js';
import { addLimitSheet } from '../limits.js';
import { addMachine } from '../machines.js';
import { addMove } from '../moves.js';
import { addNote } from '../notes.js';
import { addReadings } from '../readings.js';
import { addRemark } from '../remarks.js';
import { addRound } from '../rounds.js';
import { changeShopCard } from '../shop.js';
import { addSurvey, changeSurvey, listSurveys } from '../surveys.js';
import { BUILDERS_SHEET, LONG_LATHE, LIGHT_LATHE, type DemoMachine, type DemoRound } from './histories.js';
import { COLUMN_MILL, MACHINING_CENTRE, TURRET_MILL } from './millHistory.js';
import { TURNING_CENTRE } from './turningHistory.js';
import { fillScraping } from './scrapingHistory.js';
import { fillStripDowns } from './stripDownHistory.js';
import { ARTEFACTS, INSTRUMENTS, SHIM_DRAWER } from './kit.js';

/** Whether nothing has been put into the shop yet. */
export async function isEmpty(): Promise<boolean> {
  return (await MachineRow.count()) === 0 && (await KitRow.count()) === 0;
}

const OWNER = 'HB';

/** Evenings in the week, and Saturday. */
const SHOP = {
  name: 'Tarnside Works',
  paper: 'A4',
  rate: '58',
  currency: 'EUR',
  hours: [
    { day: 'Tuesday', from: '19:00', to: '22:00' },
    { day: 'Thursday', from: '19:00', to: '22:00' },
    { day: 'Saturday', from: '09:00', to: '13:00' },
  ],
};

type DemoNote = Pick<Remark, 'part' | 'text' | 'by' | 'at'> & { readonly page: string; readonly words: string };

/** What was written down on the way, on the machining centre. */
const CENTRE_NOTES: readonly DemoNote[] = [
  {
    ...{ part: null, page: 'survey', words: 'V-20, Survey', by: 'EK', at: '2025-03-14T15:50:00.000Z' },
    text: 'Crash. Wrong tool in pocket 7, drill into the vice at rapid. Spindle turns true by feel, the alarm is gone. Nothing is cut on it until everything is measured.\n[x] measure all of it\n[x] new vice jaws',
  },
  {
    ...{
      part: 'table-parallelism-x',
      page: 'rounds/table-parallelism-x',
      words: 'V-20, Table along x',
      by: 'SD',
      at: '2026-05-11T11:10:00.000Z',
    },
    text: 'The table along x gets a little worse every time. Still inside. Look again in the autumn.\n[ ] ask for the truck preload figures',
  },
];

/** What was written down on the way, on the long lathe. */
const NOTES: readonly DemoNote[] = [
  {
    ...{ part: null, page: 'survey', words: 'L-14, Survey', by: 'HB', at: '2026-06-15T07:20:00.000Z' },
    text: 'Came in on the low loader with the tailstock strapped to the bed. Strap marks on the flat way, nothing deep. Owner says it turned a taper for years and everybody put up with it.',
  },
  {
    ...{ part: 'spindle-axis', page: 'rounds/spindle-axis', words: 'L-14, Spindle axis', by: 'RM', at: '2026-06-21T19:05:00.000Z' },
    text: 'Headstock lifted with the gantry, two of us, forty minutes. Three old shims under the rear foot, brass, one folded double. Bagged and labelled.\n[x] clean both seats\n[x] measure the old shims',
  },
  {
    ...{
      part: 'tailstock-traverse',
      page: 'rounds/tailstock-traverse',
      words: 'L-14, Bar between centres',
      by: 'HB',
      at: '2026-10-21T16:40:00.000Z',
    },
    text: 'Front adjusting screw of the tailstock is tight for the last half turn. Thread picked up, not bent.\n[x] chase the thread\n[ ] new felt for the saddle wipers before it goes home\n[ ] paint the strap marks on the bed front',
  },
];

async function fillNotes({ sequelize, transaction }: Shop, machineId: string, notes: readonly DemoNote[]): Promise<void> {
  for (const { page, words, ...note } of notes) {
    const place = { path: `/machines/${machineId}/${page}`, words };
    await addRemark(sequelize, { ...note, id: crypto.randomUUID(), machineId, place, pictures: [], supersedes: null }, transaction);
  }
}

// What the demo did just now was done, in its story, before anything was measured with it.
const DATES = [
  `UPDATE log_entries l JOIN surveys s ON s.id = l.thingId SET l.at = s.startedAt
    WHERE l.thing = 'survey' AND l.text LIKE 'Survey begun%'`,
  `UPDATE log_entries l JOIN surveys s ON s.id = l.thingId SET l.at = s.endedAt
    WHERE l.thing = 'survey' AND l.text LIKE 'Survey ended%'`,
  `UPDATE log_entries l JOIN surveys s ON s.id = l.thingId SET l.at = s.startedAt + INTERVAL 20 MINUTE
    WHERE l.thing = 'survey' AND l.text LIKE 'Survey changed%'`,
  `UPDATE log_entries l JOIN (SELECT surfaceId, MIN(at) AS first FROM surface_entries GROUP BY surfaceId) e ON e.surfaceId = l.thingId
    SET l.at = e.first - INTERVAL 5 MINUTE WHERE l.thing = 'face' AND l.text LIKE '%: a face to scrape'`,
  `UPDATE log_entries l JOIN (SELECT MIN(startedAt) AS first FROM surveys) s
    SET l.at = s.first - INTERVAL 2 DAY + INTERVAL l.id MINUTE WHERE l.what IN ('kit', 'limits', 'shop')`,
];

/** Fill an empty shop with Tarnside Works: machines, kit, and rounds that the practice models made from hidden truths. All or nothing. */
export function fillDemo(sequelize: Sequelize, given?: Transaction): Promise<void> {
  const fill = async (transaction: Transaction): Promise<void> => {
    for (const item of [...INSTRUMENTS, ...ARTEFACTS, SHIM_DRAWER])
      await addKit(sequelize, { care: {}, ...item, id: crypto.randomUUID(), photos: [], version: 1 }, OWNER, transaction);
    const write = { id: crypto.randomUUID(), content: BUILDERS_SHEET, version: 1, by: OWNER };
    const sheet = await addLimitSheet(sequelize, write, transaction);
    const shop = { sequelize, transaction };
    const long = await fillMachine(shop, LONG_LATHE, { sheet: sheet.id, version: 1 });
    await fillScraping(sequelize, long, transaction);
    await fillNotes(shop, long, NOTES);
    await fillStripDowns(sequelize, long, transaction);
    await fillMachine(shop, LIGHT_LATHE);
    for (const machine of [TURRET_MILL, COLUMN_MILL, TURNING_CENTRE]) await fillMachine(shop, machine);
    await fillNotes(shop, await fillMachine(shop, MACHINING_CENTRE), CENTRE_NOTES);
    await changeShopCard(sequelize, { card: SHOP, mark: null, version: 0, by: OWNER }, transaction);
    for (const statement of DATES) await sequelize.query(statement, { transaction });
  };
  return inOneGo(sequelize, fill, given);
}

interface Shop {
  readonly sequelize: Sequelize;
  readonly transaction: Transaction;
}

async function fillMachine({ sequelize, transaction }: Shop, machine: DemoMachine, limits?: Pinned): Promise<string> {
  const { card, rounds, survey, skipped = {}, bearings = [], byHand = [], earlier = [] } = machine;
  const id = crypto.randomUUID();
  const [{ at, by }] = rounds;
  const first = earlier.at(0);
  await addMachine(sequelize, { id, card, version: 1 }, { by: 'TW', at: beginning(first ?? machine) }, transaction);
  let [begun] = await listSurveys(id, transaction);
  /** The survey that a machine is added with is its first one; every other one ends the one before it. */
  const next = async (title: string, startedAt: Date, who: string): Promise<StoredSurvey> => {
    const about = { ...surveyWriteOf(begun), id: crypto.randomUUID(), title, startedAt: startedAt.toISOString(), version: 1 };
    return addSurvey(sequelize, about, who, transaction);
  };
  for (const then of earlier) {
    const who = then.rounds[0].by;
    if (then === first) begun = await changeSurvey(sequelize, { ...surveyWriteOf(begun), title: then.title }, who, transaction);
    else begun = await next(then.title, beginning(then), who);
    for (const round of then.rounds) await fillRound({ sequelize, transaction }, { id, card }, round);
  }
  if (first) begun = await next(survey, beginning(machine), by);
  const left = Object.entries(skipped).map(([check, why]) => ({ check, why, by, at }));
  const changed = { ...surveyWriteOf(begun), title: survey, skipped: left, ...(limits && { limits }) };
  await changeSurvey(sequelize, changed, by, transaction);
  const note = <Kind extends NoteKind>(kind: Kind, { by: who, at: when, ...content }: { by: string; at: string }) =>
    addNote(
      sequelize,
      { id: crypto.randomUUID(), surveyId: begun.id, supersedes: null, kind, content, by: who, at: when } as SurveyNote,
      transaction,
    );
  for (const entry of byHand) await note('by-hand', entry);
  for (const entry of bearings) await note('bearing', entry);
  for (const round of rounds) await fillRound({ sequelize, transaction }, { id, card }, round);
  return id;
}

const HOUR = 3_600_000;

/** A survey begins on the morning of the first thing that was written down in it. */
const beginning = ({ rounds, bearings = [], byHand = [] }: Pick<DemoMachine, 'rounds' | 'bearings' | 'byHand'>): Date =>
  new Date(Math.min(...[...rounds, ...bearings, ...byHand].map(({ at }) => Date.parse(at))) - HOUR);

async function fillRound(
  { sequelize, transaction }: Shop,
  machine: { id: string } & Pick<DemoMachine, 'card'>,
  demo: DemoRound,
): Promise<void> {
  const { sheet, plan, at, by, conditions, instrumentName, moved } = demo;
  const { check, setup, instrument } = sheet;
  const id = crypto.randomUUID();
  const about = {
    id,
    machineId: machine.id,
    check,
    setup,
    plan,
    instrument,
    instrumentName,
    conditions,
    purpose: null,
    by,
    at,
    version: 1,
  };
  await addRound(sequelize, about, transaction);
  const readings = await addReadings(sequelize, id, readingsOf(demo), transaction);
  if (moved ?? demo.changeSheet) await fillMoves({ sequelize, transaction }, machine, { ...demo, id, readings, moved: moved ?? {} });
}

/** Minutes that a set-up took: six to fourteen, the same ones whenever the demo is made. */
const setUpTook = (at: string): number => 6 + ([...at].reduce((sum, sign) => sum + sign.charCodeAt(0), 0) % 9);

/** Readings as somebody wrote them down: after setting up, a minute apart. */
const readingsOf = ({ sheet, unit, by, at }: DemoRound) =>
  sheet.readings.map(({ value, set = 1, ...keys }, i) => ({
    id: crypto.randomUUID(),
    keys: keys as Record<string, string | number | boolean>,
    value: `${Number(Number(value).toFixed(4))} ${unit}`,
    set: Number(set),
    supersedes: null,
    why: null,
    by,
    at: new Date(Date.parse(at) + 60_000 * (setUpTook(at) + i)).toISOString(),
  }));

type MovedRound = DemoRound & {
  readonly id: string;
  readonly readings: readonly StoredReading[];
  readonly moved: Readonly<Record<string, string>>;
};

/** The change sheet of a register as it was filled in. */
function slipOf(
  { register: name, old, entered, how }: NonNullable<DemoRound['changeSheet']>,
  card: DemoMachine['card'],
  told: { readonly total: number; readonly by: string; readonly locked: string; readonly entered: string },
): RegisterUse {
  const known = ((card as Readonly<Record<string, unknown>>)['registers'] as readonly RegisterUse[]).find((entry) => entry.name === name);
  if (!known) throw new Error(`the demo has no register ${name}`);
  const { axis, kind, unit, programming, digits } = known;
  return {
    ...{ name, axis, kind, unit, programming, digits: Number(digits), total: told.total, jog: null, homings: 2, power: 1 },
    old: { value: Number(old), where: 'offset page 4', at: told.locked, by: told.by },
    entered: { value: Number(entered), how, at: told.entered, by: told.by },
  };
}

/** Hours after its round at which a move was done: a screw is turned at once, a headstock that is lifted and scraped takes evenings. */
const HOURS: Readonly<Record<string, number>> = { supports: 82, scrape: 50, 'shim-leaves': 2.6 };

/** Moves as the call asked for them, begun soon after the round. */
async function fillMoves({ sequelize, transaction }: Shop, { card }: Pick<DemoMachine, 'card'>, demo: MovedRound): Promise<void> {
  const { sheet, conditions, readings, id: roundId, by, at, moved, changeSheet } = demo;
  const { finding } = solveWhatStands(sheetOf({ ...sheet, conditions }, readings, { card, stock: SHIM_DRAWER.data['stock'] as unknown[] }));
  const done = new Set<string>();
  for (const { kind, quantity, amount, unit, direction, steps: _steps, ...plan } of finding?.moves ?? []) {
    const shift = moved[quantity];
    const set = changeSheet && MOVES.get(kind)?.curedBy === 'control' ? changeSheet : undefined;
    // Of several ways to move one thing, the first was taken.
    if ((shift === undefined && !set) || done.has(quantity)) continue;
    done.add(quantity);
    const after = (hours: number): string => new Date(Date.parse(at) + hours * HOUR).toISOString();
    const about = { id: crypto.randomUUID(), roundId, kind, quantity, amount, unit, direction, plan, ticks: [], shift: shift ?? null, by };
    const register = set && slipOf(set, card, { total: -2 * amount, by, locked: after(0.5), entered: after(0.7) });
    const made = register && { ...NOTHING_SEEN, register };
    await addMove(
      sequelize,
      { ...about, begunAt: after(0.4), doneAt: after(HOURS[kind] ?? 1), version: 1, ...(made && { made }) },
      transaction,
    );
  }
}
