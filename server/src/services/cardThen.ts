import { Op } from 'sequelize';
import type { CardThen, MachineCardText, StoredRound } from '@isometra/contract';
import { cardSince, isMade } from '@isometra/work';
import { EarlierStateRow } from '../db/shopModels.js';
import { getMachine } from './machines.js';

/** Until when a round was worked by: its last reading, or the last of its moves that is still made. */
function workedUntil({ at, readings, moves }: StoredRound): string {
  const times = [at, ...readings.map((reading) => reading.at), ...moves.filter(isMade).map(({ doneAt }) => doneAt as string)];
  return new Date(Math.max(...times.map((time) => Date.parse(time)))).toISOString();
}

/** The card of a machine as it stood at a time; the earliest that is known where the time lies before it. */
async function cardAt(machineId: string, at: string): Promise<MachineCardText | null> {
  const where = { what: 'machines', thingId: machineId };
  const then =
    (await EarlierStateRow.findOne({
      where: { ...where, at: { [Op.or]: [null, { [Op.lte]: new Date(at) }] } },
      order: [['version', 'DESC']],
    })) ?? (await EarlierStateRow.findOne({ where, order: [['version', 'ASC']] }));
  return then && (then.state as unknown as MachineCardText);
}

/** The machine card that an old round goes by, and what of it has been changed since. */
export async function cardThen(round: StoredRound): Promise<CardThen> {
  const at = workedUntil(round);
  const [machine, then] = await Promise.all([getMachine(round.machineId), cardAt(round.machineId, at)]);
  const card = then ?? machine.card;
  return { at, card, since: cardSince(round.check, card, machine.card) };
}
