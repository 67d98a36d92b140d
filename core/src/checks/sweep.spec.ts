import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import { CHECKS } from './registry.js';

interface Read {
  readonly angle: number;
  readonly zero?: number;
  readonly value: string;
}

const sheet = (readings: readonly Read[]) => ({
  format: 'isometra-sheet/1',
  check: 'tailstock-sweep',
  setup: { distance: '500 mm', axisSlopeH: 0, axisSlopeV: 0 },
  instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1, holderSag: '0.01 um' },
  readings,
});
/** What a dial shows on a quill that stands h toward the operator and v high, + where the surface is nearer to it. */
const shown = (angle: number, h: number, v: number): number =>
  h * Math.cos((angle * Math.PI) / 180) + v * Math.sin((angle * Math.PI) / 180);
const swept = (h: number, v: number, zeros: readonly [first: number, second: number], told: boolean): Read[] =>
  [0, 180, 90, 270].map((angle, i) => ({
    angle,
    ...(told && { zero: i < 2 ? 1 : 2 }),
    value: `${(shown(angle, h, v) + zeros[i < 2 ? 0 : 1]).toFixed(4)} um`,
  }));
const codes = (readings: readonly Read[]): readonly string[] => solve(sheet(readings)).notes.map(({ code }) => code);

describe('a sweep whose dial was zeroed again for the height', () => {
  it('gives side and height, whatever the two zeros are, and says nothing of a circle', () => {
    const um = fc.double({ min: -60, max: 60, noNaN: true });
    fc.assert(
      fc.property(um, um, fc.tuple(um, um), (h, v, zeros) => {
        const { quantities, notes } = solve(sheet(swept(h, v, zeros, true)));
        const sign = Math.sign(h) || 1;
        expect(Math.abs(quantities['offsetHorizontal'].value)).toBeCloseTo(Math.abs(h), 2);
        expect(Math.abs(quantities['offsetVertical'].value)).toBeCloseTo(Math.abs(v), 1);
        if (Math.abs(h) > 1) expect(Math.sign(quantities['offsetHorizontal'].value)).toBe(sign);
        expect(quantities['closure']).toBeUndefined();
        expect(notes.map(({ code }) => code)).not.toContain('out-of-round');
        expect(notes.map(({ code }) => code)).not.toContain('misread');
      }),
      { numRuns: 60 },
    );
  });

  it('is the same as one on a single zero', () => {
    const one = solve(sheet(swept(21, -8, [0, 0], false))).quantities;
    const two = solve(sheet(swept(21, -8, [5, -40], true))).quantities;
    for (const name of ['offsetHorizontal', 'offsetVertical', 'offsetRadial'])
      expect(two[name].value).withContext(name).toBeCloseTo(one[name].value, 3);
  });

  it('is no circle where nobody said so, and the note asks for the zero', () => {
    const { notes } = solve(sheet(swept(21, -8, [5, -40], false)));
    expect(notes.find(({ code }) => code === 'out-of-round')?.text).toContain('Was the dial zeroed again on the way?');
  });

  it('half read tells the side alone; a side and a top on two zeros are no pair', () => {
    const readings = swept(21, -8, [5, -40], true);
    expect(codes(readings.slice(0, 3))).toContain('no-vertical');
    expect(solve(sheet(readings.slice(0, 3))).quantities['offsetHorizontal'].value).toBeCloseTo(21, 2);
    expect(codes([readings[0], { ...readings[1], zero: 2 }])).toContain('too-few-readings');
  });

  it('is planned so: each pair comes back to its own first place', () => {
    const check = CHECKS.get('tailstock-sweep');
    const slots = check?.slots(check.setup.parse({}), check.plan.parse({ angles: 'pairs' })) ?? [];
    expect(slots.map(({ keys, closing = false }) => `${keys['angle']} ${keys['zero']} ${closing}`)).toEqual([
      '0 1 false',
      '180 1 false',
      '0 1 true',
      '90 2 false',
      '270 2 false',
      '90 2 true',
    ]);
    expect(slots[3].ask).toContain('Zero the dial again');
  });
});
