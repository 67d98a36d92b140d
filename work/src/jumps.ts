import { differences } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { disturbs, doneMoves } from './doneMoves.js';
import { sameThing } from './things.js';

/** A sign that turned from one round to the next although nobody moved anything: said first, because a dial may have counted backwards. */
export interface Jump {
  readonly quantity: string;
  readonly from: RoundHead;
  readonly before: number;
  readonly after: number;
}

/** What else was done to a machine: when metal came off for which check, when a planned change was made. */
export interface OtherWork {
  readonly scraped?: readonly { readonly check: string; readonly at: string }[];
  readonly changes?: readonly string[];
}

/**
 * Directed quantities of a round that an earlier one of the same thing, under the same conditions, told the other way: by
 * more than their doubts, at about the same size, with nothing moved in between. One of the two was read on a needle that counted
 * the other way.
 *
 * @param rounds of the machine, oldest first.
 */
export function jumps(round: RoundHead, rounds: readonly RoundHead[], { scraped = [], changes = [] }: OtherWork = {}): Jump[] {
  const before = rounds.findLast(
    (other) =>
      other.at < round.at &&
      sameThing(other, round) &&
      Object.keys(other.finding?.quantities ?? {}).length > 0 &&
      differences(other.conditions, round.conditions).length === 0,
  );
  if (!before) return [];
  const turned = Object.entries(round.finding?.quantities ?? {}).flatMap(([quantity, now]): Jump[] => {
    const then = before.finding?.quantities[quantity];
    if (!then || now.direction === null || then.direction === null || now.value * then.value >= 0) return [];
    const doubt = Math.hypot(now.expanded ?? 0, then.expanded ?? 0);
    const surely = Math.abs(now.value) > (now.expanded ?? 0) && Math.abs(then.value) > (then.expanded ?? 0);
    const alike = Math.abs(now.value + then.value) < Math.max(doubt, Math.abs(then.value));
    return surely && alike ? [{ quantity, from: before, before: then.value, after: now.value }] : [];
  });
  // Only then is it looked for what was moved: this is asked after every reading.
  if (turned.length === 0) return [];
  const between = (at: string): boolean => at > before.at && at <= round.at;
  const moved =
    doneMoves(rounds).some((move) => between(move.doneAt) && disturbs(move, round)) ||
    scraped.some(({ check, at }) => check === round.check && between(at)) ||
    changes.some(between);
  return moved ? [] : turned;
}
