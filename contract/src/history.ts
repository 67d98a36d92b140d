import { differences, judgeMove, learnedGain, type MoveResult } from '@isometra/core';
import type { MoveWrite, Round } from './round.js';

/** What a move did, from the round before it and the next one. */
export interface JudgedMove {
  readonly move: MoveWrite;
  readonly before: number;
  readonly after: number;
  /** Conditions that differ between the two rounds: named before the difference is. */
  readonly unlike: readonly string[];
  readonly result: MoveResult;
}

/**
 * Judge the finished moves of a check by the rounds around them, oldest first.
 *
 * @param rounds rounds of one check on one machine, oldest first.
 */
export function judgedMoves(rounds: readonly Round[]): JudgedMove[] {
  return rounds.flatMap((round, i) => {
    const next = rounds.slice(i + 1).find((later) => later.finding);
    if (!next) return [];
    return round.moves.flatMap((move) => {
      const [before, after] = [round.finding?.quantities[move.quantity], next.finding?.quantities[move.quantity]];
      if (!move.done || !before || !after) return [];
      const expanded = Math.max(before.expanded ?? 0, after.expanded ?? 0);
      const result = judgeMove(move.amount, after.value - before.value, (after.aim ?? 0) - after.value, expanded);
      return [{ move, before: before.value, after: after.value, unlike: differences(round.conditions, next.conditions), result }];
    });
  });
}

/** The gain learned for one kind of move, from moves judged under like conditions. Null when none was. */
export function gainOf(judged: readonly JudgedMove[], kind: string): number | null {
  const gains = judged
    .filter((entry) => entry.move.kind === kind && entry.unlike.length === 0)
    .map((entry) => entry.result.gain)
    .filter((gain): gain is number => gain !== null);
  return learnedGain(gains);
}
