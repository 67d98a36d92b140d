import { isDeepStrictEqual } from 'node:util';
import type { Sequelize, Transaction } from 'sequelize';
import { MOVES } from '@isometra/core';
import type { MoveWrite } from '@isometra/contract';
import { leavesBack, leavesIn } from '@isometra/work';
import { ApiError, notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { MoveRow, RoundRow } from '../db/surveyModels.js';
import { inOneGo } from '../db/transactions.js';
import { atMostNow, isAhead } from './clock.js';
import { countLeaves } from './kit.js';
import { writeLog } from './log.js';
import { noteOnCard } from './machines.js';
import { moveShown } from './roundRows.js';

const moveText = ({ kind, amount, unit, direction }: MoveWrite, state: string): string =>
  `Move ${state}: ${MOVES.get(kind)?.title ?? kind}, ${Math.abs(amount).toFixed(1)} ${unit} ${direction}`;

function refuseFaulty({ begunAt, doneAt }: MoveWrite): void {
  if (doneAt !== null && Date.parse(doneAt) < Date.parse(begunAt))
    throw new ApiError(400, [{ path: 'doneAt', message: 'is before the move was begun', example: begunAt }]);
}

const when = (doneAt: string | null): Date | null => (doneAt === null ? null : atMostNow(doneAt));

/** A word for the log where a move was dated beyond the server's own time. */
const clockWord = ({ begunAt, doneAt }: MoveWrite): string =>
  [begunAt, doneAt].some((at) => at !== null && isAhead(at)) ? '. Its clock was ahead: dated when it came in' : '';

/** The leaves that a move has out of the drawers: none before it is done. */
const leavesOut = (move: MoveWrite | null): readonly number[] => (move?.doneAt ? leavesIn(move) : []);

/** The leaves of a move are out of the drawers as long as it is done: those of before are put back, those of now taken. */
async function moveLeaves(before: MoveWrite | null, after: MoveWrite, transaction: Transaction): Promise<void> {
  // What a move took out to put other leaves in its place lies in the drawers again.
  const put = [...leavesOut(before), ...leavesBack(after)];
  const taken = [...leavesOut(after), ...(before ? leavesBack(before) : [])];
  if (isDeepStrictEqual(put, taken)) return;
  await countLeaves(put, 1, after.by, transaction);
  await countLeaves(taken, -1, after.by, transaction);
}

/** The machine card says what a move that is done left standing; taken back when it was not done after all. */
const tellCard = (machineId: string, { kind, plan, by }: MoveWrite, done: boolean, transaction: Transaction): Promise<void> =>
  noteOnCard(machineId, MOVES.get(kind)?.standsAt?.(plan, done) ?? {}, by, transaction);

const struckOut = (): ApiError =>
  new ApiError(
    409,
    [{ path: 'roundId', message: 'its round was discarded: no move can be made from it', example: 'the id of a round that counts' }],
    undefined,
    'discarded',
  );

/** A round whose date is in doubt does not rule: nothing is moved by it. */
const dateFirst = (at: Date): ApiError =>
  new ApiError(
    409,
    [
      {
        path: 'roundId',
        message: `its round is dated ${at.toISOString()}, later than the clock of the server: put its date right first`,
        example: 'the day and time that the round was read',
      },
    ],
    undefined,
    'date-in-doubt',
  );

/** Decide on a move. Safe to send twice, also at the same moment. */
export async function addMove(sequelize: Sequelize, move: MoveWrite, given?: Transaction): Promise<MoveWrite> {
  refuseFaulty(move);
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        const round = await RoundRow.findByPk(move.roundId, { transaction });
        if (!round) throw notFound('round');
        if (round.ahead) throw dateFirst(round.at);
        if (round.struck) throw struckOut();
        const row = { ...move, begunAt: atMostNow(move.begunAt), doneAt: when(move.doneAt), version: 1 };
        const kept = await MoveRow.create(row, { transaction });
        await moveLeaves(null, move, transaction);
        if (move.doneAt !== null) await tellCard(round.machineId, move, true, transaction);
        const text = moveText(move, move.doneAt === null ? 'planned' : 'done') + clockWord(move);
        const place = { part: round.kind, thing: 'move', thingId: move.id } as const;
        await writeLog(
          { machineId: round.machineId, by: move.by, what: 'move', text, at: row.doneAt ?? row.begunAt, ...place },
          transaction,
        );
        return moveShown(kept);
      },
      given,
    );
  } catch (error) {
    const known = brokenRule(error) === 'PRIMARY' ? await MoveRow.findByPk(move.id) : null;
    if (!known) throw error;
    return moveShown(known);
  }
}

const changeable = ({ ticks, shift, plan, doneAt, made }: MoveWrite) => ({ ticks, shift, plan, doneAt, made: made ?? null });

/** What a card is for: it can be planned anew until it is done. */
const planOf = ({ kind, amount, unit, direction }: MoveWrite) => ({ kind, amount, unit, direction });

/** A move that is done is what was done: only when it is not done after all is it planned anew. */
function refuseOther(before: MoveWrite, after: MoveWrite): void {
  if (before.doneAt === null || isDeepStrictEqual(planOf(before), planOf(after))) return;
  throw new ApiError(
    409,
    [{ path: 'kind', message: 'the move is done: it cannot become another one', example: 'a new round, and a card from it' }],
    undefined,
    'done',
  );
}

const RULES = {
  'drive-far': 'it goes away from the screw that is driven',
  'drive-near': 'it goes toward the screw that is driven',
} as const;

/** What is written down of a change: that it was done, or is not done after all. */
function changeText(before: MoveWrite, after: MoveWrite): string | undefined {
  if (before.doneAt === null && after.doneAt !== null) return moveText(after, 'done');
  if (after.made?.putAway && !before.made?.putAway) return moveText(before, 'closed: nothing has to be moved any more');
  if (!isDeepStrictEqual(planOf(before), planOf(after)))
    return `${moveText(after, 'planned again')}; before that: ${moveText(before, 'begun')}`;
  if (before.doneAt !== null && after.doneAt === null) return moveText(after, 'not done after all');
  return madeText(before.made, after) ?? shiftText(before, after);
}

/** What was found or taken out on the way. */
function madeText(before: MoveWrite['made'], after: MoveWrite): string | undefined {
  if (after.made?.takenOut && !before?.takenOut) return moveText(after, 'shims taken out');
  return after.made?.rule && before?.rule !== after.made.rule ? `At the screw: ${RULES[after.made.rule]}` : undefined;
}

function shiftText(before: MoveWrite, after: MoveWrite): string | undefined {
  return before.shift !== after.shift ? `Moved on tightening: ${after.shift ?? 'nothing noted'}` : undefined;
}

/** Tick steps, log the shift on tightening, mark a move done: its shims are then out of the drawer. A stale version gets 409. */
export function changeMove(sequelize: Sequelize, move: MoveWrite): Promise<MoveWrite> {
  refuseFaulty(move);
  const { id, version } = move;
  return inOneGo(sequelize, async (transaction) => {
    const row = await MoveRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) throw notFound('move');
    const before = moveShown(row);
    const same = isDeepStrictEqual([changeable(before), planOf(before)], [changeable(move), planOf(move)]);
    if (same) return before;
    if (before.version !== version) throw stale(before);
    refuseOther(before, move);
    await row.update({ ...changeable(move), ...planOf(move), doneAt: when(move.doneAt), version: version + 1 }, { transaction });
    const changed = changeText(before, move);
    const text = changed && changed + clockWord(move);
    await moveLeaves(before, move, transaction);
    const round = text ? await RoundRow.findByPk(row.roundId, { transaction, attributes: ['machineId', 'kind'] }) : null;
    const done = move.doneAt !== null;
    if (round && (before.doneAt !== null) !== done)
      await tellCard(round.machineId, { ...before, plan: done ? move.plan : before.plan, by: move.by }, done, transaction);
    const place = { part: round?.kind ?? null, thing: 'move', thingId: id } as const;
    if (text) await writeLog({ machineId: round?.machineId ?? null, by: move.by, what: 'move', text, ...place }, transaction);
    return moveShown(row);
  });
}
