import fc from 'fast-check';
import { minimumZone } from '../fit/minimumZone.js';
import { solve } from '../solve/solve.js';
import { plannedKind, type CheckDefinition } from './define.js';
import { CHECKS } from './registry.js';

const PLACES = [0, 100, 200, 300].flatMap((at) => [0, 80, 160].map((across) => ({ at, across })));
const sheet = (heightAt: (at: number, across: number) => number, places = PLACES) => ({
  format: 'isometra-sheet/1',
  check: 'table-parallelism-x',
  instrument: { kind: 'lever', graduation: '1 um', sense: 1 },
  setup: {},
  readings: places.map(({ at, across }) => ({ at, across, value: heightAt(at, across) })),
});

describe('a table read as a grid', () => {
  it('is a plane: its slopes both ways come back, and nothing is left over', () => {
    fc.assert(
      fc.property(fc.integer({ min: -80, max: 80 }), fc.integer({ min: -80, max: 80 }), (along, across) => {
        const { quantities } = solve(sheet((x, y) => 3 + (along * x + across * y) / 1000));
        expect(quantities['slope'].value).toBeCloseTo(along, 6);
        expect(quantities['slopeAcross'].value).toBeCloseTo(across, 6);
        expect(quantities['range'].value).toBeCloseTo(0, 6);
      }),
      { numRuns: 25 },
    );
  });

  it('a twist that no row shows by itself is found; its two closest planes are never further apart than the fit leaves', () => {
    // A saddle: along each row it is straight, and on the whole 12 µm from corner to corner.
    const twisted = (x: number, y: number) => (6 * (x - 150) * (y - 80)) / (150 * 80);
    const { quantities } = solve(sheet(twisted));
    expect(quantities['slope'].value).toBeCloseTo(0, 6);
    expect(quantities['range'].value).toBeCloseTo(12, 6);
    expect(Number(quantities['range'].detail?.['minimumZone'])).toBeCloseTo(12, 6);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -20, max: 20 }), { minLength: PLACES.length, maxLength: PLACES.length }), (heights) => {
        const found = solve(sheet((x, y) => heights[PLACES.findIndex(({ at, across }) => at === x && across === y)])).quantities['range'];
        expect(Number(found.detail?.['minimumZone'])).toBeLessThanOrEqual(found.value + 1e-6);
        expect(Number(found.detail?.['minimumZone'])).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 25 },
    );
  });

  it('three places in one line make no plane; one row is read as it always was', () => {
    const line = solve(
      sheet(
        (x) => x / 100,
        PLACES.filter(({ across }) => across === 0),
      ),
    );
    expect(line.quantities['slope'].value).toBeCloseTo(10, 6);
    expect(line.quantities['slopeAcross']).toBeUndefined();
    expect(minimumZone([{ x: 0, y: 0, height: 1 }])).toBeUndefined();
  });

  it('is planned there along one row and back along the next; what has no rows refuses them', () => {
    const check = CHECKS.get('table-parallelism-y') as CheckDefinition;
    const planned = check.slots({}, check.plan.parse({ stations: 3, length: '200 mm', rows: 2, width: '120 mm' }));
    expect(planned.map(({ keys }) => `${keys['at']}/${keys['across']}`)).toEqual([
      '0/0',
      '100/0',
      '200/0',
      '200/120',
      '100/120',
      '0/120',
      '0/0',
    ]);
    expect(plannedKind(check, {}, { rows: 2 })).toBe('indicator');
    const slot = { ...sheet(() => 0), check: 'slot-parallelism' };
    expect(() => solve(slot)).toThrowMatching((error) => error.faults.some(({ path }: { path: string }) => path.endsWith('across')));
  });
});
