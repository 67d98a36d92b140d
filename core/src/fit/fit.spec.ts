import fc from 'fast-check';
import { harmonicWeights } from './harmonic.js';
import { dot, fitLine, slopeWeights } from './line.js';
import { solveLinear } from './linearSystem.js';
import { bulkRandom } from './random.js';

const number = fc.double({ min: -1000, max: 1000, noNaN: true });

describe('a line', () => {
  it('gives slope and height back whatever the places', () => {
    fc.assert(
      fc.property(
        number,
        number,
        fc.uniqueArray(fc.integer({ min: -500, max: 500 }), { minLength: 2, maxLength: 9 }),
        (slope, height, x) => {
          const fit = fitLine(
            x,
            x.map((place) => height + slope * place),
          );
          expect(fit.slope).toBeCloseTo(slope, 6);
          expect(fit.at0).toBeCloseTo(height, 4);
          expect(fit.range).toBeCloseTo(0, 4);
        },
      ),
    );
  });

  it('needs two different places', () => expect(() => slopeWeights([3, 3, 3])).toThrowError(/two different places/));
});

describe('a first harmonic', () => {
  it('halves the difference of opposite readings', () => {
    const weights = harmonicWeights([0, 90, 180, 270]);
    expect(dot(weights?.cosine ?? [], [10, 4, 2, 8])).toBeCloseTo(4, 9);
    expect(dot(weights?.sine ?? [], [10, 4, 2, 8])).toBeCloseTo(-2, 9);
  });

  it('is not fixed by too few angles', () => {
    expect(harmonicWeights([0, 180])).toBeUndefined();
    expect(harmonicWeights([0, 180, 0, 180])).toBeUndefined();
  });
});

describe('a linear system', () => {
  it('is solved, or known to be singular', () => {
    expect(
      solveLinear(
        [
          [0, 2],
          [1, 1],
        ],
        [[4], [3]],
      ),
    ).toEqual([[1], [2]]);
    expect(
      solveLinear(
        [
          [1, 2],
          [2, 4],
        ],
        [[1], [2]],
      ),
    ).toBeUndefined();
  });
});

describe('many random numbers at once', () => {
  const DRAWS = 400_000;
  const moment = (values: Float64Array, power: number) => values.reduce((sum, value) => sum + value ** power, 0) / values.length;
  const share = (values: Float64Array, holds: (value: number) => boolean) => values.filter(holds).length / values.length;

  it('are normal, out to the tails', () => {
    const values = new Float64Array(DRAWS);
    bulkRandom(7).addNormal(values, 1);
    expect(moment(values, 1)).toBeCloseTo(0, 1.9);
    expect(moment(values, 2)).toBeCloseTo(1, 1.9);
    expect(moment(values, 3)).toBeCloseTo(0, 1);
    expect(moment(values, 4)).toBeCloseTo(3, 1);
    for (const [z, beyond] of [
      [1, 0.31731],
      [2, 0.0455],
      [3, 0.0027],
      [3.6, 0.00032],
    ] as const)
      // prettier-ignore
      expect(share(values, (value) => Math.abs(value) > z)).withContext(`${z}`).toBeCloseTo(beyond, 2.5);
    expect(share(values, (value) => Math.abs(value) > 3.6)).toBeGreaterThan(0);
  });

  it('are even between the halves, whatever the number of places', () => {
    const values = new Float64Array(DRAWS + 1);
    bulkRandom(8).even(values, 2);
    expect(Math.max(...values.slice(0, 1000))).toBeLessThan(1);
    expect(moment(values, 1)).toBeCloseTo(0, 2);
    expect(moment(values, 2)).toBeCloseTo(1 / 3, 2);
    expect(values[DRAWS]).not.toBe(0);
  });

  it('are the same for the same seed, others for another, and no number goes with the one before it', () => {
    const drawn = (seed: number) => {
      const values = new Float64Array(DRAWS);
      bulkRandom(seed).addNormal(values, 1);
      return values;
    };
    const values = drawn(3);
    expect(drawn(3)).toEqual(values);
    expect(drawn(4).slice(0, 20)).not.toEqual(values.slice(0, 20));
    for (const lag of [1, 2, 128]) {
      const going = values.subarray(lag).reduce((sum, value, i) => sum + value * values[i], 0) / DRAWS;
      expect(Math.abs(going)).withContext(`${lag}`).toBeLessThan(0.008);
    }
    const [one, other] = [drawn(3), drawn(4)];
    expect(Math.abs(one.reduce((sum, value, i) => sum + value * other[i], 0) / DRAWS)).toBeLessThan(0.008);
  });
});
