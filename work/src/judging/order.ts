import { MOVES } from '@isometra/core';

/** A move as far as its place among others matters. */
interface Ordered {
  readonly quantity: string;
  readonly kind: string;
}

/**
 * Which of several moves of one round comes first: the joint that is opened, or metal that comes off, loses what was slid on it;
 * what is tapped over on its bolts takes with it what a register has set.
 */
function stage({ kind }: Ordered): 0 | 1 | 2 {
  const move = MOVES.get(kind);
  if (move?.leaves === true || move?.metal === true) return 0;
  return move?.curedBy === 'control' ? 2 : 1;
}

/** The moves of one round in the order of the hands: the height before the side, bolts before the control. */
export const inWorkingOrder = <M extends Ordered>(moves: readonly M[]): M[] => [...moves].sort((one, other) => stage(one) - stage(other));

/** What comes before a move of a round, and what after it. */
export interface Neighbours {
  readonly before?: string;
  readonly after?: string;
  /** Why: opening a joint loses what was slid on it, or bolts take with them what the control has set. */
  readonly code?: 'joint' | 'bolts';
}

/** What comes before a move of a round, or else after it, by quantity: only where one of the two undoes the other. */
export function neighbours(moves: readonly Ordered[], own: Ordered): Neighbours {
  const others = inWorkingOrder(moves.filter(({ quantity, kind }) => quantity !== own.quantity && MOVES.has(kind)));
  const code = (other: Ordered) => (stage(other) === 0 || stage(own) === 0 ? 'joint' : 'bolts');
  const before = others.find((other) => stage(other) < stage(own));
  if (before) return { before: before.quantity, code: code(before) };
  const after = others.find((other) => stage(other) > stage(own));
  return after ? { after: after.quantity, code: code(after) } : {};
}
