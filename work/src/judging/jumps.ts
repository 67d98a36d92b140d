import { differences } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { disturbs, doneMoves, otherDone, type OtherWork } from '../notebook/doneMoves.js';
import { sameThing } from '../notebook/things.js';

/** A value that differs from an earlier round by more than both doubts although nobody moved anything. */
export interface Jump {
  readonly quantity: string;
  readonly from: RoundHead;
  readonly before: number;
  readonly after: number;
  /** The other way at about the same size: one of the two was read on a needle that counts the other way. */
  readonly turned: boolean;
}

/**
 * Quantities of a round that an earlier one of the same thing, under the same conditions, told otherwise by more than both doubts,
 * with nothing moved in between. Where the sign turned at about the same size, a needle that counts the other way is the likely cause.
 *
 * @param rounds of the machine, oldest first.
 */
export function jumps(round: RoundHead, rounds: readonly RoundHead[], other: OtherWork = {}): Jump[] {
  const before = rounds.findLast(
    (earlier) =>
      earlier.at < round.at &&
      sameThing(earlier, round) &&
      Object.keys(earlier.finding?.quantities ?? {}).length > 0 &&
      differences(earlier.conditions, round.conditions).length === 0,
  );
  if (!before) return [];
  const differ = Object.entries(round.finding?.quantities ?? {}).flatMap(([quantity, now]): Jump[] => {
    const then = before.finding?.quantities[quantity];
    if (!then || now.expanded === null || then.expanded === null || now.because || then.because) return [];
    const doubt = now.expanded + then.expanded;
    if (!(Math.abs(now.value - then.value) > doubt)) return [];
    const surely = Math.abs(now.value) > now.expanded && Math.abs(then.value) > then.expanded;
    const alike = Math.abs(now.value + then.value) < Math.max(doubt, Math.abs(then.value));
    const turned = surely && alike && now.direction !== null && then.direction !== null && now.value * then.value < 0;
    // Of what nothing limits only a turned sign is news.
    if (now.limit === null && !turned) return [];
    return [{ quantity, from: before, before: then.value, after: now.value, turned }];
  });
  // Only then is it looked for what was moved: this is asked after every reading.
  if (differ.length === 0) return [];
  const moved = [...doneMoves(rounds), ...otherDone(other)].some(
    (move) => move.doneAt > before.at && move.doneAt <= round.at && disturbs(move, round),
  );
  return moved ? [] : differ;
}
