import fc from 'fast-check';
import { leavesIn, leavesOf, reallyMoved } from './wentIn.js';

const read = (text: string) => {
  const told = leavesOf(text);
  return told.ok ? told.leaves.map((leaf) => Number(leaf.toFixed(4))) : told.message;
};

describe('what really went in', () => {
  it('is said as it is spoken', () => {
    expect(read('0.05 + 0.02 mm')).toEqual([50, 20]);
    expect(read('0.05 mm')).toEqual([50]);
    expect(read('2 thou and 1 thou')).toEqual([50.8, 25.4]);
    expect(read('0.05 mm + 1 thou')).toEqual([50, 25.4]);
    expect(read('2 x 0.05 mm + 0.02')).toEqual([50, 50, 20]);
    expect(read('nothing')).toEqual([]);
  });
  it('bad input is named, with what would do', () => {
    expect(read('')).toBe('What went in is missing. Try: 0.05 + 0.02 mm');
    expect(read('0.05 + 0.02')).toBe('"0.05" has no unit. Try: 0.05 + 0.02 mm');
    expect(read('0.05 mm + thin')).toBe('"thin" is no leaf of shim. Try: 0.05 + 0.02 mm');
    expect(read('50 mm')).toBe('"50 mm" is no leaf of shim. Try: 0.05 + 0.02 mm');
    expect(read('-0.05 mm')).toMatch(/is no leaf of shim/);
  });
  it('any leaves come back as they were said', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 500 }), { minLength: 1, maxLength: 5 }), (leaves) => {
        expect(read(leaves.map((leaf) => `${leaf} um`).join(' + '))).toEqual(leaves);
      }),
    );
  });
  it('takes the place of the plan: in the drawer and in what the move really was', () => {
    const made = { dial: null, preset: 0, tightened: null, rule: null, wentIn: [50] };
    const move = { kind: 'shim-leaves', amount: 40, unit: 'um', plan: { leaves: [20, 20], total: 40 } };
    expect(leavesIn(move)).toEqual([20, 20]);
    expect(reallyMoved(move)).toBe(40);
    expect(leavesIn({ ...move, made })).toEqual([50]);
    expect(reallyMoved({ ...move, made })).toBe(50);
    expect(reallyMoved({ ...move, amount: -40, made })).toBe(-50);
    expect(reallyMoved({ ...move, kind: 'adjuster', plan: {}, made })).toBe(40);
    expect(reallyMoved({ ...move, unit: 'um/m', made }))
      .withContext('a wedge is no thickness')
      .toBe(40);
  });
});
