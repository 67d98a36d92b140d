import fc from 'fast-check';
import { cyclesAnEvening, cyclesLeft, eveningsFor } from './cycles.js';
import { zonePasses } from './zonePasses.js';
import { pivotsOf, printAgrees } from './pivots.js';
import { countedOver, spotCall } from './spotCall.js';
import { stripPlan } from './strips.js';

describe('where a straightedge turns', () => {
  const even = (length: number) => [{ from: 0, to: length, pressure: 1 }];

  it('even pressure turns at L/√2 from the pushed end, a hump at itself, two ends far apart', () => {
    const flat = pivotsOf(even(400), 400);
    expect(flat?.a).toBeCloseTo(400 / Math.SQRT2, 9);
    expect(flat?.b).toBeCloseTo(400 - 400 / Math.SQRT2, 9);
    const hump = pivotsOf([{ from: 250, to: 270, pressure: 1 }], 400);
    expect(hump?.a).toBeCloseTo(260, 0);
    expect(hump?.b).toBeCloseTo(260, 0);
    const hollow = pivotsOf(
      [
        { from: 0, to: 20, pressure: 1 },
        { from: 380, to: 400, pressure: 1 },
      ],
      400,
    );
    expect(((hollow?.a ?? 0) - (hollow?.b ?? 0)) / 400).toBeGreaterThan(0.9);
    expect(pivotsOf([], 400)).toBeNull();
    expect(pivotsOf([{ from: 0, to: 100, pressure: 0 }], 400)).toBeNull();
  });

  it('two bands turn as an even bearing does: by hinge alone they cannot be told apart', () => {
    const bands = pivotsOf(
      [
        { from: 60, to: 140, pressure: 1 },
        { from: 260, to: 340, pressure: 1 },
      ],
      400,
    );
    const grip = ((bands?.a ?? 0) - (bands?.b ?? 0)) / 400;
    expect(grip).toBeGreaterThan(0.33);
    expect(grip).toBeLessThan(0.55);
    expect(printAgrees({ a: 283, b: 117 }, { a: 283, b: 117 }, 400)).toBe(true);
    expect(printAgrees({ a: 283, b: 117 }, { a: 325, b: 117 }, 400)).toBe(false);
  });

  it('is as adding up says, and turned end for end it is mirrored', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 2, maxLength: 12 }),
        fc.double({ min: 50, max: 900, noNaN: true }),
        (pressures, length) => {
          fc.pre(pressures.some((pressure) => pressure > 0.01));
          const step = length / pressures.length;
          const bands = pressures.map((pressure, i) => ({ from: i * step, to: (i + 1) * step, pressure }));
          const found = pivotsOf(bands, length);
          const turned = pivotsOf(
            bands.map(({ from, to, pressure }) => ({ from: length - to, to: length - from, pressure })),
            length,
          );
          expect(found).not.toBeNull();
          expect(turned?.a).toBeCloseTo(length - (found?.b ?? 0), 6);
          const moment = (upTo: number) =>
            bands.reduce((sum, { from, to, pressure }) => sum + (pressure * (Math.max(from, Math.min(to, upTo)) ** 2 - from ** 2)) / 2, 0);
          expect(2 * moment(found?.a ?? 0)).toBeCloseTo(moment(length), 4);
          expect(found?.a ?? 0).toBeGreaterThanOrEqual((found?.b ?? 0) - 1e-6);
        },
      ),
    );
  });
});

describe('spots per square', () => {
  it('12 from one square against 10 to 15 is too close to call; from many it is in', () => {
    expect(spotCall(12, 645.16, [10, 15]).verdict).toBe('unsure');
    expect(spotCall(12, 645.16 * 9, [10, 15]).verdict).toBe('in');
    expect(spotCall(4, 645.16, [10, 15]).verdict).toBe('out');
    expect(spotCall(40, 645.16, [10, 15]).verdict)
      .withContext('more is no fault')
      .toBe('in');
  });

  it('a way narrower than a square is counted over as much of its length', () => {
    expect(countedOver(11)).toBeCloseTo(58.65, 2);
    expect(countedOver(60)).toBeCloseTo(25.4, 9);
  });
});

describe('passes', () => {
  it('never take more than there is, end within one finishing pass, and add up', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 4, max: 30, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        fc.integer({ min: 0, max: 4 }),
        (depth, rough, fine, keep) => {
          const { rough: big, fine: small, left } = zonePasses(depth, rough, fine, keep);
          expect(big * rough + small * fine + left).toBeCloseTo(depth, 6);
          expect(left).toBeGreaterThan(-1e-6);
          expect(left).toBeLessThan(fine + 1e-6);
        },
      ),
    );
  });

  it('wedges: 17 by 12 is one strip, 3 by 12 is left, 25 by 10 two and a third of no width, 250 by 5 is joined for a blade of 20', () => {
    const passes = (wedge: number, passDepth: number, blade = 0) => stripPlan({ wedge, passDepth, length: 300, blade }).passes.length;
    expect(passes(17, 12)).toBe(1);
    expect(passes(3, 12)).toBe(0);
    expect(passes(25, 10)).toBe(2);
    const narrow = stripPlan({ wedge: 250, passDepth: 5, length: 300, blade: 20 });
    expect(narrow.zones.every(({ from, to }, i) => i === 0 || to - from > 9)).toBe(true);
    expect(narrow.passes.length % 4).toBe(0);
  });

  it('25-minute sessions hold one cycle each, whatever it takes', () => {
    expect(cyclesAnEvening(25, 20, 25)).toBe(1);
    const left = cyclesLeft([10, 11, 9], 50);
    expect(left.expected).toBeCloseTo(5, 9);
    expect(eveningsFor(left, 1).expected).toBe(5);
    expect(eveningsFor(left, 4).low).toBeLessThanOrEqual(eveningsFor(left, 4).expected);
  });
});
