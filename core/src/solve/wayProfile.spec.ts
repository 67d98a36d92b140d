import fc from 'fast-check';
import { minimumZone, minimumZoneLines } from '../fit/hull.js';
import { levelStepsSheet, seededRandom } from '../practice/index.js';
import { solve } from '../solve/solve.js';
import { SHEET_FORMAT } from './sheet.js';
import { wayProfile } from './wayProfile.js';

describe('the narrowest zone as lines', () => {
  const profile = fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 3, maxLength: 30 });

  it('holds every point and is as wide as the minimum zone', () => {
    fc.assert(
      fc.property(profile, (y) => {
        const x = y.map((_, i) => 100 * i);
        const { slope, low, high } = minimumZoneLines(x, y);
        const inside = y.every((height, i) => height - slope * x[i] >= low - 1e-9 && height - slope * x[i] <= high + 1e-9);
        return inside && Math.abs(high - low - minimumZone(x, y)) < 1e-9;
      }),
    );
  });
});

const readingsOf = (sheet: Record<string, unknown>) => sheet['readings'] as Record<string, unknown>[];

describe('a profile to be drawn', () => {
  const truth = (z: number) => 12 * Math.sin((Math.PI * z) / 1400);
  const exact = levelStepsSheet(truth, 200, 7, { graduation: 20, zero: 14 });

  it('is the true shape of the way, off by a line', () => {
    const found = wayProfile(exact);
    if (!found) throw new Error('no profile');
    const offsets = found.points.map(({ at, height }) => height - truth(at));
    const first = offsets[0];
    const tilt = (offsets[offsets.length - 1] - first) / 1400;
    found.points.forEach(({ at }, i) => expect(offsets[i] - first - tilt * at).toBeCloseTo(0, 6));
  });

  it('spans what the finding calls straightness and narrowest zone', () => {
    const { quantities } = solve(exact);
    const found = wayProfile(exact);
    if (!found) throw new Error('no profile');
    const residuals = found.points.map(({ at, height }) => height - found.line.at0 - found.line.slope * at);
    expect(Math.max(...residuals) - Math.min(...residuals)).toBeCloseTo(quantities['straightness'].value, 9);
    expect(found.zone.high - found.zone.low).toBeCloseTo(quantities['minimumZone'].value, 9);
    expect(found.worstAt).toBe(quantities['straightness'].detail?.['worstAt'] as number);
  });

  it('takes set-ups together and needs three places', () => {
    const noisy = levelStepsSheet(truth, 200, 7, { graduation: 20, zero: 14, imperfection: { random: seededRandom(3), repeat: 2 } });
    const again = { ...noisy, readings: [...readingsOf(exact), ...readingsOf(noisy).map((reading) => ({ ...reading, set: 2 }))] };
    const [one, two, both] = [exact, noisy, again].map((sheet) => wayProfile(sheet)?.points ?? []);
    both.forEach(({ height }, i) => expect(height).toBeCloseTo((one[i].height + two[i].height) / 2, 9));
    expect(wayProfile({ ...exact, readings: readingsOf(exact).slice(0, 2) })).toBeUndefined();
  });

  it('a traverse has one too, turned round when it was read from the rear; a sweep has none', () => {
    const readings = [0, 5, 1].map((value, i) => ({ at: 100 * i, value: `${value} um` }));
    const sheet = { format: SHEET_FORMAT, check: 'slot-parallelism', setup: { side: 'operator' }, readings };
    expect(wayProfile(sheet)?.points.map((point) => point.height)).toEqual([0, 5, 1]);
    expect(wayProfile({ ...sheet, setup: { side: 'rear' } })?.points.map((point) => point.height + 0)).toEqual([0, -5, -1]);
    const sweep = [0, 90, 180, 270].map((angle) => ({ angle, value: '1 um' }));
    expect(wayProfile({ format: SHEET_FORMAT, check: 'tailstock-sweep', setup: { feature: 'outside' }, readings: sweep })).toBeUndefined();
  });
});
