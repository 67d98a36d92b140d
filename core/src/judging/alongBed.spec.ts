import fc from 'fast-check';
import type { Zone } from '../checks/zone.js';
import { alongBed, type PlaceRead } from './alongBed.js';

const place = (at: number, value: number, expanded = 2): PlaceRead => ({ at, value, expanded });

describe('one curve along the bed', () => {
  it('low here and right there is wear: one movement halves it between them', () => {
    // By pencil: heights −18 at 200 and 14 at 900, zone 0 to 20: 32 do not go into 20; 6 over at either end, up by 12.
    const curve = alongBed([place(900, 14), place(200, -18)], [0, 20], 0);
    expect(curve.worn).toBeTrue();
    expect(curve.places.map(({ at }) => at)).toEqual([200, 900]);
    expect(curve.spread).toBe(32);
    expect(curve.best).toBeCloseTo(12, 9);
    expect(curve.fits).toBeFalse();
    expect(curve.worst?.by).toBeCloseTo(6, 9);
  });

  it('a height that must never be low is lifted until its lowest place is, and no farther', () => {
    const curve = alongBed([place(200, -8), place(900, 4)], [0, 20], 0);
    expect(curve.best).toBeCloseTo(8, 9);
    expect(curve.fits).toBeTrue();
    expect(curve.worst).toBeNull();
  });

  it('in at every place is left alone, also where the middle is not at the aim', () => {
    expect(alongBed([place(200, 14), place(900, 6)], [0, 20], 0).best).toBe(0);
  });

  it('a spread within the doubts is no wear', () => {
    expect(alongBed([place(200, 30, 5), place(900, 36, 5)], [-15, 15], 0).worn).toBeFalse();
    expect(alongBed([place(200, 30, 2), place(900, 36, 2)], [-15, 15], 0).worn).toBeTrue();
  });

  it('one place is no curve', () => {
    expect(() => alongBed([place(200, 3)], [-15, 15], 0)).toThrowError(RangeError);
  });

  it('no other movement leaves the worst place better than the best one does', () => {
    const reads = fc.array(
      fc.record({ at: fc.integer({ min: 0, max: 1500 }), value: fc.integer({ min: -90, max: 90 }), expanded: fc.constant(2) }),
      { minLength: 2, maxLength: 6 },
    );
    const zones = fc.constantFrom<Zone>([-15, 15], [0, 20], [null, 10], [-5, null]);
    const worstAfter = (all: readonly PlaceRead[], [low, high]: Zone, by: number) =>
      Math.max(...all.map(({ value }) => Math.max(0, (low ?? -Infinity) - value - by, value + by - (high ?? Infinity))));
    fc.assert(
      fc.property(reads, zones, fc.integer({ min: -120, max: 120 }), (all, zone, other) => {
        const { best } = alongBed(all, zone, 0);
        expect(worstAfter(all, zone, best)).toBeLessThanOrEqual(worstAfter(all, zone, other) + 1e-9);
      }),
    );
  });
});
