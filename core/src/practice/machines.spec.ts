import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import type { PracticeDial } from './dial.js';
import { addedUpHeld, bedTwistSheet, levelStepsSheet, spindleAxisSheet, straightedgeSheet } from './lathe.js';
import { columnLeanSheet, headTramSheet } from './mill.js';
import { heldPush, heldSag } from '../gravity/bars.js';
import { seededRandom } from '../fit/random.js';

const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const dial: fc.Arbitrary<PracticeDial> = fc.record({
  kind: fc.constantFrom('plunger', 'lever'),
  graduation: fc.constantFrom(1, 2, 10, 12.7),
  sense: fc.constantFrom(1, -1),
  leverAngle: fc.constantFrom(0, 15),
  contactForce: fc.constantFrom(0, 0.5),
});
const value = (sheet: unknown, name: string): number => solve(sheet).quantities[name].value;

describe('a level gives the bed back', () => {
  it('twist whatever its own zero', () => {
    fc.assert(
      fc.property(number(80), number(60), number(100), (perMetre, at0, zero) => {
        const sheet = bedTwistSheet((z) => at0 + (perMetre * z) / 1000, [80, 700, 1300], { graduation: 20, zero });
        expect(value(sheet, 'twistPerMetre')).toBeCloseTo(perMetre, 6);
        expect(value(sheet, 'twist')).toBeCloseTo(perMetre * 1.22, 6);
        expect(value(sheet, 'levelZero')).toBeCloseTo(zero, 6);
      }),
    );
  });

  it('read one way only, its known zero is taken off', () => {
    const sheet = bedTwistSheet((z) => z / 50, [0, 1000], { graduation: 20, zero: 33 }) as { setup: object; readings: { end: string }[] };
    const one = {
      ...sheet,
      setup: { levelZero: 33 },
      readings: sheet.readings.filter((reading, i) => (i < 2 ? reading.end === 'forward' : reading.end === 'reversed')),
    };
    expect(value(one, 'twist')).toBeCloseTo(20, 6);
  });

  it('heights from steps, their shape and worst place', () => {
    const hollow = levelStepsSheet((z) => ((z - 300) / 100) ** 2, 100, 6, { graduation: 10, zero: 12 });
    const { straightness, minimumZone } = solve(hollow).quantities;
    expect(straightness.detail).toEqual(jasmine.objectContaining({ shape: 'hollow' }));
    expect(minimumZone.value).toBeLessThanOrEqual(straightness.value + 1e-9);
    expect(minimumZone.value).toBeCloseTo(9, 6);
    const crowned = levelStepsSheet((z) => -(((z - 300) / 100) ** 2), 100, 6, { graduation: 10, zero: 0 });
    expect(solve(crowned).quantities['straightness'].detail?.['shape']).toBe('crowned');
    const zigzag = levelStepsSheet((z) => ((z / 100) % 2) * 5, 100, 6, { graduation: 10, zero: 0 });
    expect(solve(zigzag).quantities['straightness'].detail?.['shape']).toBe('mixed');
  });

  it('the minimum zone is never wider, and never depends on how the way is tilted', () => {
    fc.assert(
      fc.property(fc.array(number(20), { minLength: 4, maxLength: 12 }), number(30), (heights, tilt) => {
        const at = (z: number) => heights[Math.round(z / 100)];
        const plain = solve(levelStepsSheet(at, 100, heights.length - 1, { graduation: 10, zero: 5 })).quantities;
        const tilted = solve(
          levelStepsSheet((z) => at(z) + (tilt * z) / 1000, 100, heights.length - 1, { graduation: 10, zero: 5 }),
        ).quantities;
        expect(plain['minimumZone'].value).toBeLessThanOrEqual(plain['straightness'].value + 1e-9);
        expect(tilted['minimumZone'].value).toBeCloseTo(plain['minimumZone'].value, 5);
        expect(tilted['straightness'].value).toBeCloseTo(plain['straightness'].value, 5);
      }),
    );
  });

  it('a straightedge turned over tells the way from itself', () => {
    const way = (z: number) => 8 * Math.sin(z / 200);
    const edge = (z: number) => ((z - 400) / 150) ** 2;
    const places = [0, 100, 250, 400, 550, 700, 800];
    const found = solve(straightedgeSheet(way, edge, places, { kind: 'lever', graduation: 2, sense: -1, leverAngle: 15 })).quantities;
    const exact = solve(levelStepsSheet((z) => way(z), 100, 8, { graduation: 10, zero: 0 })).quantities;
    expect(found['straightness'].value).toBeGreaterThan(5);
    expect(Math.abs(found['straightness'].value - exact['straightness'].value)).toBeLessThan(3);
    expect(found['edgeStraightness'].value).toBeGreaterThan(3);
  });

  it('asks for the foot of the level, and limits by length', () => {
    const sheet = levelStepsSheet(() => 0, 100, 20, { graduation: 10, zero: 0 });
    expect(solve(sheet).quantities['straightness'].limit).toEqual([null, 30]);
    expect(() => solve({ ...sheet, setup: {} })).toThrowMatching((error) => error.faults[0].path === 'setup.base');
    const warm = solve({ ...sheet, setup: { base: 100, temperatureDifference: 1, bedDepth: 300 } });
    expect(warm.notes.find((note) => note.code === 'temperature-bow')?.text).toMatch(/about \d+ µm/);
  });
});

describe('the spindle axis', () => {
  it('comes back whatever the bar droops, bends and gives way', () => {
    fc.assert(
      fc.property(
        number(150),
        number(150),
        number(30),
        number(40),
        dial,
        fc.constantFrom('operator' as const, 'rear' as const),
        (slopeH, slopeV, bend, twistPerMetre, dial, side) => {
          const bar = { diameter: 14, freeLength: 260 };
          const sheet = spindleAxisSheet(
            { slopeH, slopeV, bend, twistPerMetre },
            { bar, places: [25, 140, 250], side, heightAboveWays: 170, dial },
          );
          expect(value(sheet, 'slopeH')).toBeCloseTo(slopeH, 1);
          expect(value(sheet, 'slopeV')).toBeCloseTo(slopeV, 1);
          expect(value(sheet, 'runout')).toBeCloseTo(2 * Math.abs(bend) * (250 / 300) ** 2, 1);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('adding up the curvature agrees with the formulas', () => {
    const bar = { diameter: 16, bore: 8 };
    const { sag, push } = addedUpHeld(bar, 280, 260, 0.7);
    expect(sag).toBeCloseTo(heldSag(bar, 280, 260), 2);
    expect(push).toBeCloseTo(heldPush(bar, 0.7, 260), 2);
  });

  it('a good spindle is not blamed for the droop of a thin rod', () => {
    const practice = {
      bar: { diameter: 12, freeLength: 250, finish: 'ground' as const },
      places: [20, 245],
      dial: { kind: 'lever', graduation: 2, sense: 1 } as const,
    };
    const sheet = spindleAxisSheet({ slopeH: 10, slopeV: 10 }, practice) as { setup: { bar?: object } };
    const finding = solve(sheet);
    expect(finding.quantities['slopeV'].verdict).toBe('in');
    expect(finding.quantities['slopeV'].terms['sag']).toBeGreaterThan(60);
    expect(finding.notes.map((note) => note.code)).toContain('sag-large');
    const naive = solve({ ...sheet, setup: {} });
    expect(naive.quantities['slopeV'].verdict).toBe('out');
    expect(naive.notes.map((note) => note.code)).toEqual(jasmine.arrayContaining(['bar-unknown', 'twist-unknown']));
  });

  it('with noise the truth lies within U', () => {
    const random = seededRandom(7);
    const truth = { slopeH: 40, slopeV: 25, bend: 12 };
    let hits = 0;
    for (let run = 0; run < 600; run++) {
      const sheet = spindleAxisSheet(truth, {
        bar: { diameter: 30, freeLength: 260 },
        places: [20, 250],
        dial: { kind: 'lever', graduation: 2, sense: 1, accuracy: 1 },
        imperfection: { random, repeat: 0.5 },
      });
      const { value, expanded } = solve(sheet).quantities['slopeV'];
      if (Math.abs(value - truth.slopeV) <= (expanded ?? 0)) hits += 1;
    }
    expect(hits / 600).toBeGreaterThanOrEqual(0.95);
  });
});

describe('a mill', () => {
  it('head tram gives tilt and nod back at any angles', () => {
    fc.assert(
      fc.property(number(400), number(400), fc.constantFrom(3, 4, 8), dial, (x, y, places, dial) => {
        const sheet = headTramSheet(
          { x, y },
          120,
          Array.from({ length: places }, (_, i) => (360 * i) / places),
          dial,
        );
        expect(value(sheet, 'tilt')).toBeCloseTo(x, 4);
        expect(value(sheet, 'nod')).toBeCloseTo(y, 4);
      }),
    );
  });

  it('the nod target lies where one move ends square: past zero, by pivot and radius', () => {
    const sheet = headTramSheet({ x: 0, y: 200 }, 120, [0, 90, 180, 270], { kind: 'plunger', graduation: 10, sense: 1 }, 400);
    const move = solve(sheet).moves.find((entry) => entry.quantity === 'nod');
    expect(move?.indicator?.now).toBeCloseTo((200 * 0.12) / 10, 6);
    expect(move?.indicator?.target).toBeCloseTo((200 * 0.12 - 200 * 0.52) / 10, 6);
  });

  it('column lean comes back from either side, and a known square is taken out', () => {
    fc.assert(
      fc.property(
        number(300),
        number(300),
        number(40),
        dial,
        fc.constantFrom('right' as const, 'left' as const),
        fc.constantFrom('operator' as const, 'column' as const),
        (x, y, square, dial, sideX, sideY) => {
          const sheet = columnLeanSheet({ x, y }, square, [0, 150, 280], dial, { x: sideX, y: sideY }, true);
          expect(value(sheet, 'leanX')).toBeCloseTo(x, 4);
          expect(value(sheet, 'leanY')).toBeCloseTo(y, 4);
        },
      ),
    );
  });
});
