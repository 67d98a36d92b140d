import type { Made, MoveWrite, RoundHead } from '@isometra/contract';
import { gainOf, judgedMoves, screwRuleOf, usualShiftOf } from './moves.js';
import { Diary, move } from '../testing/heads.js';
import { headOf, tailstockRound, type SolvedRound } from '../testing/rounds.js';

const SCREW = { check: 'tailstock-traverse', quantity: 'offsetHorizontal', kind: 'adjuster' };
const judgedIn = (rounds: readonly RoundHead[]) => judgedMoves(rounds[0].check, rounds);
/** Rounds a day apart, each with its move done at noon of its day. */
const story = (...steps: { offset: number; move?: Partial<MoveWrite>; part?: Partial<SolvedRound> }[]): RoundHead[] =>
  steps.map(({ offset, move: made, part }, i) => {
    const moves = made ? [move({ quantity: SCREW.quantity, begunAt: Diary.at(i + 1, 11), doneAt: Diary.at(i + 1, 12), ...made })] : [];
    return headOf(tailstockRound(offset, { at: Diary.at(i + 1), moves, ...part }));
  });

describe('what a head does on tightening', () => {
  const made = (tightened: number, ...order: number[]): Made => ({
    ...{ dial: null, preset: 0, tightened, rule: null },
    bolts: order.map((bolt) => ({ bolt, reads: 0 })),
  });
  const rounds = story(
    { offset: 30, move: { amount: -30, made: made(4, 1, 3, 2, 4) } },
    { offset: 20, move: { amount: -20, made: made(6, 1, 3, 2, 4, 1, 3) } },
    { offset: 10, move: { amount: -10, made: made(-9, 1, 2, 3, 4) } },
    { offset: 5 },
  );

  it('is learned for the order of its bolts, the second time round not counted', () => {
    expect(usualShiftOf(rounds, SCREW, [1, 3, 2, 4])).toEqual({ shift: 5, seen: 2, steady: true });
    expect(usualShiftOf(rounds, SCREW, [1, 2, 3, 4])?.shift).toBe(-9);
    expect(usualShiftOf(rounds, SCREW, [4, 3, 2, 1])).toBeUndefined();
    expect(usualShiftOf(rounds, SCREW)?.seen).toBe(3);
  });
});

describe('moves judged by the rounds around them', () => {
  it('wrong way, and the gain learned from a later one', () => {
    const judged = judgedIn(story({ offset: 30, move: { amount: -30 } }, { offset: 60, move: { amount: -60 } }, { offset: 12 }));
    expect(judged.map((entry) => entry.result.outcome)).toEqual(['wrong-way', 'fell-short']);
    expect(gainOf(judged, SCREW)).toBeCloseTo(0.8, 6);
    expect(gainOf(judged, { ...SCREW, kind: 'shim-leaves' })).toBeNull();
    expect(gainOf(judged, { ...SCREW, quantity: 'offsetVertical' })).toBeNull();
  });

  it('unlike conditions are named and teach no gain', () => {
    const judged = judgedIn(
      story(
        { offset: 30, move: { amount: -30 }, part: { conditions: { quillLock: true } } },
        { offset: 6, part: { conditions: { quillLock: false } } },
      ),
    );
    expect(judged[0].unlike).toEqual(['quill lock on, then off']);
    expect(gainOf(judged, SCREW)).toBeNull();
  });

  it('a move at one station is judged at that station, not at another that was read in between', () => {
    const diary = new Diary();
    const at = (station: string, value: number, moved?: number) =>
      diary.round('turret-bore', 'out', { value, conditions: { station }, ...(moved && { moved }) });
    const judged = judgedIn([at('3', 30, 1), at('5', 60), at('3', 0)]);
    expect(judged.map(({ before, after }) => [before, after])).toEqual([[30, 0]]);
  });

  it('a move not done yet, or with no round after it, is not judged', () => {
    expect(judgedIn(story({ offset: 30, move: { amount: -30 } }))).toEqual([]);
    expect(judgedIn(story({ offset: 30, move: { amount: -30, doneAt: null } }, { offset: 2 }))).toEqual([]);
  });

  it('a round read between its beginning and its end judges nothing', () => {
    const rounds = story({ offset: 30, move: { amount: -30, doneAt: Diary.at(3) } }, { offset: 29 }, { offset: 28 }, { offset: 1 });
    expect(judgedIn(rounds).map(({ after }) => Math.round(after))).toEqual([1]);
  });
});

describe('what was seen at the screw', () => {
  const made = (tightened: number | null, rule: Made['rule'] = null): Made => ({ dial: null, preset: 0, tightened, rule });

  it('is kept for the screw: the median of what it did on tightening, and which screw drives it', () => {
    const rounds = story(
      { offset: 30, move: { amount: -30, made: made(4) } },
      { offset: 8, move: { amount: -8, made: made(6, 'drive-near') } },
      { offset: 5, move: { amount: -5, made: made(null) } },
      { offset: 2, move: { amount: -2, made: made(40, 'drive-far'), doneAt: null } },
    );
    expect(usualShiftOf(rounds, SCREW)).toEqual({ shift: 5, seen: 2, steady: true });
    expect(screwRuleOf(rounds, SCREW)).toBe('drive-near');
    expect(usualShiftOf(rounds, { ...SCREW, kind: 'eccentric' })).toBeUndefined();
    expect(screwRuleOf(rounds, { ...SCREW, quantity: 'offsetVertical' })).toBeNull();
  });
});
