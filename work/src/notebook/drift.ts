import { trendOf, type Trend, type TrendPoint } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { asDone, disturbs, doneMoves, otherDone, type OtherWork } from './doneMoves.js';
import { drawnWords } from './things.js';

/** What one quantity has done since the last thing that upset it. */
export interface Drift {
  readonly trend: Trend;
  /** How many rounds tell of it. */
  readonly rounds: number;
  /** The first of them, and what was done before it: when; null where nothing was. */
  readonly since: string;
  readonly after: string | null;
  /** The values that tell of it, ms and the base unit. */
  readonly points: readonly TrendPoint[];
  /** When something was done that changes it, over all the years. */
  readonly moves: readonly string[];
}

/** What was read under like conditions: the same thing, face and place along the bed. */
const like = (round: RoundHead): string => JSON.stringify([drawnWords(round), round.face ?? null, round.conditions['place'] ?? null]);

/**
 * How a quantity drifts, by the rounds that were read like the last one since the last move, metal or event that upsets it. A crash
 * or a levelling starts anew, like a move.
 *
 * @param rounds all that rule on a machine, oldest first. @returns undefined where no round has told of it.
 */
export function driftOf(
  rounds: readonly RoundHead[],
  { check, quantity, thing }: { readonly check: string; readonly quantity: string; readonly thing: string },
  other: OtherWork = {},
): Drift | undefined {
  const own = rounds.filter((round) => round.check === check && drawnWords(round) === thing && round.finding?.quantities[quantity]);
  const last = own.at(-1);
  if (!last) return undefined;
  const upsets = [...doneMoves(rounds), ...otherDone(other)].sort(asDone).filter((move) => disturbs(move, last));
  const upset = upsets.filter(({ doneAt }) => doneAt <= last.at).at(-1);
  const told = own
    .filter((round) => like(round) === like(last) && (upset === undefined || round.at > upset.doneAt))
    .flatMap(({ at, finding }) => {
      const found = finding?.quantities[quantity];
      return found && found.expanded !== null && found.expanded > 0 && !found.because?.length
        ? [{ at: Date.parse(at), value: found.value, u: found.expanded / 2 }]
        : [];
    });
  if (told.length === 0) return undefined;
  const zone = last.finding?.quantities[quantity]?.limit ?? [null, null];
  return {
    trend: trendOf(told, zone),
    rounds: told.length,
    since: new Date(told[0].at).toISOString(),
    after: upset?.doneAt ?? null,
    points: told,
    moves: upsets.map(({ doneAt }) => doneAt),
  };
}
