import { planMove } from '@isometra/core';
import { openSupports, supportsFile } from './openedMove.js';

const FILE = {
  ...{ format: 'isometra-move/1', move: 'supports', frame: 'lathe', origin: [0, 100, 0] },
  supports: [
    ...[
      ['a', 0, 0],
      ['b', 300, 0],
      ['c', 0, 200],
      ['d', 300, 200],
    ].map(([id, z, x]) => ({ id, at: [z, 0, x], normal: [0, 1, 0], allow: 'either', area: 40 })),
  ],
  want: { slopeV: '40 um/m', lift: '0.5 thou' },
};

describe('a move file of a casting on its faces', () => {
  it('is opened with its amounts in base units, and says the same when it is saved again', () => {
    const told = openSupports(FILE);
    if (!('opened' in told)) throw new Error(JSON.stringify(told));
    expect(told.opened.want['slopeV']).toBeCloseTo(40, 9);
    expect(told.opened.want['lift']).toBeCloseTo(12.7, 9);
    expect(told.opened.origin).toEqual([0, 100, 0]);
    expect(planMove(supportsFile(told.opened))).toEqual(planMove(FILE));
    expect(openSupports(supportsFile(told.opened))).toEqual(told);
  });

  it('is refused in the words of the move: another format, another move, a face without a place', () => {
    const faults = (raw: unknown) => {
      const told = openSupports(raw);
      return 'faults' in told ? told.faults.map(({ path }) => path) : [];
    };
    expect(faults(null)).toEqual(['format']);
    expect(faults({ ...FILE, format: 'isometra-sheet/1' })).toEqual(['format']);
    expect(faults({ ...FILE, move: 'shim-leaves' })).toEqual(['move']);
    expect(faults({ ...FILE, want: { slopeV: 'much' } })).toEqual(['want.slopeV']);
    expect(faults({ ...FILE, supports: [] })).toEqual(['supports']);
    expect(faults({ ...FILE, want: { sideways: 1 } })).toEqual(['want.sideways']);
  });
});
