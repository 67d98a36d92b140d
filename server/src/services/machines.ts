import type { Transaction } from 'sequelize';
import { usualSheet, type Machine, type MachineCardText } from '@isometra/contract';
import { MachineRow, SurveyRow } from '../db/models.js';
import { ApiError, notFound, stale } from '../api/errors.js';
import { writeLog } from './log.js';

const shown = (row: MachineRow): Machine => ({ id: row.id, card: row.card as unknown as MachineCardText, version: row.version });

export async function listMachines(): Promise<Machine[]> {
  return (await MachineRow.findAll({ order: [['number', 'ASC']] })).map(shown);
}

export async function getMachine(id: string): Promise<Machine> {
  const row = await MachineRow.findByPk(id);
  if (!row) throw notFound('machine');
  return shown(row);
}

const columns = (machine: Machine) => ({
  number: String(machine.card.number).trim(),
  kind: String(machine.card.kind),
  card: machine.card as Record<string, unknown>,
});

/** Add a machine and begin its first survey. Safe to send twice. */
export async function addMachine(machine: Machine, by: string, transaction?: Transaction): Promise<Machine> {
  const known = await MachineRow.findByPk(machine.id, { transaction });
  if (known) return shown(known);
  if (await MachineRow.findOne({ where: { number: columns(machine).number }, transaction })) {
    throw new ApiError(409, [
      {
        path: 'card.number',
        message: `"${columns(machine).number}" is already the number of another machine`,
        example: 'another shop number',
      },
    ]);
  }
  const row = await MachineRow.create({ id: machine.id, ...columns(machine), version: 1 }, { transaction });
  const startingLimits = usualSheet(row.kind);
  await SurveyRow.create(
    { id: crypto.randomUUID(), machineId: row.id, title: 'As found', startedAt: new Date(), startingLimits },
    { transaction },
  );
  await writeLog({ machineId: row.id, by, what: 'machine', text: `${row.number} added` }, transaction);
  return shown(row);
}

/** Change a card; a stale version gets 409 with the newer row. */
export async function changeMachine(machine: Machine, by: string): Promise<Machine> {
  const [changed] = await MachineRow.update(
    { ...columns(machine), version: machine.version + 1 },
    { where: { id: machine.id, version: machine.version } },
  );
  const now = await getMachine(machine.id);
  if (!changed && JSON.stringify(now.card) !== JSON.stringify(machine.card)) throw stale(now);
  if (changed) await writeLog({ machineId: machine.id, by, what: 'machine', text: `Card of ${columns(machine).number} changed` });
  return now;
}
