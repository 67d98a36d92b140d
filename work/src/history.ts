import { CHECKS, differences, judgeMove, learnedGain, usualShift, type MoveResult, type ScrewRule, type UsualShift } from '@isometra/core';
import type { MoveWrite, RoundHead } from '@isometra/contract';
import { sameThing } from './things.js';
import { reallyMoved } from './wentIn.js';

/** What a move did, from the round before it and the first one after it was done. */
export interface JudgedMove {
  readonly check: string;
  readonly move: MoveWrite;
  readonly before: number;
  readonly after: number;
  /** Conditions that differ between the two rounds: named before the difference is. */
  readonly unlike: readonly string[];
  readonly result: MoveResult;
}

/**
 * Judge the finished moves of a check by the rounds around them, oldest first. A move counts from when it was done:
 * a round read between its beginning and its end judges nothing.
 *
 * @param rounds rounds of one check on one machine, oldest first.
 */
export function judgedMoves(rounds: readonly RoundHead[]): JudgedMove[] {
  return rounds.flatMap((round) =>
    round.moves.flatMap((move) => {
      const { doneAt, quantity } = move;
      const next =
        doneAt === null
          ? undefined
          : rounds.find((later) => later.at > doneAt && sameThing(later, round) && later.finding?.quantities[quantity]);
      const [before, after] = [round.finding?.quantities[quantity], next?.finding?.quantities[quantity]];
      if (!next || !before || !after) return [];
      const expanded = Math.max(before.expanded ?? 0, after.expanded ?? 0);
      const result = judgeMove(reallyMoved(move), after.value - before.value, (after.aim ?? 0) - after.value, expanded);
      return [
        {
          check: round.check,
          move,
          before: before.value,
          after: after.value,
          unlike: differences(round.conditions, next.conditions),
          result,
        },
      ];
    }),
  );
}

/** Whose gain is asked for: it is kept for a machine by check, quantity and the screw that was turned. */
export interface Screw {
  readonly check: string;
  readonly quantity: string;
  readonly kind: string;
}

/** The gain learned for a screw, from moves judged under like conditions. Null when none was, or where a gain would mislead. */
export function gainOf(judged: readonly JudgedMove[], { check, quantity, kind }: Screw): number | null {
  if (CHECKS.get(check)?.corrections[quantity]?.noGain) return null;
  const gains = judged
    .filter((entry) => entry.check === check && entry.move.quantity === quantity && entry.move.kind === kind && entry.unlike.length === 0)
    .map((entry) => entry.result.gain)
    .filter((gain): gain is number => gain !== null);
  return learnedGain(gains);
}

/** Finished moves of one screw, oldest first. */
const movesOf = (rounds: readonly Pick<RoundHead, 'check' | 'moves'>[], { check, quantity, kind }: Screw): MoveWrite[] =>
  rounds
    .filter((round) => round.check === check)
    .flatMap(({ moves }) => moves.filter((move) => move.quantity === quantity && move.kind === kind && move.doneAt !== null))
    .sort((a, b) => ((a.doneAt ?? '') < (b.doneAt ?? '') ? -1 : 1));

/** The order in which bolts were tightened the first time round. */
export const boltOrder = (bolts: NonNullable<MoveWrite['made']>['bolts']): readonly number[] => [
  ...new Set((bolts ?? []).map(({ bolt }) => bolt)),
];

/**
 * What a screw's part does on tightening as a rule, signed like the quantity; undefined where nobody has seen it yet.
 *
 * @param order of the bolts: another order moves the part otherwise, so that what was seen of it teaches nothing of this one.
 */
export function usualShiftOf(
  rounds: readonly Pick<RoundHead, 'check' | 'moves'>[],
  screw: Screw,
  order?: readonly number[],
): UsualShift | undefined {
  const alike = (bolts: NonNullable<MoveWrite['made']>['bolts']): boolean =>
    !order || !bolts?.length || boltOrder(bolts).join() === order.join();
  return usualShift(
    movesOf(rounds, screw).flatMap(({ made }) => (made && made.tightened !== null && alike(made.bolts) ? [made.tightened] : [])),
  );
}

/** Which screw drives the part on this machine, as it was last seen; null where nobody has said. */
export function screwRuleOf(rounds: readonly Pick<RoundHead, 'check' | 'moves'>[], screw: Screw): ScrewRule | null {
  return (
    movesOf(rounds, screw)
      .flatMap(({ made }) => made?.rule ?? [])
      .at(-1) ?? null
  );
}
