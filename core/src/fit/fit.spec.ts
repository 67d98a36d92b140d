import fc from 'fast-check';
import { harmonicWeights } from './harmonic.js';
import { dot, fitLine, slopeWeights } from './line.js';
import { solveLinear } from './linearSystem.js';

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
