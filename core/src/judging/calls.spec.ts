import fc from 'fast-check';
import { linearEstimate } from '../checks/estimate.js';
import type { Instrument } from '../instruments/instrument.js';
import type { Slot } from '../instruments/slots.js';
import { judgeMove, learnedGain } from './gain.js';
import { coverageFactor } from './studentT.js';
import { pooledRepeatability, uncertaintyOf } from './budget.js';
import { defaultAim, verdictOf } from './verdict.js';

const dial: Instrument = { kind: 'plunger', graduation: 2, leverAngle: 0, readTo: 0.5, accuracy: 1, holderSag: 0, contactForce: 0 };
const slot = (value: number, repeats: number[] = [value]): Slot => ({ keys: { value, set: 1 }, value, repeats, set: 1 });

describe('a verdict', () => {
  for (const [value, expanded, zone, verdict] of [
    [0, 2, [-10, 10], 'in'],
    [9, 2, [-10, 10], 'unsure'],
    [-8, 2, [-10, 10], 'in'],
    [12, 2, [-10, 10], 'unsure'],
    [12.1, 2, [-10, 10], 'out'],
    [0, 3, [0, 20], 'in'],
    [-3, 3, [0, 20], 'unsure'],
    [-0.1, 3, [0, 20], 'unsure'],
    [0.1, 3, [0, 20], 'in'],
    [2, 6, [0, 20], 'unsure'],
    [-3.1, 3, [0, 20], 'out'],
    [17.5, 3, [0, 20], 'unsure'],
    [2, 3, [-20, 0], 'unsure'],
    [-2, 3, [-20, 0], 'in'],
    [1, 0.5, [null, 5], 'in'],
    [4.8, 0.5, [null, 5], 'unsure'],
  ] as const) {
    it(`${value} ± ${expanded} in [${zone.join(', ')}] is ${verdict}`, () => expect(verdictOf(value, expanded, zone)).toBe(verdict));
  }
  it('aims at the middle of a zone and at 0 for a size', () => {
    expect(defaultAim([0, 50])).toBe(25);
    expect(defaultAim([null, 5])).toBe(0);
  });
});

describe('uncertainty', () => {
  const difference = linearEstimate('x', [-1, 1]);

  it('counts accuracy once for a difference, and a quarter division without repeats', () => {
    const { u, budget } = uncertaintyOf({
      estimate: difference,
      slots: [slot(0), slot(10)],
      instrument: dial,
      pooled: pooledRepeatability([]),
      bySet: [10],
    });
    const reading = 2 * ((0.29 * 0.5 * 2) ** 2 + 0.5 ** 2);
    expect(u).toBeCloseTo(Math.sqrt(reading + 1 / 3), 9);
    expect(budget.reduce((sum, line) => sum + line.share, 0)).toBeCloseTo(1, 9);
    expect(budget.map((line) => line.share)).toEqual([...budget.map((line) => line.share)].sort((a, b) => b - a));
  });

  it('counts accuracy in proportion to the span when the range is known', () => {
    const ranged = { ...dial, range: 100 };
    const line = (to: number) =>
      uncertaintyOf({
        estimate: difference,
        slots: [slot(0), slot(to)],
        instrument: ranged,
        pooled: pooledRepeatability([]),
        bySet: [to],
      }).budget.find((entry) => /accuracy/.test(entry.source))?.u;
    expect(line(20)).toBeCloseTo(0.1 / Math.sqrt(3), 9);
    expect(line(200)).toBeCloseTo(1 / Math.sqrt(3), 9);
  });

  it('pools repeats, never below an eighth of a division, and widens U for few of them', () => {
    const slots = [slot(1, [0, 2]), slot(10)];
    const pooled = pooledRepeatability(slots);
    expect(pooled).toEqual({ s: Math.SQRT2, degreesOfFreedom: 1 });
    const wide = uncertaintyOf({ estimate: difference, slots, instrument: dial, pooled, bySet: [9] });
    expect(wide.expanded / wide.u).toBeGreaterThan(2);
    const same = [slot(1, [1, 1, 1]), slot(10)];
    const quiet = uncertaintyOf({ estimate: difference, slots: same, instrument: dial, pooled: pooledRepeatability(same), bySet: [9] });
    expect(quiet.budget.find((line) => /repeating/.test(line.source))?.u).toBeCloseTo(0.25 * Math.SQRT2, 9);
  });

  const settingUp = (bySet: number[], more: object = {}, weights = [-1, 1]) =>
    uncertaintyOf({
      estimate: { ...difference, weights },
      slots: [slot(0), slot(10)],
      instrument: dial,
      pooled: pooledRepeatability([]),
      bySet,
      reseatSpread: 1.5,
      ...more,
    });
  const term = (...input: Parameters<typeof settingUp>) => settingUp(...input).budget.find(({ source }) => source === 'setting-up')?.u;

  it('counts setting up from the first set-up on, and it falls with every one', () => {
    const alike = [1, 2, 3, 4].map((n) => {
      const { settingUp: own } = settingUp(new Array<number>(n).fill(7));
      return coverageFactor(own.spread.degrees) * own.u;
    });
    // The prior of 1.5 µm counts as ten degrees of freedom, and set-ups that agree make it smaller.
    expect(alike[0]).toBeCloseTo(3.34, 2);
    alike.slice(1).forEach((u, i) => expect(u).toBeLessThan(alike[i]));
    // Reseating moves a reading; over 300 mm each micrometre of it is 3.33 µm/m.
    expect(term([7], {}, [-1000 / 300, 1000 / 300])).toBeCloseTo((1.5 * 1000) / 300, 9);
    expect(term([7], { reseatSpread: 0 })).toBeUndefined();
  });

  it('pools what this round and what earlier rounds showed of setting up', () => {
    // (10·1.5² + 1·18)/11, over two set-ups.
    expect(term([4, 10])).toBeCloseTo(Math.sqrt((10 * 2.25 + 18) / 11 / 2), 9);
    expect(term([7], { learnedSpread: { s: 4, degrees: 10 } })).toBeCloseTo(Math.sqrt((10 * 2.25 + 10 * 16) / 20), 9);
    expect(term([7], { learnedSpread: { s: 0.3, degrees: 30 } })).toBeLessThan(0.85);
  });

  it('uses 2 when the degrees of freedom are many', () => {
    expect(coverageFactor(Infinity)).toBe(2);
    expect(coverageFactor(1)).toBeCloseTo(12.71, 2);
    expect(coverageFactor(5.9)).toBeCloseTo(2.57, 2);
  });
});

describe('did the move work', () => {
  for (const [observed, outcome] of [
    [-20, 'wrong-way'],
    [-3, 'wrong-way'],
    [1, 'nothing-moved'],
    [10, 'fell-short'],
    [20, 'as-planned'],
    [30, 'overshot'],
  ] as const) {
    it(`${observed} of 20 planned: ${outcome}`, () => expect(judgeMove(20, observed, 20 - observed, 2).outcome).toBe(outcome));
  }

  it('a wrong way asks for about double the other way', () => expect(judgeMove(20, -20, 40, 2).next).toBeCloseTo(-40, 9));
  it('says nothing of a move within the doubt', () => expect(judgeMove(2, 20, 0, 2).outcome).toBe('cannot-tell'));

  it('the next move brings it in when the gain holds', () => {
    const planned = fc.double({ min: 5, max: 100, noNaN: true });
    const gain = fc.double({ min: 0.16, max: 2, noNaN: true });
    fc.assert(
      fc.property(planned, gain, fc.boolean(), (amount, size, back) => {
        const g = back ? -size : size;
        const { next } = judgeMove(amount, g * amount, amount - g * amount, 0.1);
        expect(g * amount + g * (next ?? 0)).toBeCloseTo(amount, 6);
      }),
    );
  });

  it('learns the median of the last five usable gains', () => {
    expect(learnedGain([0.01, 5, -4])).toBeNull();
    // A machine that is the other way round from what its card says: only the moves since that was seen count.
    expect(learnedGain([0.9, -1, 0.01, -0.8])).toBeCloseTo(-0.9, 9);
    expect(learnedGain([9, 0.8, 0.7, 0.9])).toBe(0.8);
    expect(learnedGain([0.4, 0.5])).toBeCloseTo(0.45, 9);
  });
});
