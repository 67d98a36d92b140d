import type { Sequelize } from 'sequelize';
import type { MoveWrite } from '@isometra/contract';
import { notFound, stale } from '../api/errors.js';
import { MoveRow, RoundRow } from '../db/models.js';
import { countLeaves } from './kit.js';
import { writeLog } from './log.js';

export const moveShown = (row: MoveRow): MoveWrite => ({
  id: row.id,
  roundId: row.roundId,
  kind: row.kind,
  quantity: row.quantity,
  amount: row.amount,
  unit: row.unit,
  direction: row.direction,
  plan: row.plan,
  ticks: row.ticks,
  done: row.done,
  shift: row.shift,
  by: row.by,
  at: row.at.toISOString(),
  version: row.version,
});

/** Decide on a move. Safe to send twice. */
export async function addMove(sequelize: Sequelize, move: MoveWrite): Promise<MoveWrite> {
  const known = await MoveRow.findByPk(move.id);
  if (known) return moveShown(known);
  const round = await RoundRow.findByPk(move.roundId);
  if (!round) throw notFound('round');
  return sequelize.transaction(async (transaction) => {
    const row = await MoveRow.create({ ...move, at: new Date(move.at), version: 1 }, { transaction });
    if (move.done) await countLeaves(move.plan, -1, transaction);
    await writeLog(
      { machineId: round.machineId, by: move.by, what: 'move', text: moveText(move, move.done ? 'done' : 'planned'), at: row.at },
      transaction,
    );
    return moveShown(row);
  });
}

/** Tick steps, log the shift on tightening, mark a move done: its shims are then out of the drawer. */
export async function changeMove(sequelize: Sequelize, move: MoveWrite): Promise<MoveWrite> {
  const before = await MoveRow.findByPk(move.id);
  if (!before) throw notFound('move');
  const { ticks, done, shift, plan, version } = move;
  const changed = await sequelize.transaction(async (transaction) => {
    const [rows] = await MoveRow.update(
      { ticks, done, shift, plan, version: version + 1 },
      { where: { id: move.id, version }, transaction },
    );
    if (rows && done !== before.done) await countLeaves(before.done ? before.plan : plan, done ? -1 : 1, transaction);
    return rows > 0;
  });
  const row = (await MoveRow.findByPk(move.id)) as MoveRow;
  const now = moveShown(row);
  const same = now.done === done && now.shift === shift && JSON.stringify(now.ticks) === JSON.stringify(ticks);
  if (!changed && !same) throw stale(now);
  if (changed && done && !before.done) {
    const round = await RoundRow.findByPk(row.roundId);
    await writeLog({ machineId: round?.machineId ?? null, by: move.by, what: 'move', text: moveText(now, 'done') });
  }
  return now;
}

const moveText = (move: MoveWrite, state: string) =>
  `Move ${state}: ${move.kind}, ${Math.abs(move.amount).toFixed(1)} ${move.unit} ${move.direction}`;
