import { KIT_KINDS, KIT_SCHEMAS, machineCardSchema, machineFamily } from '@isometra/contract';
import { daysUntilDue, fromKit, kitFaults } from './kit.js';

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

describe('cards and kit', () => {
  it('name what is wrong', () => {
    const parsed = machineCardSchema.safeParse({ number: '', kind: 'tractor', swing: 'big', base: { length: '16 spans', width: 3 } });
    expect(parsed.error?.issues.map((issue) => issue.path.join('.')).sort()).toEqual(['base.length', 'kind', 'number', 'swing']);
    expect(kitFaults({ kind: 'instrument', data: { kind: 'lever' } })[0].path).toBe('data.graduation');
    expect(kitFaults({ kind: 'shim-stock', data: { stock: [{ thickness: 'thin', count: 1 }] } })[0].path).toBe('data.stock[0].thickness');
  });
  it('know the family of a machine', () =>
    expect(['engine-lathe', 'turning-centre', 'turret-mill'].map(machineFamily)).toEqual(['lathe', 'turning-centre', 'mill']));
});
