import fc from 'fast-check';
import { CHECKS } from '../checks/registry.js';
import { otherBars, sagSlope } from '../gravity/otherBars.js';
import { judgedBy } from './limitSheet.js';
import { startingSheet } from './starting.js';
import { FOOTPRINTS, footprint } from '../moves/footprints.js';
import { planMove } from '../moves/registry.js';
import { addedUpHeld, spindleAxisSheet } from '../practice/lathe.js';
import { solve } from '../solve/solve.js';
import { FILE_SIZES, sentence } from '../units/said.js';
import { afterHead } from '../moves/headMove.js';
import { CHANGE_KINDS, effectOf, NO_EFFECT, sumOf, type PlannedChange } from './planned.js';
import { learnStandIn, mustTie } from '../moves/standIn.js';

const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const check = (id: string) => {
  const found = CHECKS.get(id);
  if (!found) throw new Error(id);
  return found;
};

describe('footprints', () => {
  for (const { id, angle } of FOOTPRINTS) {
    it(`${id}: unit normals, ids of their own, and a pose that it holds is met exactly`, () => {
      const supports = footprint(id, { near: 40, length: 290, width: 200, angle }).map((entry) => ({ ...entry, allow: 'either' }));
      expect(new Set(supports.map((entry) => entry.id)).size).toBe(supports.length);
      for (const { normal } of supports) expect(Math.hypot(...normal)).toBeCloseTo(1, 9);
      fc.assert(
        fc.property(number(60), number(60), (slopeV, lift) => {
          const plan = planMove({
            format: 'isometra-move/1',
            move: 'supports',
            frame: 'lathe',
            origin: [0, 100, 0],
            supports,
            want: { slopeV, lift },
          }) as {
            feasible: boolean;
            pose: Record<string, number>;
          };
          expect(plan.feasible).toBeTrue();
          expect(plan.pose['slopeV']).toBeCloseTo(slopeV, 5);
          expect(plan.pose['lift']).toBeCloseTo(lift, 5);
        }),
        { numRuns: 20 },
      );
    });
  }

  it('scraping both flanks of a 90° vee drops the body by √2 of the depth', () => {
    const supports = footprint('two-vees', { near: 0, length: 300, width: 200, angle: 90 });
    const plan = planMove({
      format: 'isometra-move/1',
      move: 'supports',
      frame: 'lathe',
      origin: [0, 0, 0],
      supports,
      want: { lift: -20, slopeV: 0, roll: 0, shiftH: 0, slopeH: 0 },
    }) as unknown as {
      supports: Record<string, number>;
    };
    for (const depth of Object.values(plan.supports)) expect(depth).toBeCloseTo(-20 / Math.SQRT2, 6);
  });
});

describe('changes still to come', () => {
  const bearings = (front: number, rear: number): PlannedChange => ({
    kind: 'bearings',
    fields: { front: `${front} um`, rear: `${rear} um`, span: '300 mm', overhang: '60 mm' },
  });

  it('a front bearing that drops more than the rear points the free end down', () => {
    expect(effectOf(bearings(30, 0))).toEqual({ ...NO_EFFECT, slopeV: -100, height: -36 });
    expect(effectOf(bearings(10, 10))).toEqual({ ...NO_EFFECT, height: -10 });
  });

  it('agree with two bearings that come down, wherever the nose is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }), (front, rear) => {
        // Straight line through both bearings: 60 mm in front of the front one and 360 mm from the rear one.
        const at = (z: number) => -rear + ((rear - front) * z) / 300;
        const { slopeV, height } = effectOf(bearings(front, rear));
        expect(height).toBeCloseTo(at(360), 9);
        expect(slopeV).toBeCloseTo((1000 * (at(1300) - at(300))) / 1000, 9);
      }),
    );
  });

  it('warming by 10 K lifts a spindle 200 mm up by 23 µm', () => {
    expect(effectOf({ kind: 'warm-up', fields: { height: '200 mm', rise: '10 C' } })).toEqual({ ...NO_EFFECT, height: 23 });
  });

  it('shift zone and aim by minus their sum, so that the work ends in the zone', () => {
    const sum = sumOf([bearings(30, 0), { kind: 'weight', fields: { slope: '-10 um/m' } }]);
    expect(sum.slopeV).toBeCloseTo(-110, 9);
    const axis = judgedBy(startingSheet('general'), check('spindle-axis'), {}, [], sum);
    expect(axis.limits['slopeV']).toEqual([110, 177]);
    expect(axis.aims['slopeV']).toBeCloseTo(143.5, 9);
    expect(axis.limits['slopeH']).toEqual([0, 50]);
    // The headstock centre will come down by 36 µm: until then the tail centre may stand that much lower.
    const tail = judgedBy(startingSheet('general'), check('tailstock-traverse'), {}, [], sum);
    expect(tail.limits['offsetVertical']).toEqual([-36, -16]);
    expect(tail.aims['offsetVertical']).toBeCloseTo(-31, 9);
  });

  it('the weight of a head that is still to go on sets a column back, only as long as it is off', () => {
    const sum = sumOf([{ kind: 'head-weight', fields: { leanY: '40 um/m' } }]);
    const judged = (head?: string, pending = sum) =>
      judgedBy(startingSheet('general'), check('column-lean'), head ? { head } : {}, [], pending);
    // With the head on −65 to 65 is wanted: with it off 40 less, whatever is guessed where nothing is known.
    expect(judged('off').limits['leanY']).toEqual([-105, 25]);
    expect(judged('off').aims['leanY']).toBeCloseTo(-40, 9);
    expect(judged('off', NO_EFFECT).limits['leanY']).toEqual([-65, 0]);
    expect(judged('on').limits['leanY']).toEqual([-65, 65]);
    expect(judged().limits['leanY']).toEqual([-65, 65]);
    expect(judged('off').limits['leanX']).toEqual([-65, 65]);
  });

  it('a weight that is hung on later tilts the head by what a sweep reads, and the column whether the head is on or off', () => {
    const sum = sumOf([{ kind: 'load', fields: { what: 'motor', nod: '20 um/m', tilt: '-5 um/m', leanY: '10 um/m' } }]);
    const judged = (id: string, setup = {}) => judgedBy(startingSheet('general'), check(id), setup, [], sum);
    expect(judged('head-tram').limits).toEqual(jasmine.objectContaining({ nod: [-85, 45], tilt: [-60, 70] }));
    expect(judged('head-tram').aims['nod']).toBeCloseTo(-20, 9);
    expect(judged('column-lean', { head: 'on' }).limits['leanY']).toEqual([-75, 55]);
    // With the head off its own weight is guessed still: back only, and 10 more for the motor.
    expect(judged('column-lean', { head: 'off' }).limits['leanY']).toEqual([-75, -10]);
    // Both known: the head and the motor.
    const both = sumOf([
      { kind: 'head-weight', fields: { leanY: '40 um/m' } },
      { kind: 'load', fields: { leanY: '10 um/m' } },
    ]);
    expect(judgedBy(startingSheet('general'), check('column-lean'), { head: 'off' }, [], both).limits['leanY']).toEqual([-115, 15]);
    expect(judgedBy(startingSheet('general'), check('column-lean'), { head: 'on' }, [], both).limits['leanY']).toEqual([-75, 55]);
  });

  it('figures that make no sense change nothing, and every kind says what it needs', () => {
    expect(effectOf({ kind: 'bearings', fields: { front: 'much' } })).toEqual(NO_EFFECT);
    expect(effectOf({ kind: 'wind', fields: {} })).toEqual(NO_EFFECT);
    for (const { fields, title } of CHANGE_KINDS) expect(fields.safeParse({}).success).withContext(title).toBeFalse();
  });
});

describe('a stand-in', () => {
  it('gives back what a linear relation says, from the last tie on', () => {
    fc.assert(
      fc.property(
        number(5),
        number(50),
        fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 2, maxLength: 6 }),
        number(40),
        (slope, at0, readings, now) => {
          fc.pre(new Set(readings).size > 1);
          const learned = learnStandIn(readings.map((reading) => ({ reading, value: at0 + slope * reading })));
          expect(learned?.estimate(now)).toBeCloseTo(at0 + slope * now, 6);
          expect(learned?.scatter).toBeCloseTo(0, 6);
        },
      ),
    );
  });

  it('stands for nothing before two ties, and is tied again every third pass', () => {
    expect(learnStandIn([{ reading: 1, value: 2 }])).toBeUndefined();
    expect(
      learnStandIn([
        { reading: 1, value: 2 },
        { reading: 1, value: 3 },
      ]),
    ).toBeUndefined();
    expect([mustTie(1, 0), mustTie(2, 2), mustTie(2, 3)]).toEqual([true, false, true]);
  });
});

describe('after the headstock has moved', () => {
  it('the tail centre stands higher by what the headstock came down, and faces follow the axis', () => {
    const after = afterHead({ slopeH: -20, slopeV: 5, tailH: 4, tailV: 10, saddle: -12 }, { slopeH: 45, slopeV: 10 }, { v: -60, h: 3 });
    expect(after).toEqual({ slopeH: 25, slopeV: 15, tailH: 1, tailV: 70, facing: 37 });
  });

  it('says nothing of what is not known', () => {
    expect(afterHead({}, { slopeH: 1, slopeV: 1 }, { v: 0, h: 0 })).toEqual({
      slopeH: undefined,
      slopeV: undefined,
      tailH: undefined,
      tailV: undefined,
      facing: undefined,
    });
  });
});

describe('another bar', () => {
  const rod = { diameter: 12, freeLength: 250 };

  it('the slope of the droop is that of the bent line itself', () => {
    const at = (place: number) => addedUpHeld(rod, 250, place, 0).sag;
    expect(sagSlope(rod, 20, 240)).toBeCloseTo((1000 * (at(240) - at(20))) / 220, 2);
  });

  it('shorter, thicker and hollow all droop less', () => {
    for (const { slope, what } of otherBars(rod, 20, 240))
      expect(slope)
        .withContext(sentence(what, FILE_SIZES))
        .toBeLessThan(sagSlope(rod, 20, 240));
  });

  it('of a thin rod or a thin tube is one that can be made', () => {
    for (const thin of [
      { diameter: 1, freeLength: 40 },
      { diameter: 0.4, freeLength: 12 },
      { diameter: 20.3, bore: 20, freeLength: 250 },
    ])
      for (const { bar, slope, what } of otherBars(thin, 2, 10)) {
        expect(bar.bore ?? 0)
          .withContext(sentence(what, FILE_SIZES))
          .toBeLessThan(bar.diameter);
        expect(slope).withContext(sentence(what, FILE_SIZES)).toBeGreaterThan(0);
        expect(sentence(what, FILE_SIZES)).not.toMatch(/\b0 mm|NaN/);
      }
  });

  it('is offered with numbers when the droop is more than a quarter of the zone', () => {
    const sheet = spindleAxisSheet(
      { slopeH: 20, slopeV: 20 },
      { bar: rod, places: [20, 240], dial: { kind: 'lever', graduation: 1, sense: 1 } },
    );
    const note = solve(sheet).notes.find((entry) => entry.code === 'sag-large');
    expect(note?.text).toMatch(
      /175 mm long instead of 250 mm: [\d.]+ µm\/m to take out; 18 mm thick instead of 12 mm: [\d.]+ µm\/m to take out; hollow/,
    );
  });
});
