import {
  CHECKS,
  differences,
  GAIN_RANGE,
  judgeMove,
  learnedGain,
  MOVES,
  usualShift,
  type MoveResult,
  type Outcome,
  type ScrewRule,
  type UsualShift,
} from '@isometra/core';
import type { MoveWrite, RoundHead } from '@isometra/contract';
import { asDone, disturbs, doneMoves, otherDone, type DoneMove, type OtherWork } from '../notebook/doneMoves.js';
import { sameThing } from '../notebook/things.js';
import { reallyMoved } from '../kit/wentIn.js';

/** Why nothing can be said of a move. */
export type NotJudged = 'too-small' | 'moved-between' | 'untrusted' | 'conditions-differ' | 'needle' | 'not-reached';

/** What a move did, from the round before it and the first one after it was done. */
export interface JudgedMove {
  readonly check: string;
  readonly move: MoveWrite;
  /** The round that it was made from, and the one that judges it. */
  readonly from: RoundHead;
  readonly next: RoundHead;
  readonly before: number;
  readonly after: number;
  /** What was set out to be done at the part, without what tightening did; signed like the quantity. */
  readonly planned: number;
  /** What was seen of that. */
  readonly observed: number;
  /** Conditions that differ between the two rounds: named before the difference is. */
  readonly unlike: readonly string[];
  /** Why nothing can be said of it; then its result teaches nothing. */
  readonly because: NotJudged | undefined;
  /** What was moved in between, where that is why. */
  readonly between: DoneMove | undefined;
  readonly result: MoveResult;
}

/** What became of a move that asks for something before anything else is moved. */
export type BadMove = Extract<Outcome, 'wrong-way' | 'nothing-moved'>;
export const isBadMove = (outcome: string): outcome is BadMove => outcome === 'wrong-way' || outcome === 'nothing-moved';

/** Notes of a finding that make its figures worth nothing to judge by. */
const UNTRUSTED = ['misread', 'conditions-differ'];

/** Whether a round's word on a quantity may judge a move: it was read to its end, closes, and contradicts nothing. */
function trusted({ finding }: RoundHead, quantity: string): boolean {
  const own = finding?.quantities[quantity]?.because ?? [];
  if (own.some((code) => code !== 'self-made-evidence')) return false;
  return !(finding?.notes ?? []).some(
    ({ code, severity, quantity: of }) =>
      UNTRUSTED.includes(code) || (code === 'closure' && severity === 'serious') || (code === 'reversal-open' && of === quantity),
  );
}

/** What tightening did to the part, and what it was allowed for: both are no doing of the screw. */
const tightening = ({ made }: MoveWrite): { readonly did: number; readonly preset: number } => {
  const preset = made?.preset ?? 0;
  return { did: made?.tightened ?? preset, preset };
};

/** Whether the needle of one round was found to count the other way from how the other took it. */
function needleDiffers(before: RoundHead, after: RoundHead): boolean {
  const sameDial = before.instrumentName === after.instrumentName && before.mounting === after.mounting;
  const [one, other] = [before.sense ?? (after.sense === null ? null : 1), after.sense ?? (before.sense === null ? null : 1)];
  return sameDial && one !== other;
}

/**
 * Judge the finished moves of a check by the rounds around them, oldest first. A move counts from when it was done:
 * a round read between its beginning and its end judges nothing. Nothing is said of a move where something else that upsets
 * the check was moved in between, or where one of the two rounds cannot be trusted.
 *
 * @param rounds all rounds of the machine, oldest first. @param other what else was done to the machine.
 */
export function judgedMoves(check: string, rounds: readonly RoundHead[], other: OtherWork = {}): JudgedMove[] {
  const own = rounds.filter((round) => round.check === check);
  if (own.every(({ moves }) => moves.length === 0)) return [];
  return judgedAmong(own, allDone(rounds, other));
}

/** Everything that was done to a machine, in the order in which it was done. */
export const allDone = (rounds: readonly RoundHead[], other: OtherWork): DoneMove[] =>
  [...doneMoves(rounds), ...otherDone(other)].sort(asDone);

/** The same with everything that was done already known: where many checks are judged at once. @param own rounds of one check, oldest first. */
export function judgedAmong(own: readonly RoundHead[], done: readonly DoneMove[]): JudgedMove[] {
  return own.flatMap((from) =>
    from.moves.flatMap((move): JudgedMove[] => {
      const { doneAt, quantity } = move;
      const next =
        doneAt === null
          ? undefined
          : own.find((later) => later.at > doneAt && sameThing(later, from) && later.finding?.quantities[quantity]);
      const [before, after] = [from.finding?.quantities[quantity], next?.finding?.quantities[quantity]];
      if (!next || !before || !after) return [];
      const { did, preset } = tightening(move);
      const planned = reallyMoved(move) - preset;
      const observed = after.value - before.value - did;
      const expanded = Math.max(before.expanded ?? 0, after.expanded ?? 0);
      const unlike = differences(from.conditions, next.conditions);
      const between = done.find(
        (entry) => entry.id !== move.id && entry.doneAt > from.at && entry.doneAt <= next.at && disturbs(entry, next),
      );
      const result = judgeMove(planned, observed, (after.aim ?? 0) - after.value, expanded);
      const because = whyNot({ from, next, move, unlike, between, result });
      return [
        {
          check: from.check,
          move,
          from,
          next,
          before: before.value,
          after: after.value,
          planned,
          observed,
          unlike,
          because,
          between,
          result,
        },
      ];
    }),
  );
}

function whyNot({
  from,
  next,
  move,
  unlike,
  between,
  result,
}: Pick<JudgedMove, 'from' | 'next' | 'move' | 'unlike' | 'between' | 'result'>): NotJudged | undefined {
  if (between) return 'moved-between';
  if (!trusted(from, move.quantity) || !trusted(next, move.quantity)) return 'untrusted';
  if (unlike.length) return 'conditions-differ';
  if (needleDiffers(from, next)) return 'needle';
  if (move.made?.reached === false) return 'not-reached';
  return result.outcome === 'cannot-tell' ? 'too-small' : undefined;
}

/** Whose gain is asked for: it is kept for a machine by check, quantity and the screw that was turned. */
export interface Screw {
  readonly check: string;
  readonly quantity: string;
  readonly kind: string;
}

/** Moves of one screw. */
export const ofScrew =
  ({ check, quantity, kind }: Screw) =>
  (entry: JudgedMove): boolean =>
    entry.check === check && entry.move.quantity === quantity && entry.move.kind === kind;

/** The gain that was already in the turns of a move: it compounds. */
const gainUsed = ({ plan }: MoveWrite): number => (typeof plan['gain'] === 'number' && plan['gain'] !== 0 ? plan['gain'] : 1);

/** What a screw moved in all for what its pitch says. */
export interface TotalGain {
  readonly entry: JudgedMove;
  readonly total: number;
  /** It lies surely outside what a screw can do: a wrong pitch, or another screw. */
  readonly odd: boolean;
}

/** How sure a gain is: both rounds bring their ± into what was seen. */
function gainDoubt({ planned, from, next, move }: JudgedMove): number {
  const [before, after] = [from, next].map(({ finding }) => finding?.quantities[move.quantity]?.expanded ?? 0);
  return planned === 0 ? Infinity : Math.hypot(before, after) / Math.abs(planned);
}

/**
 * Whether a kind of move turns screws or feet: their gain can be learned, and a wrong way is given back by turning on. Nobody learns
 * how metal comes off from a pass that was told to stop short, nor how thick a leaf is.
 */
export const turnsScrew = (kind: string): boolean => MOVES.get(kind)?.input.shape['gain'] !== undefined;

/** What a screw moved in all for what its pitch says, in each move that teaches it, oldest first. */
export function totalGains(judged: readonly JudgedMove[], screw: Screw): TotalGain[] {
  if (!turnsScrew(screw.kind) || CHECKS.get(screw.check)?.corrections[screw.quantity]?.noGain) return [];
  return judged.filter(ofScrew(screw)).flatMap((entry) => {
    const { gain } = entry.result;
    // What moved nothing says nothing of a screw that moves.
    if (gain === null || entry.because || Math.abs(gain) < NOTHING) return [];
    const used = gainUsed(entry.move);
    const [size, room] = [Math.abs(gain * used), Math.abs(gainDoubt(entry) * used)];
    return [{ entry, total: gain * used, odd: size + room < GAIN_RANGE[0] || size - room > GAIN_RANGE[1] }];
  });
}
/** Less than this part of a move is nothing. */
const NOTHING = 0.15;

/**
 * The gain learned for a screw: what it moves for what its pitch says, negative where it works the other way round. Null when nothing
 * teaches it, or where a gain would mislead.
 */
export function signedGainOf(judged: readonly JudgedMove[], screw: Screw): number | null {
  const usable = totalGains(judged, screw).filter(({ odd }) => !odd);
  // What is at the edge within its ± is taken as the edge.
  return learnedGain(usable.map(({ total }) => Math.sign(total) * Math.min(GAIN_RANGE[1], Math.max(GAIN_RANGE[0], Math.abs(total)))));
}

/** How much a screw moves for what its pitch says, whichever way round it works. */
export const gainOf = (judged: readonly JudgedMove[], screw: Screw): number | null => {
  const gain = signedGainOf(judged, screw);
  return gain === null ? null : Math.abs(gain);
};

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
