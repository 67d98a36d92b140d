import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import { seededRandom } from '../fit/random.js';
import { cutSheet, sweepSheet, traverseSheet, type TailstockTruth } from './tailstock.js';
import type { PracticeDial } from './dial.js';

const truth: fc.Arbitrary<TailstockTruth> = fc.record({
  offsetHorizontal: fc.double({ min: -200, max: 200, noNaN: true }),
  offsetVertical: fc.double({ min: -150, max: 150, noNaN: true }),
  axisSlopeH: fc.double({ min: -80, max: 80, noNaN: true }),
  axisSlopeV: fc.double({ min: -80, max: 80, noNaN: true }),
});
const dial: fc.Arbitrary<PracticeDial> = fc.record({
  kind: fc.constantFrom('plunger', 'lever'),
  graduation: fc.constantFrom(1, 2, 10, 12.7),
  sense: fc.constantFrom(1, -1),
  leverAngle: fc.constantFrom(0, 12, 20),
  holderSag: fc.double({ min: -30, max: 0, noNaN: true }),
  contactForce: fc.constantFrom(0, 0.15, 0.8),
});

const value = (sheet: unknown, name: string): number => solve(sheet).quantities[name].value;

describe('a bar between centres gives the truth back', () => {
  it('exactly without noise, turned or not, from either side', () => {
    fc.assert(
      fc.property(
        truth,
        dial,
        fc.integer({ min: 200, max: 900 }),
        fc.boolean(),
        fc.constantFrom('operator' as const, 'rear' as const),
        (where, dial, length, turned, side) => {
          const sheet = traverseSheet(where, {
            centreDistance: length,
            stations: [0.08, 0.3, 0.55, 0.93].map((part) => part * length),
            bar: { diameter: 30 },
            bow: turned ? 12 : 0,
            turned,
            side,
            dial,
          });
          expect(value(sheet, 'offsetHorizontal')).toBeCloseTo(where.offsetHorizontal, 2);
          expect(value(sheet, 'offsetVertical')).toBeCloseTo(where.offsetVertical, 1);
          if (turned) expect(value(sheet, 'barBow')).toBeCloseTo(12 * Math.sin(Math.PI * 0.55), 3);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('a bow that is not turned out is missed: turning is worth it', () => {
    const practice = {
      centreDistance: 400,
      stations: [40, 300],
      bar: { diameter: 30 },
      bow: 30,
      dial: { kind: 'plunger', graduation: 2, sense: 1 } as const,
    };
    const where = { offsetHorizontal: 20, offsetVertical: 10 };
    expect(Math.abs(value(traverseSheet(where, practice), 'offsetHorizontal') - 20)).toBeGreaterThan(5);
    expect(value(traverseSheet(where, { ...practice, turned: true }), 'offsetHorizontal')).toBeCloseTo(20, 6);
  });
});

describe('a headstock centre that runs out', () => {
  // The point stands anywhere in its circle: the head end of the bar with it, and the far end stays.
  const read = (runout: number, angle: number, turned: boolean) => {
    const sheet = traverseSheet(
      { offsetHorizontal: 0, offsetVertical: 0 },
      { centreDistance: 400, stations: [20, 380], bar: { diameter: 30 }, turned, dial: { kind: 'plunger', graduation: 1, sense: 1 } },
    ) as unknown as { readonly setup: object; readonly readings: readonly Readonly<Record<string, unknown>>[] };
    const head = (turn: number) => (runout / 2) * Math.cos(angle + (turn ? Math.PI : 0));
    const readings = sheet.readings.map((entry) =>
      entry['plane'] === 'h'
        ? { ...entry, value: Number(entry['value']) + head(Number(entry['turn'] ?? 0)) * (1 - Number(entry['at']) / 400) }
        : entry,
    );
    const told = { ...sheet, setup: { ...sheet.setup, centreRunout: runout }, readings };
    return solve(told).quantities['offsetHorizontal'];
  };

  it('is a doubt that covers the truth wherever the point stands, and goes when the spindle is turned half round', () => {
    const angles = Array.from({ length: 72 }, (_, i) => (i * Math.PI) / 36);
    for (const angle of angles) {
      const found = read(20, angle, false);
      expect(Math.abs(found.value)).toBeLessThanOrEqual(found.expanded ?? 0);
      expect(read(20, angle, true).value).toBeCloseTo(0, 6);
    }
    expect(read(20, 0, false).value).toBeCloseTo(-10, 6);
    expect(read(20, 0, true).expanded ?? 0).toBeLessThan(read(20, 0, false).expanded ?? 0);
    expect(read(20, 0, false).budget?.[0].source).toBe('head-centre');
  });
});

describe('a sweep gives the truth back', () => {
  it('to the spindle, and to the carriage when the axis is known', () => {
    fc.assert(
      fc.property(
        truth,
        dial,
        fc.constantFrom('outside' as const, 'bore' as const),
        fc.constantFrom(4, 8, 12),
        (where, dial, feature, number) => {
          const angles = Array.from({ length: number }, (_, i) => (360 * i) / number);
          const sheet = sweepSheet(where, { feature, radius: 25, angles, distance: 500, axisKnown: true, dial });
          expect(value(sheet, 'offsetHorizontal')).toBeCloseTo(where.offsetHorizontal - (where.axisSlopeH ?? 0) / 2, 1);
          expect(value(sheet, 'carriageOffsetHorizontal')).toBeCloseTo(where.offsetHorizontal, 1);
          expect(value(sheet, 'carriageOffsetVertical')).toBeCloseTo(where.offsetVertical, 1);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a test cut gives the truth back', () => {
  it('swinging between centres or bending in a chuck, whichever side the tool is', () => {
    fc.assert(
      fc.property(
        truth,
        fc.constantFrom('centres' as const, 'chuck' as const),
        fc.constantFrom('operator' as const, 'rear' as const),
        (where, held, tool) => {
          const sheet = cutSheet(where, {
            centreDistance: 400,
            stations: [30, 200, 380],
            diameter: 38,
            held,
            tool,
            heightKnown: true,
            graduation: 1,
          });
          expect(Math.abs(value(sheet, 'offsetHorizontal') - where.offsetHorizontal)).toBeLessThan(0.1);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('cut to mid-bar alone, the move equals the difference itself', () => {
    const sheet = cutSheet(
      { offsetHorizontal: -24, offsetVertical: 0 },
      { centreDistance: 400, stations: [0, 200], diameter: 38, graduation: 1 },
    );
    const [first, second] = (sheet['readings'] as { value: number }[]).map((reading) => reading.value * 1000);
    expect(second - first).toBeCloseTo(24, 6);
    expect(value(sheet, 'offsetHorizontal')).toBeCloseTo(-24, 3);
  });
});

describe('with noise the truth lies within U in at least 95 % of runs', () => {
  const RUNS = 1500;
  const where = { offsetHorizontal: -37, offsetVertical: 22, axisSlopeH: 0, axisSlopeV: 0 };
  const methods = {
    traverse: (random: ReturnType<typeof seededRandom>) =>
      traverseSheet(where, {
        centreDistance: 420,
        stations: [20, 400],
        bar: { diameter: 25 },
        dial: { kind: 'lever', graduation: 2, sense: -1, leverAngle: 12, accuracy: 1 },
        imperfection: { random, repeat: 0.5 },
      }),
    sweep: (random: ReturnType<typeof seededRandom>) =>
      sweepSheet(where, {
        feature: 'outside',
        radius: 20,
        angles: [0, 90, 180, 270],
        distance: 300,
        dial: { kind: 'plunger', graduation: 2, sense: 1, holderSag: -10, accuracy: 1 },
        imperfection: { random, repeat: 0.5 },
      }),
    cut: (random: ReturnType<typeof seededRandom>) =>
      cutSheet(where, {
        centreDistance: 420,
        stations: [20, 400],
        diameter: 38,
        heightKnown: true,
        graduation: 2,
        imperfection: { random, repeat: 0.5 },
      }),
  };
  for (const [name, make] of Object.entries(methods)) {
    it(name, () => {
      const hits: Record<string, number> = {};
      const random = seededRandom(20);
      for (let run = 0; run < RUNS; run++) {
        for (const [quantity, { value, expanded }] of Object.entries(solve(make(random)).quantities)) {
          const true_ = where[quantity as keyof typeof where];
          if (true_ !== undefined && expanded !== null && Math.abs(value - true_) <= expanded) hits[quantity] = (hits[quantity] ?? 0) + 1;
        }
      }
      const rates = Object.fromEntries(Object.entries(hits).map(([quantity, count]) => [quantity, count / RUNS]));
      expect(Object.keys(rates)).toContain('offsetHorizontal');
      for (const [quantity, rate] of Object.entries(rates)) expect(rate).withContext(`${quantity} ${rate}`).toBeGreaterThanOrEqual(0.95);
    });
  }
});
