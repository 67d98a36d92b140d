import { CHECKS, type Finding, type Move } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import type { OtherWork } from '../notebook/doneMoves.js';
import { jumps, type Jump } from '../judging/jumps.js';
import { judgedMoves, ofScrew, signedGainOf, totalGains, turnsScrew, usualShiftOf, type JudgedMove, type Screw } from '../judging/moves.js';
import { inWorkingOrder } from '../judging/order.js';
import { ASK_WORDS, timesWords, type Ask, type MoveWord } from './words.js';

/** What a person is told after a round of what was done before it. */
export interface Told {
  /** Moves that this round judges; the one that matters most first. */
  readonly judged: readonly JudgedMove[];
  /** Values that an earlier round told otherwise although nothing was moved. */
  readonly differs: readonly Jump[];
  /** All moves of the check that have been judged so far, oldest first. */
  readonly past: readonly JudgedMove[];
}

const ORDER: readonly MoveWord[] = ['wrong-way', 'nothing-moved', 'overshot', 'fell-short', 'as-planned', 'not-judged'];

/** What became of a move in one word. */
export const wordOf = ({ because, result }: Pick<JudgedMove, 'because' | 'result'>): MoveWord =>
  because || result.outcome === 'cannot-tell' ? 'not-judged' : result.outcome;

/**
 * What is told after a round: the moves that it judges, and what contradicts an earlier round. One function for bench, job card, ladder,
 * board, survey and command line.
 *
 * @param rounds all rounds of the machine, oldest first. @param other what else was done to it.
 */
export function toldAfter(round: RoundHead, rounds: readonly RoundHead[], other: OtherWork = {}): Told {
  const upTo = rounds.filter(({ at }) => at <= round.at);
  const past = judgedMoves(round.check, upTo, other);
  const judged = past
    .filter(({ next }) => next.id === round.id)
    .sort((one, two) => ORDER.indexOf(wordOf(one)) - ORDER.indexOf(wordOf(two)));
  return { judged, differs: jumps(round, upTo, other), past };
}

/** What a screw is known to do when the next card for it is made. */
export interface ScrewKnown {
  /** What it moves for what its pitch says; negative where it works the other way round. Null where nothing taught it. */
  readonly gain: number | null;
  /** What the part does on tightening, signed like the quantity; 0 where nobody has seen it. */
  readonly preset: number;
  /** The last move of it went the wrong way: the card begins with the nudge test of needle and screw. */
  readonly wentWrong: JudgedMove | undefined;
  /** What must be answered before it is turned again. */
  readonly ask: Ask | undefined;
}

/** What is known of a screw after a round, and what must be asked before it is turned again. */
export function screwKnown(screw: Screw, { past }: Pick<Told, 'past'>, rounds: readonly RoundHead[]): ScrewKnown {
  const own = past.filter(ofScrew(screw)).filter(({ because }) => !because);
  const last = own.at(-1);
  const gain = signedGainOf(past, screw);
  const known = {
    gain,
    preset: usualShiftOf(rounds, screw)?.shift ?? 0,
    wentWrong: last && wordOf(last) === 'wrong-way' ? last : undefined,
  };
  return { ...known, ask: screwAsk(screw, own, totalGains(past, screw)) };
}

function screwAsk(screw: Screw, own: readonly JudgedMove[], totals: ReturnType<typeof totalGains>): Ask | undefined {
  const [before, last] = [own.at(-2), own.at(-1)];
  if (!last) return undefined;
  const { quantity } = screw;
  const word = wordOf(last);
  if (word === 'wrong-way' && before && wordOf(before) === 'wrong-way')
    return { code: 'nudge-both', quantity, text: turnsScrew(screw.kind) ? ASK_WORDS.nudgeBoth : ASK_WORDS.nudgeTwice };
  if (word === 'nothing-moved' && before && wordOf(before) === 'nothing-moved')
    return { code: 'nothing-moved', quantity, text: ASK_WORDS.nothingMoved(screw.kind) };
  const total = totals.at(-1);
  return total?.odd && total.entry === last ? { code: 'gain-odd', quantity, text: ASK_WORDS.gainOdd(timesWords(total.total)) } : undefined;
}

/** A move with what was learned of its screw in it. */
export interface PlannedMove extends Move {
  /** What tightening adds by itself: the screw stops short or past by it. */
  readonly preset?: number;
  /** Where the last move of this screw went the wrong way: what of it is still in the machine. */
  readonly giveBack?: { readonly amount: number; readonly turns?: number };
  /** The nudge tests with which the card begins. */
  readonly first?: readonly ('nudge-needle' | 'nudge-screw' | 'look-for-lock')[];
}

/**
 * A planned move with a learned gain and pre-set in it. A screw that works the other way round is turned the other way; the needle goes
 * where the part goes, whatever the screw does.
 *
 * @param move planned with the size of the gain.
 */
export function withLearned(move: Move, { gain, preset, wentWrong }: Pick<ScrewKnown, 'gain' | 'preset' | 'wentWrong'>): PlannedMove {
  const share = move.amount === 0 ? 1 : (move.amount - preset) / move.amount;
  const way = gain !== null && gain < 0 ? -1 : 1;
  const scaled = Object.fromEntries(
    ['turns', 'degrees'].flatMap((key) => (typeof move[key] === 'number' ? [[key, move[key] * share * way]] : [])),
  );
  const indicator = move.indicator && {
    indicator: { ...move.indicator, target: move.indicator.now + (move.indicator.target - move.indicator.now) * share },
  };
  const back = wentWrong?.move;
  const turns = back?.plan['turns'];
  return {
    ...move,
    ...scaled,
    ...indicator,
    ...(way < 0 && { gain: gain as number }),
    ...(preset !== 0 && { preset }),
    ...(back && {
      giveBack: { amount: -back.amount + 0, ...(typeof turns === 'number' && { turns: -turns + 0 }) },
      first: ['nudge-needle', 'nudge-screw'],
    }),
  };
}

/** The next move of a finding, or what has to be answered before it. Neither where everything is in. */
export interface NextMove {
  readonly move?: Move;
  readonly ask?: Ask;
}

const DISTRUST = ['misread', 'closure'];

/** What a finding asks for before anything is moved. */
function roundAsk({ quantities, notes }: Finding): Ask | undefined {
  const because = Object.values(quantities).flatMap((quantity) => quantity.because ?? []);
  const code = DISTRUST.find((entry) => because.includes(entry));
  if (code === 'misread') return { code: 'misread', text: notes.find((note) => note.code === 'misread')?.text ?? ASK_WORDS.misread };
  if (code === 'closure') return { code: 'closure', text: ASK_WORDS.closure };
  return undefined;
}

/** What goes first after a round: the move of a finding in the order of the hands, or the question that comes before it. */
export function nextMove(finding: Finding, told: Told, known: (screw: Screw) => ScrewKnown): NextMove {
  const ask = roundAsk(finding);
  if (ask) return { ask };
  const turned = told.differs.find((entry) => entry.turned);
  if (turned) return { ask: { code: 'nudge-needle', quantity: turned.quantity, text: ASK_WORDS.nudgeNeedle } };
  const [move] = inWorkingOrder(finding.moves);
  const waiting = Object.entries(finding.quantities).filter(([, { verdict }]) => verdict === 'out' || verdict === 'unsure');
  if (!move) return noMove(finding, waiting);
  const { ask: question, wentWrong } = known({ check: finding.check, quantity: move.quantity, kind: move.kind });
  if (question) return { ask: question };
  if (wentWrong && !('turns' in move) && !wentWrong.move.made?.takenOut) {
    const put = `${Math.abs(wentWrong.move.amount).toFixed(1)} ${wentWrong.move.unit}`;
    return { ask: { code: 'take-out', quantity: move.quantity, text: ASK_WORDS.takeOut(wentWrong.move.kind, put) } };
  }
  const { reach } = move as { readonly reach?: number };
  if (reach !== undefined && Math.abs(reach) < 0.15 * Math.abs(move.amount))
    return { ask: { code: 'out-of-reach', quantity: move.quantity, text: ASK_WORDS.outOfReach } };
  return { move };
}

function noMove({ check, notes }: Finding, waiting: readonly (readonly [string, Finding['quantities'][string]])[]): NextMove {
  const [first] = waiting;
  if (!first) return {};
  const [quantity, { because, verdict }] = first;
  if (because?.length) {
    const note = notes.find(({ code }) => because.includes(code));
    return { ask: { code: 'not-trusted', quantity, text: note?.text ?? ASK_WORDS.notTrusted } };
  }
  const cured = Object.keys(CHECKS.get(check)?.corrections ?? {}).includes(quantity);
  if (verdict === 'unsure' || cured) return { ask: { code: 'too-close', quantity, text: ASK_WORDS.tooClose } };
  return { ask: { code: 'no-move', quantity, text: ASK_WORDS.noMove } };
}
