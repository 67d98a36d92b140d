import { MOVES, type QuantityInfo } from '@isometra/core';
import type { Jump } from '../judging/jumps.js';
import { isBadMove, turnsScrew, type JudgedMove } from '../judging/moves.js';
import { moveWords, placedWords, type Shown } from '../said/said.js';
import { wordOf } from './told.js';
import { lookWords, MOVE_WORDS, NOT_JUDGED, undoWords } from './words.js';

/** What became of a move in plain sentences, and what to do. */
export interface MoveTold {
  readonly word: ReturnType<typeof wordOf>;
  readonly text: string;
  /** It asks for something before anything else is moved. */
  readonly bad: boolean;
}

/** What is done first after a wrong way: a screw is turned back, what lies under a part is taken out, a control has its change sheet. */
function firstOf(kind: string): string {
  const needle = 'push the part toward the stylus to see which way the needle counts';
  if (MOVES.get(kind)?.panel === 'register') return `Before anything is entered, ${needle}: the change sheet says what to enter.`;
  if (turnsScrew(kind)) return `Turn back what was done, ${needle}, and try which way the screw takes it.`;
  return `${undoWords(kind)}, ${needle}, and read again.`;
}

/** What became of a move that is history: what it did, and no order. */
export const moveRecord = (entry: JudgedMove, info: QuantityInfo | undefined, shown: Shown): string =>
  toldAs('It', entry, info, shown).text;

/** What became of the last move, and what to do: "The last move went the wrong way: 0.060 mm away from you …" */
export const moveTold = (entry: JudgedMove, info: QuantityInfo | undefined, shown: Shown): MoveTold =>
  toldAs('The last move', entry, info, shown);

/** What else was moved before the round that would judge: another thing of the same check, or for another one. */
const betweenWords = (check: string, { check: other }: NonNullable<JudgedMove['between']>): string =>
  other.id === check
    ? 'Another move of this check was made before it was read again, so nothing can be said of either by itself.'
    : `${NOT_JUDGED['moved-between']} The other move was for: ${other.title}.`;

function toldAs(who: 'It' | 'The last move', entry: JudgedMove, info: QuantityInfo | undefined, shown: Shown): MoveTold {
  const { because, observed, planned, between } = entry;
  const [word, history] = [wordOf(entry), who === 'It'];
  if (word === 'not-judged') {
    return {
      word,
      bad: false,
      text: because === 'moved-between' && between ? betweenWords(entry.check, between) : NOT_JUDGED[because ?? 'too-small'],
    };
  }
  const [moved, meant] = [moveWords(observed, info, shown), moveWords(planned, info, shown)];
  const texts: Readonly<Record<Exclude<typeof word, 'not-judged'>, string>> = {
    'wrong-way': `${who} went the wrong way: ${moved} instead of ${meant}.${history ? '' : ` ${firstOf(entry.move.kind)}`}`,
    'nothing-moved': history
      ? `It moved nothing; it was to go ${meant}.`
      : `${MOVE_WORDS['nothing-moved']} It was to go ${meant}. ${lookWords(entry.move.kind)}`,
    'fell-short': `${who} went ${moved}, of ${meant} that were planned.`,
    'as-planned': `${who} went ${moved}, as planned.`,
    overshot: `${who} went ${moved}, more than the ${meant} that were planned.`,
  };
  return { word, bad: isBadMove(word), text: texts[word] };
}

/** "Round 2 said 0.060 mm toward you, this one says 0.090 mm toward you, and nothing was moved in between." */
export function differsWords({ before, after, turned }: Jump, number: number, info: QuantityInfo | undefined, shown: Shown): string {
  const says = (value: number): string => placedWords(value, info, shown, 1);
  const told = `Round ${number} said ${says(before)}, this one says ${says(after)}, and nothing was moved in between`;
  return turned
    ? `${told}: one of the two was read on a needle that counts the other way. Push the part toward the stylus and look before you move anything.`
    : `${told}. Look for a chip, a loose clamp or warmth before you move anything.`;
}
