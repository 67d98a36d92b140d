import fc from 'fast-check';
import { trialCuts } from './trialCuts.js';

describe('what is left of a trial piece', () => {
  it('is told by its smallest pad: by hand, 25.40 down to 25 in cuts of 0.1', () => {
    expect(trialCuts({ pads: [25.42, 25.4], finished: 25, cut: 0.1 })).toEqual({ stopAt: 25, stock: jasmine.any(Number), cuts: 4 });
    expect(trialCuts({ pads: [25.42, 25.4], finished: 25, cut: 0.1 }).stock).toBeCloseTo(0.4, 9);
    expect(trialCuts({ pads: [24.9], finished: 25, cut: 0.1 }).cuts).toBe(0);
    expect(trialCuts({ pads: [25.4], finished: 25 }).cuts).toBeUndefined();
  });

  it('warm work is stopped at more: 50 mm, 20 degrees, 11.5 per million', () => {
    expect(trialCuts({ pads: [50.2], finished: 50, warmer: 20 }).stopAt).toBeCloseTo(50.0115, 6);
  });

  it('the cuts it tells never make it too small, and one more would', () => {
    const size = fc.double({ min: 5, max: 200, noNaN: true });
    fc.assert(
      fc.property(
        size,
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0.02, max: 1, noNaN: true }),
        (finished, over, cut) => {
          const { cuts = 0, stock } = trialCuts({ pads: [finished + over], finished, cut });
          expect(cuts * cut).toBeLessThanOrEqual(stock + 1e-6);
          expect((cuts + 1) * cut).toBeGreaterThan(stock - 1e-6);
        },
      ),
    );
  });
});
