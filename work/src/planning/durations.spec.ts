import * as fc from 'fast-check';
import { durationOf, inARow, startingMinutes, times, wholeMinutes, widened, type Timing } from './durations.js';
import { moveMinutes, setUpMinutes, workedMinutes } from './timed.js';

const timing = (minutes: number, more: Partial<Timing> = {}): Timing => ({
  ...{ work: 'round', detail: 'bed-twist', machineKind: 'engine-lathe', by: 'EK', minutes },
  ...more,
});

describe('minutes of work', () => {
  it('a starting value alone: its median, and by hand the 5 and 95 % points of t with three degrees of freedom', () => {
    const { minutes, timings } = durationOf({ work: 'round' }, [], 15);
    const factor = Math.exp(2.353 * Math.log(1.8) * Math.sqrt(1.25));
    expect(timings).toBe(0);
    expect(minutes[0]).toBeCloseTo(15 / factor, 6);
    expect(minutes[1]).toBeCloseTo(15, 9);
    expect(minutes[2]).toBeCloseTo(15 * factor, 6);
  });

  it('by hand: four of 40 against a starting value of 10 meet at 20, as many counting on both sides', () => {
    const { minutes, timings } = durationOf(
      { work: 'round' },
      [40, 40, 40, 40].map((each) => timing(each)),
      10,
    );
    expect(timings).toBe(4);
    expect(minutes[1]).toBeCloseTo(20, 9);
  });

  it('many timings outweigh the starting value, and the spread becomes that of the work', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 90, noNaN: true }), fc.double({ min: 5, max: 90, noNaN: true }), (usual, starting) => {
        const many = Array.from({ length: 400 }, (_, i) => timing(usual * Math.exp(0.2 * Math.sin(i * 2.4))));
        const { minutes } = durationOf({ work: 'round' }, many, starting);
        expect(Math.abs(Math.log(minutes[1] / usual))).toBeLessThan(0.05);
        expect(minutes[0]).toBeLessThan(minutes[1]);
        expect(minutes[2] / usual).toBeLessThan(2);
      }),
    );
  });

  it('the narrowest group that is large enough counts: this person, else this kind of machine, else all of the work', () => {
    const slow = Array.from({ length: 8 }, () => timing(60, { by: 'JT' }));
    const quick = Array.from({ length: 8 }, () => timing(12));
    const all = [...slow, ...quick];
    const likely = (by?: string): number =>
      durationOf({ work: 'round', detail: 'bed-twist', machineKind: 'engine-lathe', ...(by && { by }) }, all, 15).minutes[1];
    expect(likely('JT')).toBeGreaterThan(likely());
    expect(likely('EK')).toBeLessThan(likely());
    expect(likely('nobody yet')).toBeCloseTo(likely(), 9);
    expect(durationOf({ work: 'pass' }, all, 25).timings).toBe(0);
  });

  it('whatever was timed, least, likely and most rise; work in a row takes as much as its parts together', () => {
    const span = fc.array(fc.double({ min: 0.1, max: 500, noNaN: true }), { maxLength: 30 });
    fc.assert(
      fc.property(span, span, (one, other) => {
        const [a, b] = [one, other].map(
          (all) =>
            durationOf(
              { work: 'round' },
              all.map((each) => timing(each)),
              15,
            ).minutes,
        );
        expect(a[0]).toBeLessThan(a[1]);
        expect(a[1]).toBeLessThan(a[2]);
        const row = inARow([a, b]);
        expect(row[1]).toBeCloseTo(a[1] + b[1], 6);
        expect(row[0]).toBeLessThanOrEqual(row[1]);
        expect(row[2] - row[1]).toBeLessThanOrEqual(a[2] - a[1] + b[2] - b[1] + 1e-6);
        const whole = wholeMinutes(a);
        expect(whole[0]).toBeGreaterThanOrEqual(1);
      }),
    );
  });

  it('nine times the same work has three times the spread; widened by two the ratios are squared', () => {
    expect(times([5, 10, 20], 9)).toEqual([75, 90, 120]);
    expect(widened([5, 10, 40], 2)).toEqual([2.5, 10, 160]);
    expect(widened([5, 10, 40], 1)).toEqual([5, 10, 40]);
  });

  it('the page of the shop gives its own starting values', () => {
    expect(startingMinutes('pass', undefined)).toBe(25);
    expect(startingMinutes('pass', { durations: { pass: 40 } })).toBe(40);
  });
});

describe('what was timed', () => {
  const at = (minute: number): string => new Date(Date.UTC(2026, 2, 1, 18, minute)).toISOString();

  it('a pause of more than 20 minutes is not work, one of 20 is', () => {
    expect(workedMinutes([at(0), at(5), at(25), at(46), at(50)])).toBe(29);
    expect(workedMinutes([at(0)])).toBe(0);
  });

  it('a set-up runs from the beginning of a round to its first reading, a move from its card to its end', () => {
    expect(setUpMinutes(at(0), at(12))).toBe(12);
    expect(setUpMinutes(at(0), at(21))).toBeUndefined();
    expect(setUpMinutes(at(5), at(5))).toBeUndefined();
    expect(moveMinutes(at(0), at(100))).toBe(100);
    expect(moveMinutes(at(0), at(181))).toBeUndefined();
    expect(moveMinutes(at(9), at(3))).toBeUndefined();
  });
});
