import type { Sequelize } from 'sequelize';
import type { Pinned } from '@isometra/contract';
import { addKit } from '../kit.js';
import { addLimitSheet } from '../limits.js';
import { addMachine } from '../machines.js';
import { addMove } from '../moves.js';
import { addReadings, addRound, getRound } from '../rounds.js';
import { changeSurvey, listSurveys } from '../surveys.js';
import { MachineRow, KitRow } from '../../db/models.js';
import { BUILDERS_SHEET, LONG_LATHE, LIGHT_LATHE, type DemoMachine, type DemoRound } from './histories.js';
import { TURRET_MILL } from './millHistory.js';
import { ARTEFACTS, INSTRUMENTS, SHIM_DRAWER } from './kit.js';

/** Whether nothing has been put into the shop yet. */
export async function isEmpty(): Promise<boolean> {
  return (await MachineRow.count()) === 0 && (await KitRow.count()) === 0;
}

/** Fill an empty shop with Tarnside Works: machines, kit, and rounds that the practice models made from hidden truths. */
export async function fillDemo(sequelize: Sequelize): Promise<void> {
  for (const item of [...INSTRUMENTS, ...ARTEFACTS, SHIM_DRAWER])
    await addKit({ care: {}, ...item, id: crypto.randomUUID(), photos: [], version: 1 });
  const sheet = await addLimitSheet(sequelize, { id: crypto.randomUUID(), content: BUILDERS_SHEET, version: 1, by: 'HB' });
  await fillMachine(sequelize, LONG_LATHE, { sheet: sheet.id, version: 1 });
  await fillMachine(sequelize, LIGHT_LATHE);
  await fillMachine(sequelize, TURRET_MILL);
}

async function fillMachine(
  sequelize: Sequelize,
  { card, rounds, survey, skipped = {}, bearings = [], byHand = [] }: DemoMachine,
  limits?: Pinned,
): Promise<void> {
  const id = crypto.randomUUID();
  await addMachine({ id, card, version: 1 }, 'TW');
  const [{ judge: _judge, ...begun }] = await listSurveys(id);
  const [{ at, by }] = rounds;
  const left = Object.entries(skipped).map(([check, why]) => ({ check, why, by, at }));
  await changeSurvey(
    {
      ...begun,
      title: survey,
      skipped: left,
      bearings: bearings.map((note) => ({ ...note, id: crypto.randomUUID() })),
      byHand: [...byHand],
      ...(limits && { limits }),
    },
    by,
  );
  for (const round of rounds) await fillRound(sequelize, id, round);
}

async function fillRound(
  sequelize: Sequelize,
  machineId: string,
  { sheet, plan, at, by, conditions, instrumentName, unit, moved }: DemoRound,
): Promise<void> {
  const id = crypto.randomUUID();
  const { check, setup, instrument, readings } = sheet;
  await addRound(sequelize, {
    id,
    machineId,
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
  });
  const start = Date.parse(at);
  await addReadings(
    sequelize,
    id,
    readings.map(({ value, ...keys }, i) => ({
      id: crypto.randomUUID(),
      keys: keys as Record<string, string | number | boolean>,
      value: `${Number(Number(value).toFixed(4))} ${unit}`,
      set: 1,
      supersedes: null,
      why: null,
      by,
      at: new Date(start + 60_000 * (i + 1)).toISOString(),
    })),
  );
  if (!moved) return;
  const { finding } = await getRound(id);
  for (const move of finding?.moves ?? []) {
    const part = moved[move.quantity];
    if (part === undefined) continue;
    const { kind, quantity, amount, unit, direction, ...rest } = move;
    const plan = { ...rest, steps: null };
    await addMove(sequelize, {
      id: crypto.randomUUID(),
      roundId: id,
      kind,
      quantity,
      amount,
      unit,
      direction,
      plan,
      ticks: [],
      done: true,
      shift: part,
      by,
      at: new Date(start + 3_600_000).toISOString(),
      version: 1,
    });
  }
}
