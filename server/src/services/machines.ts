import type { Sequelize, Transaction } from 'sequelize';
import { usualSheet, type Machine } from '@isometra/contract';
import { notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { MachineRow } from '../db/shopModels.js';
import { SurveyRow } from '../db/surveyModels.js';
import { inOneGo } from '../db/transactions.js';
import { archivedOf } from './archive.js';
import { differencesOf } from './differences.js';
import { writeLog } from './log.js';
import { keepState, type Version } from './states.js';

const shown = (row: MachineRow): Machine => ({
  id: row.id,
  card: row.card,
  version: row.version,
  ...archivedOf(row),
});

export async function listMachines(): Promise<Machine[]> {
  return (await MachineRow.findAll({ order: [['number', 'ASC']] })).map(shown);
}

export async function getMachine(id: string, transaction?: Transaction): Promise<Machine> {
  const row = await MachineRow.findByPk(id, { transaction });
  if (!row) throw notFound('machine');
  return shown(row);
}

const stateOf = ({ version, card }: MachineRow): Version => ({ version, state: { ...card } });
const columns = (machine: Machine) => ({
  number: String(machine.card.number).trim(),
  kind: String(machine.card.kind),
  card: machine.card,
});

/** Add a machine and begin its first survey. Safe to send twice, also at the same moment. */
export async function addMachine(
  sequelize: Sequelize,
  machine: Machine,
  { by, at = new Date() }: { readonly by: string; readonly at?: Date },
  given?: Transaction,
): Promise<Machine> {
  const add = async (transaction: Transaction): Promise<Machine> => {
    const row = await MachineRow.create({ id: machine.id, ...columns(machine), version: 1 }, { transaction });
    const startingLimits = usualSheet(row.kind);
    await SurveyRow.create(
      { id: crypto.randomUUID(), machineId: row.id, title: 'As found', startedAt: at, startingLimits },
      { transaction },
    );
    await writeLog(
      { machineId: row.id, by, what: 'machine', text: `${row.number} added`, at, thing: 'machine', thingId: row.id },
      transaction,
    );
    await keepState({ what: 'machines', id: row.id, by, at }, stateOf(row), null, transaction);
    return shown(row);
  };
  try {
    return await inOneGo(sequelize, add, given);
  } catch (error) {
    const known = brokenRule(error) === undefined ? null : await MachineRow.findByPk(machine.id, { transaction: given });
    if (known) return shown(known);
    throw error;
  }
}

/** Change a card; a stale version gets 409 with the newer row. */
export function changeMachine(sequelize: Sequelize, machine: Machine, by: string): Promise<Machine> {
  const { id, version } = machine;
  return inOneGo(sequelize, async (transaction) => {
    const before = await MachineRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!before) throw notFound('machine');
    const differences = differencesOf(before.card, machine.card);
    if (before.version !== version) {
      if (differences.length) throw stale(shown(before));
      return shown(before);
    }
    const then = stateOf(before);
    await before.update({ ...columns(machine), version: version + 1 }, { transaction });
    if (differences.length) await keepState({ what: 'machines', id, by }, stateOf(before), then, transaction);
    const text = `Card of ${columns(machine).number} changed${differences.length ? `: ${differences.join('; ')}` : ''}`;
    await writeLog({ machineId: id, by, what: 'machine', text, thing: 'machine', thingId: id }, transaction);
    return shown(before);
  });
}

/**
 * What a move left behind, onto the card: an eccentric sleeve stands at another angle now, and the next card starts
 * from there. Parts that the card does not have are left out.
 */
export async function noteOnCard(
  machineId: string,
  parts: Readonly<Record<string, Readonly<Record<string, unknown>>>>,
  by: string,
  transaction: Transaction,
): Promise<void> {
  const row = await MachineRow.findByPk(machineId, { transaction, lock: transaction.LOCK.UPDATE });
  if (!row) return;
  const card = { ...row.card };
  for (const [part, fields] of Object.entries(parts)) {
    const known = card[part];
    if (typeof known === 'object' && known !== null) card[part] = { ...known, ...fields };
  }
  const differences = differencesOf(row.card, card);
  if (differences.length === 0) return;
  const then = stateOf(row);
  await row.update({ card, version: row.version + 1 }, { transaction });
  await keepState({ what: 'machines', id: machineId, by }, stateOf(row), then, transaction);
  const text = `Card of ${row.number} changed by a move: ${differences.join('; ')}`;
  await writeLog({ machineId, by, what: 'machine', text, thing: 'machine', thingId: machineId }, transaction);
}
