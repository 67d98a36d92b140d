import { MOVE_FORMAT, MOVES, planMove } from '@isometra/core';
import type { MoveWrite, RoundHead } from '@isometra/contract';
import { isMade } from '../notebook/doneMoves.js';
import { sameThing } from '../notebook/things.js';
import { leavesIn } from './wentIn.js';

/** Other leaves in the place of those that went in. */
export const SWAP = 'swap-leaves';

/** Shims that stand under something: leaves, µm; and whether they take its quantity up (1) or down (−1). */
export interface Pile {
  readonly leaves: readonly number[];
  readonly way: 1 | -1;
}

/** Leaves that a move took out to put others in their place, µm; none before it is done. */
export const leavesBack = ({ kind, plan, doneAt }: Pick<MoveWrite, 'kind' | 'plan' | 'doneAt'>): readonly number[] =>
  kind === SWAP && doneAt !== null && Array.isArray(plan['out']) ? (plan['out'] as number[]) : [];

/**
 * The shims that moves have put under the thing of a round, for one quantity, in one pile; undefined where there are none, where
 * one of them went in without anybody knowing its leaves, or where some were laid in one way and some the other.
 */
export function pileUnder(
  round: Pick<RoundHead, 'check' | 'conditions' | 'at'>,
  quantity: string,
  rounds: readonly RoundHead[],
): Pile | undefined {
  const moves = rounds
    .filter((other) => sameThing(other, round))
    .flatMap((other) => other.moves.filter((move) => move.quantity === quantity && move.unit === 'um' && isMade(move)))
    .filter(({ kind, plan, doneAt }) => MOVES.get(kind)?.leaves && 'leaves' in plan && (doneAt ?? '') <= round.at)
    .sort((one, other) => ((one.doneAt ?? '') < (other.doneAt ?? '') ? -1 : 1));
  let pile: Pile | undefined;
  for (const move of moves) {
    const own = leavesIn(move);
    if (move.kind === SWAP) pile = pile && { ...pile, leaves: own };
    else if (own.length === 0) return undefined;
    else {
      const way = move.amount > 0 ? 1 : -1;
      if (pile?.leaves.length && pile.way !== way) return undefined;
      pile = { way, leaves: [...(pile?.leaves ?? []), ...own] };
    }
  }
  return pile?.leaves.length ? pile : undefined;
}

/** Whether thinner shims do what a move asks: it goes against the pile, and is no more than the pile is thick. */
export const canSwap = (pile: Pile | undefined, { amount, unit }: { readonly amount: number; readonly unit: string }): boolean =>
  pile !== undefined &&
  unit === 'um' &&
  Math.sign(amount) === -pile.way &&
  Math.abs(amount) <= pile.leaves.reduce((sum, leaf) => sum + leaf, 0);

/**
 * The plan of thinner shims: what comes out, and the leaves that go in.
 *
 * @param amount of the move, µm. @throws FaultError where the drawers cannot be read.
 */
export function swapPlan({ leaves }: Pile, amount: number, stock: readonly unknown[]): Readonly<Record<string, unknown>> {
  const um = (leaf: number): string => `${leaf} um`;
  const {
    format: _format,
    move: _move,
    ...plan
  } = planMove({
    ...{ format: MOVE_FORMAT, move: SWAP, by: um(Math.abs(amount)), out: leaves.map(um) },
    stock,
  });
  return plan;
}
