import fc from 'fast-check';
import { gripOf } from '../checks/grips.js';
import { flankCall, flankDepth, type FlankTurn, type ProudPlace } from './flanks.js';
import { pivotsOf } from './pivots.js';

const LENGTH = 400;
/** Seven places over 400 mm. */
const PLACES = [0, 1, 2, 3, 4, 5, 6].map((i) => (i * LENGTH) / 6);
const places = (...over: number[]): ProudPlace[] => over.map((value, i) => ({ at: PLACES[i], over: value }));
const turn = (a: number, b: number): FlankTurn => ({ centre: (a + b) / 2, code: gripOf((a - b) / LENGTH).code });
const even = turn(LENGTH / Math.SQRT2, LENGTH * (1 - 1 / Math.SQRT2));

/** A flank by its heights square to it, µm: how a straightedge turns on what touches it within a film of 2 µm. */
function turnOn(height: (x: number) => number): FlankTurn {
  const cells = Array.from({ length: 200 }, (_, i) => ({ from: (i * LENGTH) / 200, to: ((i + 1) * LENGTH) / 200 }));
  const heights = cells.map(({ from, to }) => height((from + to) / 2));
  const top = Math.max(...heights);
  const pivots = pivotsOf(
    cells.map((cell, i) => ({ ...cell, pressure: Math.max(0, 2 - (top - heights[i])) })),
    LENGTH,
  );
  return turn(pivots?.a ?? NaN, pivots?.b ?? NaN);
}

/** Over pins the heights of both flanks add up, over the sine of the angle. */
function overPins(angle: number, ...flanks: ((x: number) => number)[]): ProudPlace[] {
  const wide = PLACES.map((at) => flanks.reduce((sum, flank) => sum + flank(at), 0) / Math.sin((angle * Math.PI) / 180));
  const least = Math.min(...wide);
  return PLACES.map((at, i) => ({ at, over: wide[i] - least }));
}
const hump = (middle: number, high: number) => (x: number) => high * Math.exp(-(((x - middle) / 45) ** 2));
const flat = () => 0;

describe('which flank of a dovetail is off', () => {
  it('0-1-3-1-0-0-0 over 400 mm with the second flank guilty, in tenths of a thou', () => {
    const read = places(0, 2.54, 7.62, 2.54, 0, 0, 0);
    const high = turn(140, 128);
    expect(flankCall(read, 1.3, LENGTH, even, high)?.guilt).toBe('other');
    expect(flankCall(read, 1.3, LENGTH, high, even)?.guilt).toBe('here');
    expect(flankCall(read, 1.3, LENGTH, high, high)?.guilt).toBe('both');
    expect(flankCall(read, 1.3, LENGTH, even, even)?.guilt).toBe('even');
    expect(flankCall(read, 1.3, LENGTH, even)?.guilt)
      .withContext('the other was not tried')
      .toBe('untold');
    expect(flankCall(read, 1.3, LENGTH, turn(310, 300), even)?.guilt)
      .withContext('high somewhere else')
      .toBe('untold');
    // Off the guilty one: 7.62·sin 55° there, half of it at 167 mm.
    expect(flankDepth(read, PLACES[2], 55, false)).toBeCloseTo(7.62 * Math.sin((55 * Math.PI) / 180), 9);
    expect(flankDepth(read, PLACES[2] + 200 / 6, 55, false)).toBeCloseTo(5.08 * Math.sin((55 * Math.PI) / 180), 9);
    expect(flankDepth(read, PLACES[2], 55, true)).toBeCloseTo(3.81 * Math.sin((55 * Math.PI) / 180), 9);
    expect(flankDepth(read, 1000, 55, false)).toBe(0);
    // 55° taken for 60° takes 6 % more: not a tenth of a thou.
    expect(flankDepth(read, PLACES[2], 60, false) / flankDepth(read, PLACES[2], 55, false)).toBeCloseTo(1.057, 3);
  });

  it('a taper is no crooked flank, and what is within the doubt is none', () => {
    const taper = places(0, 2, 4, 6, 8, 10, 12);
    expect(flankCall(taper, 1, LENGTH, even, even)?.guilt).toBe('straight');
    expect(flankCall(taper, 1, LENGTH, turn(140, 128), even)?.guilt).toBe('straight');
    expect(flankCall(places(0, 2.54, 7.62, 2.54, 0, 0, 0), 12.7, LENGTH, even, turn(140, 128))?.guilt)
      .withContext('read to half a thou')
      .toBe('straight');
    expect(flankCall(places(0, 1), 0, LENGTH, even, even)).toBeUndefined();
  });

  it('a bow on a taper: only the bow comes off the guilty flank, the taper is told', () => {
    const call = flankCall(places(0, 2, 10, 6, 8, 10, 12), 1, LENGTH, turn(140, 128), even);
    expect(call?.guilt).toBe('here');
    expect(call?.bow).toBeCloseTo(6, 9);
    expect(call?.taper).toBeCloseTo(12, 9);
    expect(call?.proud.map(({ over }) => Math.round(over))).toEqual([0, 0, 6, 0, 0, 0, 0]);
  });

  it('never names the flank that is straight: humps and hollows anywhere, by pins and by how a straightedge turns', () => {
    let named = 0;
    fc.assert(
      fc.property(
        fc.double({ min: 90, max: 310, noNaN: true }),
        fc.double({ min: 6, max: 40, noNaN: true }),
        fc.constantFrom(55, 60),
        fc.boolean(),
        fc.boolean(),
        (middle, high, angle, here, hollow) => {
          const bent = hollow ? (x: number) => high * ((x - LENGTH / 2) / (LENGTH / 2)) ** 2 : hump(middle, high);
          const read = overPins(angle, here ? bent : flat, here ? flat : bent);
          const call = flankCall(read, 1, LENGTH, turnOn(here ? bent : flat), turnOn(here ? flat : bent));
          expect(['untold', 'even', here ? 'here' : 'other']).toContain(call?.guilt ?? '');
          named += call?.guilt === 'here' || call?.guilt === 'other' ? 1 : 0;
          // What is taken off never digs below the flank.
          for (const at of PLACES) expect(flankDepth(call?.proud ?? [], at, angle, false)).toBeLessThanOrEqual(bent(at) + 0.3);
        },
      ),
      { numRuns: 120 },
    );
    expect(named).withContext('and it names it nearly every time').toBeGreaterThan(100);
  });
});
