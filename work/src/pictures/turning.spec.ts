import { startingSheet } from '@isometra/core';
import { turningGhosts } from './ghosts.js';
import { bedUnder, offsetPixels, turningFittingFactor, turningHas } from './turning.js';

describe('a turning centre as drawn', () => {
  it('draws the worst offset within its frame, and its limits as circles', () => {
    expect(turningFittingFactor({ pockets: [{ name: '', h: 50 }] })).toBe(1000);
    expect(offsetPixels(50, turningFittingFactor({ pockets: [{ name: '', h: 50 }] }))).toBe(50);
    expect(turningFittingFactor({})).toBe(5000);
    expect(
      turningFittingFactor({
        pockets: [
          { name: 'station 3', h: 30, v: 0 },
          { name: 'station 5', h: -10, v: 20 },
        ],
      }),
    ).toBe(2000);
    expect(turningGhosts(startingSheet('general'))).toEqual({ turret: [10], bush: [8], sub: [8] });
    expect(turningHas('turning-centre-tailstock')).toEqual({ sub: false, bush: false, tail: true });
  });

  it('lies on a bed as steep as its slide, whichever end is the higher', () => {
    const corners = (slant: number) => [...bedUnder(slant).matchAll(/(\d+) (\d+)/g)].map(([, x, y]) => [Number(x), Number(y)]);
    for (const slant of [15, 30, 45, 60]) {
      const [[x1, y1], [x2, y2]] = corners(slant);
      expect((y2 - y1) / (x2 - x1))
        .withContext(`${slant}, its rear the higher`)
        .toBeCloseTo(Math.tan((slant * Math.PI) / 180), 1);
      const [[a1, b1], [a2, b2]] = corners(-slant);
      expect((b2 - b1) / (a2 - a1)).toBeCloseTo(-Math.tan((slant * Math.PI) / 180), 1);
    }
    expect(corners(0)).toEqual([
      [60, 336],
      [430, 336],
    ]);
  });
});
