import type { MoveWrite, RoundHead } from '@isometra/contract';
import fc from 'fast-check';
import { canSwap, pileUnder, SWAP } from './pile.js';
import { leavesIn, leavesOf, partReached, reallyMoved } from './wentIn.js';

const read = (text: string) => {
  const told = leavesOf(text);
  return told.ok ? told.leaves.map((leaf) => Number(leaf.toFixed(4))) : told.message;
};

describe('shims that stand under something', () => {
  const made = { dial: null, preset: 0, tightened: null, rule: null };
  const round = (day: number, ...moves: Partial<MoveWrite>[]) =>
    ({
      ...{ id: `r${day}`, check: 'tailstock-traverse', conditions: {}, at: `2026-01-0${day}T08:00:00.000Z` },
      moves: moves.map((move) => ({
        ...{ quantity: 'offsetVertical', unit: 'um', kind: 'shim-leaves', doneAt: `2026-01-0${day}T10:00:00.000Z`, amount: 75 },
        ...move,
      })),
    }) as unknown as RoundHead;
  const leaves = (...of: number[]) => ({ plan: { leaves: of } });
  const under = (rounds: readonly RoundHead[]) => pileUnder(rounds[rounds.length - 1], 'offsetVertical', rounds);

  it('are one pile, whatever went in when; others in their place are the pile from then on', () => {
    expect(under([round(1, leaves(50, 20)), round(2, leaves(30)), round(3)])).toEqual({ way: 1, leaves: [50, 20, 30] });
    const swap = { kind: SWAP, amount: -25, plan: { out: [75], leaves: [50] } };
    expect(under([round(1, leaves(75)), round(2, swap), round(3)])?.leaves).toEqual([50]);
    expect(under([round(1, leaves(75)), round(2, { ...swap, made: { ...made, wentIn: [40] } }), round(3)])?.leaves).toEqual([40]);
  });
  it('are none where none went in, where they are out again, or where nobody knows which', () => {
    const takenOut = { at: '2026-01-02T08:00:00.000Z', by: 'HB' };
    expect(under([round(1, { ...leaves(75), made: { ...made, takenOut } }), round(3)])).toBeUndefined();
    expect(under([round(1, { plan: { leaves: null } }), round(3)])).toBeUndefined();
    expect(under([round(1, { ...leaves(75), doneAt: null }), round(3)])).toBeUndefined();
    expect(under([round(1, leaves(75)), round(2, { ...leaves(20), amount: -20 }), round(3)])).toBeUndefined();
    expect(under([round(1, { ...leaves(75), quantity: 'slopeVertical' }), round(3)])).toBeUndefined();
  });
  it('can be made thinner only against the way they work, and by no more than they are thick', () => {
    const pile = { way: 1, leaves: [75] } as const;
    expect([-25, -75, -80, 25].map((amount) => canSwap(pile, { amount, unit: 'um' }))).toEqual([true, true, false, false]);
    expect(canSwap(pile, { amount: -25, unit: 'um/m' })).toBeFalse();
    expect(canSwap(undefined, { amount: -25, unit: 'um' })).toBeFalse();
  });
  it('thinner ones move it by the difference of what came out and what really went in', () => {
    const move = { kind: SWAP, amount: -25, unit: 'um', plan: { out: [75], leaves: [50] } };
    expect(reallyMoved(move)).toBe(-25);
    expect(reallyMoved({ ...move, made: { ...made, wentIn: [40] } })).toBe(-35);
  });
});

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
    expect(read('')).toBe('What went in is missing. Example: 0.05 + 0.02 mm');
    expect(read('0.05 + 0.02')).toBe('"0.05" has no unit. Example: 0.05 + 0.02 mm');
    expect(read('0.05 mm + thin')).toBe('"thin" is no leaf of shim. Example: 0.05 + 0.02 mm');
    expect(read('50 mm')).toBe('"50 mm" is no leaf of shim. Example: 0.05 + 0.02 mm');
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

describe('how far the leaves of a plan carry a part', () => {
  it('is what is watched for: the nearest pile and not the wish', () => {
    // 47 µm were wanted and the drawer makes 50.
    expect(partReached('shim-leaves', { leaves: [30, 20], total: 50, error: 3 }, 40)).toBeCloseTo(50 / 47, 9);
    expect(partReached('trucks', { shim: 39.6, leaves: [30, 10], truck: 'rear' }, 40)).toBeCloseTo(40 / 39.6, 9);
    // 75 µm come out and 50 go in, where 48 were wanted back: it comes down by 25 instead of 27.
    expect(partReached('swap-leaves', { out: [75], leaves: [50], total: 50, error: 2 }, 40)).toBeCloseTo(25 / 27, 9);
  });

  it('is what a sleeve does before it comes to its end, and no more is judged', () => {
    expect(partReached('eccentric', { reach: -100, angle: -90 }, -150)).toBeCloseTo(100 / 150, 9);
    const move = { kind: 'eccentric', amount: -150, unit: 'um', plan: { reach: -100, angle: -90 } };
    expect(reallyMoved(move)).toBe(-100);
  });

  it('is all of it where no one pile was chosen, or nothing is laid in', () => {
    expect(partReached('shim-leaves', { thickness: 47 }, 40)).toBe(1);
    expect(partReached('base-shims', { frontLeaves: { leaves: [50] }, rearLeaves: { leaves: [70] } }, 40)).toBe(1);
    expect(partReached('adjuster', { turns: 0.1, leaves: [50] }, 40)).toBe(1);
  });
});
