import fc from 'fast-check';
import type { RoundHead } from '@isometra/contract';
import { Diary, finding, move, quantity } from '../testing/heads.js';
import { compared, type Side } from './compare.js';

const BAR = 'tailstock-traverse';
const found: Side = { surveyId: 's', when: 'found' };
const left: Side = { surveyId: 's', when: 'left' };

function sideways(diary: Diary, value: number, more: Partial<RoundHead> = {}): RoundHead {
  return { ...diary.round(BAR, null), finding: finding({ offsetHorizontal: quantity({ value, expanded: 3 }) }), ...more };
}

describe('two surveys compared', () => {
  it('as found is the first round, as left the last; the change with the U of a difference, and what was moved between', () => {
    const diary = new Diary();
    const moved = move({ quantity: 'offsetHorizontal', begunAt: Diary.at(2, 9), doneAt: Diary.at(2, 9) });
    const rounds = [sideways(diary, 40), sideways(diary, 21, { moves: [moved] }), sideways(diary, 4)];
    const [one, ...others] = compared(rounds, found, left, []);
    expect(others).toEqual([]);
    expect([one.from?.quantity.value, one.to?.quantity.value]).toEqual([40, 4]);
    expect(one.change?.by).toBe(-36);
    expect(one.change?.expanded).toBeCloseTo(Math.hypot(3, 3), 9);
    expect(one.change?.sure).toBeTrue();
    expect(one.moves.map(({ id }) => id)).toEqual([moved.id]);
  });

  it('a change within its U is none that can be told', () => {
    const diary = new Diary();
    expect(compared([sideways(diary, 4), sideways(diary, 8)], found, left, [])[0].change?.sure).toBeFalse();
    expect(compared([sideways(diary, 4), sideways(diary, 8.3)], found, left, [])[0].change?.sure).toBeTrue();
  });

  it('what was read once is no change, and what one side lacks is there all the same', () => {
    const diary = new Diary();
    const once = sideways(diary, 4);
    const [same] = compared([once], found, left, []);
    expect([same.from?.round.id, same.to?.round.id, same.change]).toEqual([once.id, once.id, null]);
    const [half] = compared([once], found, { surveyId: 'other', when: 'left' }, []);
    expect([half.from?.round.id, half.to, half.change]).toEqual([once.id, null, null]);
  });

  it('a round that was not read to its end never stands before one that was; one that does not count never', () => {
    const diary = new Diary();
    const rounds = [
      sideways(diary, 99, { unread: 2 }),
      sideways(diary, 40),
      sideways(diary, 4),
      sideways(diary, 77, { unread: 1 }),
      sideways(diary, 88, { struck: { why: 'loose', by: 'HB', at: Diary.at(5) } }),
    ];
    const [one] = compared(rounds, found, left, []);
    expect([one.from?.quantity.value, one.to?.quantity.value]).toEqual([40, 4]);
    expect(compared([rounds[0]], found, left, [])[0].from?.quantity.value).toBe(99);
  });

  it('conditions that differ are named, moves of other quantities and other times left out', () => {
    const diary = new Diary();
    const other = move({ quantity: 'offsetVertical', doneAt: Diary.at(1, 9) });
    const late = move({ quantity: 'offsetHorizontal', doneAt: Diary.at(9) });
    const rounds = [
      sideways(diary, 40, { conditions: { quillLock: 'on' }, moves: [other] }),
      sideways(diary, 4, { conditions: { quillLock: 'off' }, moves: [late] }),
    ];
    const [one] = compared(rounds, found, left, []);
    expect(one.moves).toEqual([]);
    expect(one.unlike.join()).toContain('quill lock');
  });

  it('turned round, every change is the opposite, as sure as before', () => {
    const value = fc.double({ min: -200, max: 200, noNaN: true });
    fc.assert(
      fc.property(fc.array(value, { minLength: 2, maxLength: 6 }), (values) => {
        const diary = new Diary();
        const rounds = values.map((size) => sideways(diary, size));
        const [there] = compared(rounds, found, left, []);
        const [back] = compared(rounds, left, found, []);
        expect(back.change?.by).toBeCloseTo(-(there.change?.by ?? NaN), 9);
        expect(back.change?.sure).toBe(there.change?.sure);
      }),
    );
  });
});
