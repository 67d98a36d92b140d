import type { RoundHead } from '@isometra/contract';

/** Something that a move took from one side of true to the other. */
export interface Crossed {
  readonly quantity: string;
  readonly before: number;
  readonly now: number;
  /** The aim lies on the side it is on now, and it is not out: it is meant. */
  readonly meant: boolean;
}

/**
 * Quantities that a move took past the middle: they stood on one side before it, and stand on the other now, both by more
 * than their doubts. A change of sign without a move is another matter (`jumps`).
 *
 * @param rounds rounds of one check up to the one looked at, oldest first.
 */
export function crossed(rounds: readonly Pick<RoundHead, 'at' | 'moves' | 'finding'>[]): Crossed[] {
  const [before, now] = rounds.slice(-2);
  if (!before || !now) return [];
  return Object.entries(now.finding?.quantities ?? {}).flatMap(([quantity, { value, expanded, aim, verdict }]): Crossed[] => {
    const then = before.finding?.quantities[quantity];
    const moved = before.moves.some((move) => move.quantity === quantity && move.doneAt !== null && move.doneAt <= now.at);
    if (!then || !moved || then.value * value >= 0) return [];
    const surely = Math.abs(then.value) > (then.expanded ?? 0) && Math.abs(value) > (expanded ?? 0);
    if (!surely) return [];
    return [{ quantity, before: then.value, now: value, meant: verdict !== 'out' && (aim ?? 0) * value > 0 }];
  });
}
