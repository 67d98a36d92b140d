import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import { CHECKS } from './registry.js';

const SETUPS: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  'axis-squareness': { squareError: 0, stylus: { reference: '+B', test: '+A' } },
  'table-parallelism-x': {},
  seat: {},
};
/** What a dial reads at each place, µm, + closer. */
type Places = readonly { readonly keys: object; readonly um: number }[];

const byDial = (check: string, places: Places) =>
  solve({
    ...{ format: 'isometra-sheet/1', check, setup: SETUPS[check] },
    instrument: { kind: 'lever', graduation: '1 um', sense: 1 },
    readings: places.map(({ keys, um }) => ({ ...keys, value: `${um} um` })),
  }).quantities;

/** The same with leaves: each gap lies in the middle of its two. */
const byLeaves = (check: string, places: Places, half = 0) =>
  solve({
    ...{ format: 'isometra-sheet/1', check, setup: SETUPS[check] },
    readings: places.map(({ keys, um }) => ({ ...keys, go: `${200 - um - half} um`, noGo: `${200 - um + half} um` })),
  });

const square = (p: number, q: number): Places =>
  [0, 100, 200].flatMap((at) => [
    { keys: { leg: 'reference', at }, um: (p * at) / 1000 },
    { keys: { leg: 'test', at }, um: (q * at) / 1000 },
  ]);

describe('checks that are read with leaves', () => {
  it('give what a dial gives, sign and size, whatever they read', () => {
    const slope = fc.integer({ min: -400, max: 400 });
    fc.assert(
      fc.property(slope, slope, (p, q) => {
        const [dial, leaves] = [byDial('axis-squareness', square(p, q)), byLeaves('axis-squareness', square(p, q)).quantities];
        expect(leaves['squareness'].value).toBeCloseTo(dial['squareness'].value, 6);
        const along: Places = [0, 100, 200, 300].map((at) => ({ keys: { at }, um: (p * at) / 1000 }));
        expect(byLeaves('table-parallelism-x', along).quantities['slope'].value).toBeCloseTo(
          byDial('table-parallelism-x', along)['slope'].value,
          6,
        );
      }),
      { numRuns: 40 },
    );
  });

  it('the seat of a casting rocks by the change of a gap', () => {
    const corners: Places = ['front left', 'rear right'].flatMap((corner, i) => [
      { keys: { corner, state: 'free' }, um: 0 },
      { keys: { corner, state: 'pressed' }, um: i ? -30 : 0 },
    ]);
    expect(byLeaves('seat', corners).quantities['rock'].value).toBeCloseTo(30, 6);
  });

  it('the doubt is that of what lies between two leaves', () => {
    const { quantities } = byLeaves(
      'table-parallelism-x',
      [0, 300].map((at) => ({ keys: { at }, um: 0 })),
      10,
    );
    // ± 10 µm at both ends of 300 mm: 20/√12 each, √2 of it over 0.3 m, and twice that.
    expect(quantities['slope'].expanded ?? 0).toBeCloseTo((2 * Math.SQRT2 * (20 / Math.sqrt(12))) / 0.3, 0);
  });

  it('leaves that bound nothing are refused by their place', () => {
    const one = { ...{ format: 'isometra-sheet/1', check: 'table-parallelism-x', setup: {} } };
    expect(() =>
      solve({
        ...one,
        readings: [
          { at: 0, go: 0.1 },
          { at: 100, go: 0.1, noGo: 0.12 },
        ],
      }),
    ).toThrowError(/readings\[0\]\.noGo/);
    expect(() =>
      solve({
        ...one,
        readings: [
          { at: 0, go: 0.2, noGo: 0.1 },
          { at: 100, go: 0.1, noGo: 0.12 },
        ],
      }),
    ).toThrowError(/thinner than the leaf that enters/);
  });

  it('are planned without a closing place and without a dial', () => {
    for (const id of Object.keys(SETUPS)) {
      const check = CHECKS.get(id);
      const slots = check?.slots(SETUPS[id], { leaves: true }) ?? [];
      expect(new Set(slots.map(({ keys }) => JSON.stringify(keys))).size)
        .withContext(id)
        .toBe(slots.length);
      expect(slots.every(({ keys }) => keys['shim'] === 0))
        .withContext(id)
        .toBeTrue();
      expect(check?.readsFor?.({}, slots[0].keys)).toBe('gap');
    }
  });
});
