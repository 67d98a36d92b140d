import { MOVES, type Outcome } from '@isometra/core';
import type { NotJudged } from '../judging/moves.js';

/** What became of a move, as it is told. */
export type MoveWord = Exclude<Outcome, 'cannot-tell'> | 'not-judged';

/** What must be answered before anything is moved. */
export type AskCode =
  | 'misread'
  | 'closure'
  | 'not-trusted'
  | 'nudge-needle'
  | 'nudge-both'
  | 'take-out'
  | 'nothing-moved'
  | 'gain-odd'
  | 'out-of-reach'
  | 'card-lacks'
  | 'too-close'
  | 'no-move';

/** A question that has to be answered before any move. */
export interface Ask {
  readonly code: AskCode;
  readonly text: string;
  readonly quantity?: string;
}

/** Why nothing can be said of a move. */
export const NOT_JUDGED: Readonly<Record<NotJudged, string>> = {
  'too-small': 'The move was too small to be seen beside the ± of the two rounds.',
  'moved-between': 'Something else was moved in between, so nothing can be said of the screw.',
  untrusted: 'One of the two rounds cannot be trusted, so nothing can be said of the move.',
  'conditions-differ': 'The two rounds were not read under the same conditions, so nothing can be said of the move.',
  needle: 'The needle was found to count the other way in between, so nothing can be said of the move.',
  'not-reached': 'The screw or sleeve came to its end before all of it was done, so the rest is not judged.',
};

/** What became of a move, and what to do, without figures: they stand beside it. */
export const MOVE_WORDS: Readonly<Record<Exclude<MoveWord, 'not-judged'>, string>> = {
  'wrong-way': 'The last move went the wrong way. Push the part toward the stylus and see which way the needle goes, then try the screw.',
  'nothing-moved': 'The last move moved nothing.',
  'fell-short': 'The last move went the right way but fell short.',
  'as-planned': 'The last move did what was planned.',
  overshot: 'The last move went the right way but too far.',
};

/**
 * What comes before another move after one that went the wrong way: leaves come out, a part goes back, metal cannot be put back.
 *
 * @param size what was put in or moved, in words; left out where the job card says it.
 */
export function undoWords(kind: string, size?: string): string {
  const [how, much] = [MOVES.get(kind), size === undefined ? '' : ` (${size})`];
  if (how?.metal) return 'Take nothing more off';
  return how?.leaves ? `Take out what was put in${much} first` : `Bring it back by what was done${much} first`;
}

/** Where to look when a move moved nothing. */
export function lookWords(kind: string): string {
  const how = MOVES.get(kind);
  if (how?.metal) return 'Look whether metal came off the faces that carry it, and whether the reading repeats.';
  if (how?.leaves) return 'Look whether the leaves lie where the part bears, and whether it is clamped down on them.';
  return 'Look for a lock left on, slack that was not taken up, or the wrong screw.';
}

export const ASK_WORDS = {
  misread: 'Read the named place again first.',
  closure: 'The first place did not come back to its reading. Find the loose clamp or the knock, and read the round again.',
  notTrusted: 'This round cannot be judged yet. Finish or repeat what its notes name first.',
  nudgeNeedle:
    'This round says the opposite of the one before, and nothing was moved in between. Push the part toward the stylus and see which way the needle goes before anything is moved.',
  nudgeBoth:
    'Two moves went the wrong way. Push the part toward the stylus and see which way the needle goes, then turn the screw a little and see which way the part goes.',
  takeOut: (kind: string, size: string): string =>
    `It went the wrong way. ${undoWords(kind, size)}, push the part toward the stylus to see which way the needle counts, and read again.`,
  outAgain: 'It is out again. Read a new round before anything else is put in.',
  nudgeTwice: 'Two moves went the wrong way. Push the part toward the stylus and see which way the needle goes before anything is moved.',
  nothingMoved: (kind: string): string => `Two moves moved nothing. ${lookWords(kind)}`,
  gainOdd: (times: string): string => `This screw moves ${times} what its pitch says. Is the pitch right, and is it the right screw?`,
  outOfReach: 'The sleeve has come to the end of its travel. Turn it back to the middle, and move what it sits on instead.',
  cardLacks: (missing: string): string => `The result is complete. To plan the move, the machine card needs: ${missing}.`,
  tooClose: 'This is too close to call, and a move would be smaller than the ±. Read it finer, or set up again.',
  noMove: 'This is out, and no move of a screw or a shim cures it. Look for the cause.',
} as const;

/** "4.0 times", "a quarter of": how much more or less a screw moves than it should. */
export function timesWords(gain: number): string {
  const size = Math.abs(gain);
  return size >= 1 ? `${size.toFixed(1)} times` : `only ${size.toFixed(2)} of`;
}
