import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import type { PracticeDial } from './dial.js';
import {
  centreRunoutSheet,
  chuckCutSheet,
  facedDiscSheet,
  quillSheet,
  seatSheet,
  spindlePlaySheet,
  spindleRunoutSheet,
} from './headstock.js';

const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const size = (most: number) => fc.double({ min: 0.5, max: most, noNaN: true });
const dial: fc.Arbitrary<PracticeDial> = fc.record({
  kind: fc.constantFrom('plunger', 'lever'),
  graduation: fc.constantFrom(1, 2, 10, 12.7),
  sense: fc.constantFrom(1, -1),
  leverAngle: fc.constantFrom(0, 15),
  contactForce: fc.constantFrom(0, 0.5),
});
const found = (sheet: unknown) => solve(sheet).quantities;

describe('the headstock gives its truth back', () => {
  it('play of both bearings, wherever the nose is read', () => {
    fc.assert(
      fc.property(size(80), size(80), size(600), size(200), dial, (front, rear, span, overhang, own) => {
        const { liftFront, liftRear } = found(spindlePlaySheet({ front, rear }, own, { span, overhang }));
        expect(liftFront.value).toBeCloseTo(front, 6);
        expect(liftRear.value).toBeCloseTo(rear, 6);
      }),
    );
  });

  it('a spindle that the bar tips has no axis to be read, and the call says so', () => {
    const own: PracticeDial = { kind: 'plunger', graduation: 1, sense: 1 };
    const sheet = spindlePlaySheet({ front: 20, rear: 15 }, own, { span: 300, overhang: 50 });
    const codes = (tips: string) => solve({ ...sheet, setup: { ...(sheet['setup'] as object), tips } }).notes.map((note) => note.code);
    expect(codes('yes')).toContain('spindle-tips');
    expect(codes('no')).not.toContain('spindle-tips');
  });

  it('an oval journal, lifted at several turns: the mean is the lift, the range the ovality', () => {
    fc.assert(
      fc.property(fc.array(size(12), { minLength: 2, maxLength: 6 }), dial, (more, own) => {
        const oval = Object.fromEntries(more.map((change, i) => [i * 40, change]));
        const { liftFront, ovality } = found(spindlePlaySheet({ front: 20, rear: 15, oval }, own, { span: 300, overhang: 50 }));
        expect(liftFront.value).toBeCloseTo(20 + more.reduce((sum, change) => sum + change, 0) / more.length, 6);
        expect(ovality.value).toBeCloseTo(Math.max(...more) - Math.min(...more), 6);
      }),
    );
  });

  it('the corner that rocks most, and what clamping shifts', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ pressed: size(20), clamped: size(20) }), { minLength: 2, maxLength: 4 }), dial, (truths, own) => {
        const corners = Object.fromEntries(truths.map((truth, i) => [`corner ${i}`, truth]));
        const { rock, clampShift } = found(seatSheet({ corners }, own));
        expect(rock.value).toBeCloseTo(Math.max(...truths.map((truth) => truth.pressed)), 6);
        expect(clampShift.value).toBeCloseTo(Math.max(...truths.map((truth) => truth.clamped)), 6);
      }),
    );
  });

  it('a seat that moves by more than a third of its limit is told', () => {
    const own: PracticeDial = { kind: 'plunger', graduation: 1, sense: 1 };
    const codes = (pressed: number) => solve(seatSheet({ corners: { a: { pressed, clamped: 0.1 } } }, own)).notes.map((note) => note.code);
    expect(codes(2)).toContain('seat-rocks');
    expect(codes(1)).not.toContain('seat-rocks');
  });

  it('the spindle’s runout parted from the bar’s, as vectors', () => {
    const part = fc.record({ radius: size(20), at: fc.integer({ min: 0, max: 359 }) });
    const own: PracticeDial = { kind: 'lever', graduation: 1, sense: -1 };
    fc.assert(
      fc.property(part, part, (spindle, bar) => {
        const { taperNear, taperNearBar } = found(spindleRunoutSheet({ spindle, bar }, own));
        expect(Math.abs(taperNear.value - 2 * spindle.radius)).toBeLessThan(0.05);
        expect(Math.abs(taperNearBar.value - 2 * bar.radius)).toBeLessThan(0.05);
      }),
      { numRuns: 25 },
    );
  });

  it('the point in the headstock swings by twice its eccentricity', () => {
    fc.assert(
      fc.property(size(30), dial, (radius, own) => Math.abs(found(centreRunoutSheet(radius, own))['radial'].value - 2 * radius) < 1e-6),
    );
  });

  it('the axis from a cut in the chuck, bed twist taken out, whichever side the tool stands', () => {
    fc.assert(
      fc.property(number(100), number(60), fc.constantFrom('operator' as const, 'rear' as const), (slopeH, twistPerMetre, tool) => {
        const sheet = chuckCutSheet({ slopeH, twistPerMetre }, { places: [10, 80, 160], diameter: 40, tool, heightAboveWays: 200 });
        expect(found(sheet)['slopeH'].value).toBeCloseTo(slopeH, 5);
      }),
    );
  });

  it('the quill, whatever the bar in it droops', () => {
    fc.assert(
      fc.property(
        number(150),
        number(150),
        size(40),
        fc.constantFrom('operator' as const, 'rear' as const),
        dial,
        (slopeH, slopeV, more, side, own) => {
          const practice = { bar: { diameter: 10 + more }, freeLength: 200, places: [10, 190], side, dial: own };
          const { slopeH: h, slopeV: v } = found(quillSheet({ slopeH, slopeV }, practice));
          expect(h.value).toBeCloseTo(slopeH, 2);
          expect(v.value).toBeCloseTo(slopeV, 2);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('the cross slide from a disc read past its centre: the error shows twice there', () => {
    fc.assert(
      fc.property(
        number(150),
        dial,
        (slope, own) => Math.abs(found(facedDiscSheet(slope, [0, 40, 90], own))['slope'].value - slope) < 1e-6,
      ),
    );
  });
});
