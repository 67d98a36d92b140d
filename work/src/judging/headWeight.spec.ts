import { crossed } from './crossed.js';
import { measuredHeadWeight } from './headWeight.js';
import { Diary, finding, move, quantity } from '../testing/heads.js';

const lean = (leanY: number, expanded = 5) => finding({ leanY: quantity({ value: leanY, unit: 'um/m', expanded }) });

describe('the weight of a head', () => {
  const diary = () => {
    const book = new Diary();
    const rounds = (...all: { head?: 'on' | 'off'; leanY: number; moved?: number }[]) => {
      const heads = all.map(({ leanY, moved }) => book.round('column-lean', 'in', { finding: lean(leanY), moved }));
      const full = heads.map(({ id, at, moves }, i) => ({ id, at, moves, setup: all[i].head ? { head: all[i].head } : {} }));
      return measuredHeadWeight(full, heads);
    };
    return rounds;
  };

  it('is the lean with it on less the lean with it off, whichever was read first, with the doubt of both', () => {
    const found = diary()({ head: 'off', leanY: -38 }, { head: 'on', leanY: 4 });
    expect(found?.leanY).toBeCloseTo(42, 9);
    expect(found?.expanded).toBeCloseTo(Math.hypot(5, 5), 9);
    expect(found?.leanX).toBeUndefined();
    expect(diary()({ leanY: 4 }, { head: 'off', leanY: -38 })?.leanY)
      .withContext('a head nobody spoke of is on')
      .toBeCloseTo(42, 9);
  });

  it('is not told from one round, nor across a move of the column', () => {
    expect(diary()({ head: 'off', leanY: -38 })).toBeUndefined();
    expect(diary()({ head: 'off', leanY: -38, moved: 1 }, { head: 'on', leanY: 4 })).toBeUndefined();
    expect(diary()({ head: 'off', leanY: -38, moved: 3 }, { head: 'on', leanY: 4 })?.leanY).toBeCloseTo(42, 9);
  });
});

describe('what a move took past the middle', () => {
  const rounds = (before: number, now: number, part: Parameters<typeof quantity>[0] = {}, moved = true) => {
    const book = new Diary();
    const done = move({ quantity: 'leanY', begunAt: Diary.at(1, 9), doneAt: Diary.at(1, 10) });
    return [
      book.round('column-lean', 'out', { finding: lean(before), moves: moved ? [done] : [] }),
      book.round('column-lean', 'in', { finding: finding({ leanY: quantity({ value: now, ...part }) }) }),
    ];
  };

  it('is told with both values; meant where the aim lies on that side and it is not out', () => {
    expect(crossed(rounds(90, -30, { aim: -30 }))).toEqual([{ quantity: 'leanY', before: 90, now: -30, meant: true }]);
    expect(crossed(rounds(90, -30, { aim: 0 }))[0].meant).toBeFalse();
    expect(crossed(rounds(90, -80, { aim: -30, verdict: 'out' }))[0].meant).toBeFalse();
  });

  it('is not told within the doubts, without a move, or on the same side', () => {
    expect(crossed(rounds(4, -30))).toEqual([]);
    expect(crossed(rounds(90, -30, { expanded: 40 }))).toEqual([]);
    expect(crossed(rounds(90, -30, {}, false))).toEqual([]);
    expect(crossed(rounds(90, 30))).toEqual([]);
    expect(crossed(rounds(90, -30).slice(1))).toEqual([]);
  });
});
