import { daysUntilDue, fromKit, kitFaults, KIT_KINDS, KIT_SCHEMAS, leavesUsed, stockAfter } from './kit.js';

describe('a piece of kit', () => {
  it('every kind names what is missing', () => {
    for (const kind of KIT_KINDS) {
      if (kind === 'holder') continue;
      expect(kitFaults({ kind, data: {} }).length)
        .withContext(kind)
        .toBeGreaterThan(0);
      expect(kitFaults({ kind, data: {} })[0].path)
        .withContext(kind)
        .toMatch(/^data\./);
    }
    expect(kitFaults({ kind: 'holder', data: {} })).toEqual([]);
  });

  it('fills in what a set-up asks of it', () => {
    const bar = { kind: 'test-bar' as const, data: { diameter: '32 mm', bore: '10 mm', finish: 'ground', bend: '2 um', length: '400 mm' } };
    expect(fromKit(bar, { diameter: 1, bore: 1, finish: 1 })).toEqual({ diameter: '32 mm', bore: '10 mm', finish: 'ground' });
    expect(fromKit({ kind: 'square', data: { blade: '300 mm', error: '8 um/m' } }, undefined)).toBe('8 um/m');
    expect(fromKit({ kind: 'pins', data: { diameter: '10 mm' } }, undefined)).toBe('10 mm');
    expect(fromKit({ kind: 'holder', data: { sag: '-12 um' } }, undefined)).toBe('-12 um');
    expect(fromKit({ kind: 'blocks', data: { height: '50 mm' } }, undefined)).toBeUndefined();
    expect(Object.keys(KIT_SCHEMAS).sort()).toEqual([...KIT_KINDS].filter((kind) => kind !== 'instrument').sort());
  });

  it('is overdue from the day after it was due', () => {
    expect(daysUntilDue({ due: '2026-03-01' }, '2026-02-27')).toBe(2);
    expect(daysUntilDue({ due: '2026-03-01' }, '2026-03-01')).toBe(0);
    expect(daysUntilDue({ due: '2026-03-01' }, '2026-03-31')).toBe(-30);
    expect(daysUntilDue({}, '2026-03-31')).toBeUndefined();
  });
});

describe('the shim drawer', () => {
  const stock = [
    { thickness: '0.05 mm', count: 2 },
    { thickness: '2 thou', count: 1 },
  ];

  it('gives what a plan uses, whatever unit it was typed in, and takes it back', () => {
    const after = stockAfter(stock, [50, 50.8, 50], -1);
    expect(after.map((row) => row.count)).toEqual([0, 0]);
    expect(stockAfter(after, [50, 50.8, 50], 1)).toEqual(stock);
    expect(stock[0].count).toBe(2);
  });

  it('never has fewer than none', () => {
    expect(stockAfter(stock, [50, 50, 50, 20], -1).map((row) => row.count)).toEqual([0, 1]);
  });

  it('knows the leaves of one pile, and of those front and rear', () => {
    expect(leavesUsed({ leaves: [50, 20], total: 70 })).toEqual([50, 20]);
    expect(leavesUsed({ front: 70, frontLeaves: { leaves: [50, 20] }, rearLeaves: { leaves: null } })).toEqual([50, 20]);
    expect(leavesUsed({ turns: 1 })).toEqual([]);
  });
});
