import fc from 'fast-check';
import { coverageFactor } from './studentT.js';
import { trendOf, YEAR, type Trend, type TrendPoint } from './trend.js';

const START = Date.parse('2024-01-01T00:00:00Z');
const point = (years: number, value: number, u = 1): TrendPoint => ({ at: START + years * YEAR, value, u });
const line = (trend: Trend) => {
  if (trend.kind !== 'line') throw new Error(`a ${trend.kind}, and no line`);
  return trend;
};
const years = (at: number | null | undefined): number => (Number(at) - START) / YEAR;

describe('a trend', () => {
  it('wants three values: of one nothing is said, of two only whether they differ', () => {
    expect(trendOf([point(0, 1)], [-10, 10]).kind).toBe('nothing');
    expect(trendOf([point(0, 0), point(1, 2.8)], [-10, 10])).toEqual({
      kind: 'two',
      difference: 2.8,
      expanded: 2 * Math.SQRT2,
      differ: false,
    });
    expect(trendOf([point(1, 3), point(0, 0)], [-10, 10])).toEqual(jasmine.objectContaining({ kind: 'two', difference: 3, differ: true }));
    expect(trendOf([point(0, 0), point(0, 1), point(0, 2)], [-10, 10]).kind)
      .withContext('all of one day')
      .toBe('two');
  });

  it('gives slope and doubt by the formulas, worked out by hand', () => {
    // 0, 2, 4 a year apart, each ± 0.5: slope 2, u = 0.5/√2, ± 2·u; meets 10 five years on.
    const told = line(trendOf([point(0, 0, 0.5), point(1, 2, 0.5), point(2, 4, 0.5)], [-10, 10]));
    expect(told.slope).toBeCloseTo(2, 9);
    expect(told.expanded).toBeCloseTo((2 * 0.5) / Math.SQRT2, 9);
    expect([told.drifts, told.scatter]).toEqual([true, 1]);
    expect(years(told.leaves?.at)).toBeCloseTo(5, 6);
    // (2 + 2x − 10)² = 4·0.25·(1/3 + x²/2), x from the middle: 3.5x² − 32x + 63.667 = 0.
    const [a, b, c] = [3.5, -32, 64 - 1 / 3];
    const root = Math.sqrt(b * b - 4 * a * c);
    expect(years(told.leaves?.from)).toBeCloseTo(1 + (-b - root) / (2 * a), 6);
    expect(years(told.leaves?.to)).toBeCloseTo(1 + (-b + root) / (2 * a), 6);
  });

  it('its band meets the bound at both ends of the range in which it leaves, and is narrowest among the values', () => {
    const told = line(trendOf([point(0, 0, 0.5), point(1, 2, 0.5), point(2, 4, 0.5)], [-10, 10]));
    const [from, to] = [Number(told.leaves?.from), Number(told.leaves?.to)];
    expect(told.line(from) + told.band(from)).toBeCloseTo(10, 6);
    expect(told.line(to) - told.band(to)).toBeCloseTo(10, 6);
    // In the middle 2·0.5/√3, and wider on either side alike.
    expect(told.band(START + YEAR)).toBeCloseTo(1 / Math.sqrt(3), 9);
    expect(told.band(START)).toBeCloseTo(told.band(START + 2 * YEAR), 9);
  });

  it('tells no drift while the slope is smaller than its doubt, and then no date', () => {
    const told = line(trendOf([point(0, 0, 2), point(1, 1, 2), point(2, 2, 2)], [-3, 3]));
    expect([told.drifts, told.leaves, told.readAgainAfter]).toEqual([false, null, null]);
  });

  it('widens the doubt where the values scatter by more than theirs', () => {
    const told = line(trendOf([point(0, 0, 0.1), point(1, 3, 0.1), point(2, 2, 0.1), point(3, 5, 0.1)], [-10, 10]));
    // By hand: slope 1.4; residuals −0.4, 1.2, −1.2, 0.4: χ² = 3.2/0.01, two degrees.
    expect(told.slope).toBeCloseTo(1.4, 9);
    expect(told.scatter).toBeCloseTo(Math.sqrt(320 / 2), 6);
    expect(told.expanded).toBeCloseTo((coverageFactor(2) * told.scatter * 0.1) / Math.sqrt(5), 6);
    expect(told.drifts).toBeFalse();
  });

  it('goes down to the low bound, and nowhere where there is none ahead', () => {
    const falling = [point(0, 4, 0.1), point(1, 2, 0.1), point(2, 0, 0.1)];
    expect(line(trendOf(falling, [-10, 10])).leaves?.bound).toBe(-10);
    expect(years(line(trendOf(falling, [-10, 10])).leaves?.at)).toBeCloseTo(7, 6);
    expect(line(trendOf(falling, [null, 10])).leaves).toBeNull();
  });

  it('proposes to read again half the way to the early end, between a month and three years', () => {
    const soon = line(trendOf([point(0, 0, 0.01), point(1, 4.5, 0.01), point(2, 9, 0.01)], [-10, 10]));
    // Out 0.22 years after the last value: half of that, less what the band adds.
    expect(soon.readAgainAfter).toBeGreaterThanOrEqual(30);
    expect(soon.readAgainAfter).toBeLessThan(45);
    const late = line(trendOf([point(0, 0, 0.001), point(1, 0.1, 0.001), point(2, 0.2, 0.001)], [-10, 10]));
    expect(late.readAgainAfter).toBe(1096);
  });

  it('tells settling from growing by the bend, with five values or more and not before', () => {
    const settling = [0, 1, 2, 3, 4, 5].map((year) => point(year, 10 * (1 - 0.5 ** year), 0.1));
    expect(line(trendOf(settling, [-20, 20])).bends).toBe('settling');
    expect(line(trendOf(settling.slice(0, 4), [-20, 20])).bends).toBeNull();
    const growing = [0, 1, 2, 3, 4].map((year) => point(year, year * year, 0.1));
    expect(line(trendOf(growing, [-99, 99])).bends).toBe('growing');
    const straight = [0, 1, 2, 3, 4].map((year) => point(year, year, 0.1));
    expect(line(trendOf(straight, [-99, 99])).bends).toBeNull();
  });

  const values = fc.array(fc.tuple(fc.double({ min: 0, max: 9, noNaN: true }), fc.double({ min: -50, max: 50, noNaN: true })), {
    minLength: 3,
    maxLength: 9,
  });

  it('is the same in any order, in any unit, and whenever the years are counted from', () => {
    fc.assert(
      fc.property(values, fc.constantFrom(0.0393701, 25.4, 1000), fc.integer({ min: -9, max: 9 }), (all, factor, shift) => {
        fc.pre(Math.max(...all.map(([at]) => at)) - Math.min(...all.map(([at]) => at)) > 0.1);
        const points = all.map(([at, value]) => point(at, value, 0.5));
        const [one, turned] = [line(trendOf(points, [-60, 60])), line(trendOf([...points].reverse(), [-60, 60]))];
        expect(turned.slope).toBeCloseTo(one.slope, 6);
        const scaled = line(
          trendOf(
            points.map(({ at, value, u }) => ({ at: at + shift * YEAR, value: value * factor, u: u * factor })),
            [-60 * factor, 60 * factor],
          ),
        );
        expect(scaled.slope / factor).toBeCloseTo(one.slope, 6);
        expect(scaled.expanded / factor).toBeCloseTo(one.expanded, 6);
        expect(scaled.drifts).toBe(one.drifts);
        if (one.leaves && Math.abs(years(one.leaves.at)) < 1e4)
          expect(years(scaled.leaves?.at)).toBeCloseTo(years(one.leaves.at) + shift, 3);
      }),
    );
  });

  it('on its band: at both ends of the range the line is as far from its bound as its doubt', () => {
    fc.assert(
      fc.property(values, (all) => {
        fc.pre(Math.max(...all.map(([at]) => at)) - Math.min(...all.map(([at]) => at)) > 0.1);
        const points = all.map(([at, value]) => point(at, value, 5));
        const told = line(trendOf(points, [-60, 60]));
        if (!told.leaves?.to) return;
        const { bound, from, at, to } = told.leaves;
        expect(from).toBeLessThanOrEqual(at);
        expect(to).toBeGreaterThanOrEqual(at);
        expect(told.line(at)).toBeCloseTo(bound, 3);
      }),
    );
  });
});
