import { median } from '../fit/median.js';

/** What became of a move. */
export type Outcome = 'wrong-way' | 'nothing-moved' | 'fell-short' | 'as-planned' | 'overshot' | 'cannot-tell';

export interface MoveResult {
  readonly outcome: Outcome;
  /** observed / planned; null when the move was too small to judge. */
  readonly gain: number | null;
  /** What to do next, in the unit of the move; null when another move makes no sense yet. */
  readonly next: number | null;
  readonly text: string;
}

/**
 * Compare what a move did with what was planned: g = observed / planned.
 * The next move is what remains divided by g, when |g| is at least 0.15.
 *
 * @param planned change that was asked for. @param observed change between the two rounds.
 * @param remaining aim minus the value now. @param expanded U of the value: a planned move not
 *   larger than √2·U cannot be judged.
 * @returns outcome, gain and the next move, all signed like the quantity.
 * Source: docs/methods/moves.md.
 */
export function judgeMove(planned: number, observed: number, remaining: number, expanded: number): MoveResult {
  if (!(Math.abs(planned) > Math.SQRT2 * expanded)) {
    return { outcome: 'cannot-tell', gain: null, next: remaining, text: 'The move was too small to be told from the doubt of two rounds.' };
  }
  const gain = observed / planned;
  if (Math.abs(gain) < 0.15) {
    return {
      outcome: 'nothing-moved',
      gain,
      next: null,
      text: 'Nothing moved. Look for a lock left on, slack not taken up, or the wrong screw; then do the same move again.',
    };
  }
  const next = remaining / gain;
  if (gain < 0) {
    return {
      outcome: 'wrong-way',
      gain,
      next,
      text: 'It went the wrong way. Undo that move, then make the same move the other way.',
    };
  }
  if (gain < 0.85) return { outcome: 'fell-short', gain, next, text: 'It went the right way but fell short of what was planned.' };
  if (gain <= 1.15) return { outcome: 'as-planned', gain, next, text: 'It moved as planned.' };
  return { outcome: 'overshot', gain, next, text: 'It moved further than planned.' };
}

/** A total gain outside these is no gain of a screw any more, but a wrong fact of the machine: a pitch, or the wrong screw. */
export const GAIN_RANGE = [0.3, 3] as const;
const REMEMBERED = 5;

/** Whether a total gain may be reckoned with. */
export const isUsableGain = (gain: number): boolean => Math.abs(gain) >= GAIN_RANGE[0] && Math.abs(gain) <= GAIN_RANGE[1];

/**
 * What a screw moves for what its pitch says, from the totals of its last moves: the median of the last five that are usable and go the
 * way of the last one. Negative where the machine is the other way round.
 */
export function learnedGain(totals: readonly number[]): number | null {
  const usable = totals.filter(isUsableGain);
  const last = usable.at(-1);
  if (last === undefined) return null;
  return median(usable.filter((gain) => gain > 0 === last > 0).slice(-REMEMBERED));
}
