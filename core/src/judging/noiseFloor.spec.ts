import { swingEstimate } from '../checks/estimate.js';
import { noiseFloor } from './noiseFloor.js';

const floorOf = (count: number, scatter: number): number =>
  noiseFloor(
    swingEstimate(
      'swing',
      Array.from({ length: count }, (_, i) => (i === 0 ? 1 : 0)),
    ),
    new Float64Array(count).fill(scatter),
    [],
  );

describe('what a size would be of its doubts alone', () => {
  it('is the 95 % point of the size of one normal number: 1.96 of its scatter', () => {
    expect(floorOf(1, 1)).toBeCloseTo(1.96, 0);
    expect(floorOf(1, 10)).toBeCloseTo(10 * floorOf(1, 1), 9);
  });

  it('is the same whenever it is asked, and of how ever long a round', () => {
    const [few, many] = [floorOf(3, 2), floorOf(4000, 2)];
    expect(floorOf(4000, 2)).toBe(many);
    expect(floorOf(3, 2)).toBe(few);
    expect(floorOf(700, 2)).toBeGreaterThan(2);
  });
});
