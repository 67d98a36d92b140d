import fc from 'fast-check';
import type { Way } from '../checks/define.js';
import { divisionsPer, movedBy, stopAt, usualShift, type MoveDial } from './screwDial.js';

const WAYS: readonly (readonly [Way, Way])[] = [
  ['toward', 'away'],
  ['up', 'down'],
  ['left', 'right'],
];

/** A dial as it is: a stylus at a place, a surface that moves; nothing of the formulas under test. */
function needleAfter(dial: MoveDial, moveAlong: Way, um: number): number {
  const into = moveAlong === dial.side ? um : -um;
  return (into / dial.graduation) * dial.pressed;
}

describe('A dial at the screw', () => {
  const dials = fc.record({
    graduation: fc.constantFrom(1, 2, 10, 12.7, 25.4),
    pressed: fc.constantFrom<1 | -1>(1, -1),
    arrow: fc.constantFrom(...WAYS),
    second: fc.boolean(),
  });

  it('the needle stands at the target just when the part has gone the amount, from either side and counting either way', () => {
    fc.assert(
      fc.property(dials, fc.integer({ min: -500, max: 500 }), ({ graduation, pressed, arrow, second }, amount) => {
        const dial = { graduation, pressed, side: second ? arrow[1] : arrow[0] };
        const target = stopAt(amount, 0, divisionsPer(dial, arrow, false));
        expect(target).toBeCloseTo(needleAfter(dial, amount >= 0 ? arrow[0] : arrow[1], Math.abs(amount)), 9);
      }),
    );
  });

  it('what moves on tightening is allowed for beforehand: stopped there, tightened, it stands right', () => {
    fc.assert(
      fc.property(
        dials,
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: -60, max: 60 }),
        ({ graduation, pressed, arrow, second }, amount, slip) => {
          const per = divisionsPer({ graduation, pressed, side: second ? arrow[1] : arrow[0] }, arrow, false);
          const stopped = stopAt(amount, slip, per);
          const tightened = stopped + slip * per;
          expect(movedBy(0, tightened, per)).toBeCloseTo(amount, 9);
          expect(movedBy(stopped, tightened, per)).toBeCloseTo(slip, 9);
        },
      ),
    );
  });

  it('an angle is watched at a distance: 80 µm/m at 250 mm is 20 µm, ten divisions of 2', () => {
    const dial = { graduation: 2, pressed: 1, side: 'toward', over: 250 } as const;
    expect(stopAt(80, 0, divisionsPer(dial, ['toward', 'away'], true))).toBeCloseTo(10, 9);
    expect(stopAt(80, 0, divisionsPer({ ...dial, side: 'away' }, ['toward', 'away'], true))).toBeCloseTo(-10, 9);
    expect(() => divisionsPer({ ...dial, over: undefined }, ['toward', 'away'], true)).toThrowError(RangeError);
  });

  it('a stylus across the move is refused: it sees nothing of it', () => {
    expect(() => divisionsPer({ graduation: 10, pressed: 1, side: 'up' }, ['toward', 'away'], false)).toThrowError(/sees nothing/);
  });

  it('a tailstock 21 µm away, a rear dial of 0.01 mm that counts down when pressed: 2.1 up', () => {
    // By pencil: it comes 21 toward, away from the rear stylus, which is let out by 2.1; pressed counts down, so let out counts up.
    expect(stopAt(21, 0, divisionsPer({ graduation: 10, pressed: -1, side: 'away' }, ['toward', 'away'], false))).toBeCloseTo(2.1, 9);
  });

  it('the usual movement is the median of the last five; one that goes both ways is not reckoned with unasked', () => {
    expect(usualShift([])).toBeUndefined();
    expect(usualShift([4])).toEqual({ shift: 4, seen: 1, steady: false });
    expect(usualShift([4, 6])).toEqual({ shift: 5, seen: 2, steady: true });
    expect(usualShift([900, 4, 6, 5, 7, 3])).toEqual({ shift: 5, seen: 5, steady: true });
    expect(usualShift([-4, 6, 2])).toEqual({ shift: 2, seen: 3, steady: false });
    expect(usualShift([-4, -6])?.steady).toBe(true);
  });
});
