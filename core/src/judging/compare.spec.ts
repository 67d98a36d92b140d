import { CHECKS, FILE_SIZES, sentence, type CheckDefinition } from '../index.js';
import { cutSheet, sweepSheet, traverseSheet } from '../practice/tailstock.js';
import { solve } from '../solve/solve.js';
import { differences, disagreements, taperEccentricity, type Disagreement } from './compare.js';
import { effectOnWork } from './work.js';

const check = (id: string) => CHECKS.get(id) as CheckDefinition;
const dial = { kind: 'plunger', graduation: 1, sense: 1, holderSag: -8 } as const;
const where = { offsetHorizontal: 5, offsetVertical: 10, axisSlopeH: 60, axisSlopeV: 0 };
const bar = {
  check: check('tailstock-traverse'),
  finding: solve(traverseSheet(where, { centreDistance: 400, stations: [20, 380], bar: { diameter: 30 }, dial })),
};
const swept = {
  check: check('tailstock-sweep'),
  finding: solve(sweepSheet(where, { feature: 'outside', radius: 20, angles: [0, 90, 180, 270], distance: 500, dial })),
};

const told = ({ text }: Disagreement): string => sentence(text, FILE_SIZES);

describe('rounds and methods side by side', () => {
  it('names the conditions that differ', () => {
    expect(differences({ quillLock: true, place: 300 }, { quillLock: true, place: 900, bedClamp: false })).toEqual([
      'place along the bed 300, then 900',
      'bed clamp not noted, then off',
    ]);
    expect(differences({ quillLock: true }, { quillLock: true })).toEqual([]);
  });

  it('a traverse and a sweep part by the axis, and it says so', () => {
    const [found, ...others] = disagreements(bar, swept);
    expect(found.quantity).toBe('offsetHorizontal');
    expect(found.difference).toBeCloseTo(-30, 1);
    expect(told(found)).toContain('spindle axis');
    expect(others).toEqual([]);
  });

  it('where the axis is known it is held against the difference: what it makes is told, and nothing is looked for', () => {
    const sheet = sweepSheet(where, { feature: 'outside', radius: 20, angles: [0, 90, 180, 270], distance: 500, dial });
    const known = { ...sheet, setup: { ...(sheet.setup as object), distance: 500, axisSlopeH: 60, axisSlopeV: 0 } };
    const sweep = { check: check('tailstock-sweep'), finding: solve(known) };
    const [found] = disagreements(bar, sweep);
    expect(found.byAxis).toBeTrue();
    expect(told(found)).toContain('The spindle axis makes 30 µm of it, and that explains it. Seen from the carriage,');
    expect(told(found).match(/says 5 µm toward the operator/g)?.length).toBe(2);
    expect(told(found)).not.toContain('Check the spindle axis');
    // An axis that explains a third of it leaves the rest to be looked for, and so does one of the other sign.
    for (const axisSlopeH of [20, -60]) {
      const other = solve({ ...known, setup: { ...known.setup, axisSlopeH } });
      const [left] = disagreements(bar, { ...sweep, finding: other });
      expect(left.byAxis).withContext(String(axisSlopeH)).toBeUndefined();
      expect(told(left)).toContain('are left. Look at what each one trusts');
    }
    // Measured, but the sweep was not told of it.
    expect(told(disagreements(bar, swept, { axisKnown: true })[0])).toContain('give its distance from the spindle nose');
  });

  it('two of the carriage that differ point at what they trust; agreeing ones say nothing', () => {
    const finding = (offset: number) =>
      solve(
        cutSheet(
          { offsetHorizontal: offset, offsetVertical: 0 },
          { centreDistance: 400, stations: [20, 380], diameter: 38, graduation: 1 },
        ),
      );
    expect(told(disagreements(bar, { check: check('tailstock-test-cut'), finding: finding(40) })[0])).toContain('headstock centre');
    expect(disagreements(bar, { check: check('tailstock-test-cut'), finding: finding(5) })).toEqual([]);
  });

  it('quill and centre swept give the eccentricity of the taper', () => {
    const sweep = (h: number, v: number) =>
      solve(
        sweepSheet(
          { offsetHorizontal: h, offsetVertical: v },
          { feature: 'outside', radius: 20, angles: [0, 90, 180, 270], distance: 500, dial },
        ),
      );
    const found = taperEccentricity(sweep(5, 10), sweep(8, 14));
    expect(found?.radial).toBeCloseTo(5, 2);
    // From the sides alone it is known sideways, and no more.
    const sides = ({ quantities: { offsetHorizontal } }: ReturnType<typeof sweep>) => ({ quantities: { offsetHorizontal } });
    const half = taperEccentricity(sides(sweep(5, 10)), sides(sweep(8, 14)));
    expect(half?.horizontal).toBeCloseTo(3, 2);
    expect([half?.vertical, half?.radial]).toEqual([null, null]);
    expect(taperEccentricity(sweep(5, 10), { quantities: {} })).toBeUndefined();
  });
});

describe('what the error does to the work', () => {
  it('a taper over the length turned, and next to nothing from height', () => {
    const [side, height] = effectOnWork(bar.finding, { kind: 'turning', length: 200, centreDistance: 400, diameter: 30 });
    expect(side.effect).toBeCloseTo(5, 6);
    expect(height.leave).toBeTrue();
  });

  it('a height tells on thin work: half a diameter of 1 mm, 0.1 mm off, is 0.0198 mm on diameter', () => {
    const high = { ...bar.finding, quantities: { offsetVertical: { ...bar.finding.quantities['offsetVertical'], value: 100 } } };
    const [{ effect }] = effectOnWork(high, { kind: 'turning', diameter: 1 });
    expect(effect).toBeCloseTo(2000 * (Math.hypot(0.5, 0.1) - 0.5), 6);
    expect(effect).toBeCloseTo(19.8, 1);
  });

  it('what is left alone is less than a thousandth of a millimetre on diameter', () => {
    const off = (value: number) => ({
      ...bar.finding,
      quantities: { offsetHorizontal: { ...bar.finding.quantities['offsetHorizontal'], value } },
    });
    expect([0.49, -0.49, 0.51, 0.9].map((value) => effectOnWork(off(value), { kind: 'drilling' })[0].leave)).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });

  it('a reamed hole cut over size', () => {
    const [side, height] = effectOnWork(bar.finding, { kind: 'drilling' });
    expect(side.effect).toBeCloseTo(10, 6);
    expect(height.effect).toBeCloseTo(20, 1);
  });
});
