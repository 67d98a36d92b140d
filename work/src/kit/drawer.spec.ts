import { leavesMoved, leavesUsed } from './drawer.js';

const drawers = [
  { id: 'a', stock: [{ thickness: '0.05 mm', count: 1 }] },
  {
    id: 'b',
    stock: [
      { thickness: '2 thou', count: 1 },
      { thickness: '50 um', count: 2 },
    ],
  },
];
const counts = (moved: readonly { id: string; stock: readonly { count: number }[] }[]) =>
  Object.fromEntries(moved.map(({ id, stock }) => [id, stock.map(({ count }) => count)]));

describe('the shim drawers', () => {
  it('give a leaf from the first that has one, whatever unit it was typed in, and take it back', () => {
    const taken = leavesMoved(drawers, [50, 50.8, 50], -1);
    expect(counts(taken)).toEqual({ a: [0], b: [0, 1] });
    const back = leavesMoved(taken, [50, 50.8], 1);
    expect(counts(back)).toEqual({ a: [1], b: [1, 1] });
    expect(drawers[0].stock[0].count).toBe(1);
  });

  it('never have fewer than none, and only those that changed are told', () => {
    expect(counts(leavesMoved(drawers, [50, 50, 50, 50, 20], -1))).toEqual({ a: [0], b: [1, 0] });
    expect(leavesMoved(drawers, [20], -1)).toEqual([]);
  });

  it('know the leaves of one pile, and of those front and rear', () => {
    expect(leavesUsed({ leaves: [50, 20], total: 70 })).toEqual([50, 20]);
    expect(leavesUsed({ front: 70, frontLeaves: { leaves: [50, 20] }, rearLeaves: { leaves: null } })).toEqual([50, 20]);
    expect(leavesUsed({ turns: 1 })).toEqual([]);
  });
});
