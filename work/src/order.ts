import { MOVES } from '@isometra/core';

/** A move as far as its place among others matters. */
interface Ordered {
  readonly quantity: string;
  readonly kind: string;
}

/** Whether a move opens a joint or takes metal off: what the part was slid to is lost with it. */
const opens = ({ kind }: Ordered): boolean => MOVES.get(kind)?.leaves === true || MOVES.get(kind)?.metal === true;

/** Whether a move only slides the part over on its faces. */
const slides = (move: Ordered): boolean => !opens(move) && MOVES.has(move.kind);

/** The moves of one round in the order of the hands: the height before the side, because opening the joint loses the side. */
export function inWorkingOrder<M extends Ordered>(moves: readonly M[]): M[] {
  return [...moves.filter(opens), ...moves.filter((move) => !opens(move))];
}

/** What comes before a move of a round, and what after it, by quantity: only where one of the two undoes the other. */
export function neighbours(moves: readonly Ordered[], own: Ordered): { readonly before?: string; readonly after?: string } {
  const others = moves.filter(({ quantity }) => quantity !== own.quantity);
  if (opens(own)) {
    const after = others.find(slides);
    return after ? { after: after.quantity } : {};
  }
  const before = slides(own) ? others.find(opens) : undefined;
  return before ? { before: before.quantity } : {};
}
