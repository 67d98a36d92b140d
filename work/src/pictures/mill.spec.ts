import { startingSheet } from '@isometra/core';
import { millGhosts } from './ghosts.js';
import { millFittingFactor, millPictureOf, TABLE_DEPTH } from './mill.js';

/** Where the top of something upright goes when it is turned: + is to the right in the drawing. */
const top = (degrees: number): number => Math.sin((degrees * Math.PI) / 180);

describe('a mill as drawn', () => {
  it('what leans right leans right from the front, what leans toward the operator leans left from the right side', () => {
    const { front, side } = millPictureOf({ leanX: 100, leanY: 50, tilt: -80, nod: 60 }, 1000);
    expect(top(front.column)).toBeCloseTo(0.1, 3);
    expect(top(side.column)).toBeCloseTo(-0.05, 3);
    expect(top(front.head)).toBeCloseTo(-0.08, 3);
    expect(top(side.head)).toBeCloseTo(-0.06, 3);
  });

  it('a table that rises to the right and to the column has those ends up', () => {
    const { front, side } = millPictureOf({ tableX: 40, tableY: 30 }, 1000);
    // The right end of what lies goes down when turned with the clock.
    expect(top(front.table)).toBeCloseTo(-0.04, 3);
    expect(top(side.table)).toBeCloseTo(-0.03, 3);
  });

  it('an obtuse angle takes the column’s end of the table to the left', () => {
    expect(millPictureOf({ squareness: 65 }, 1000).shear).toBeCloseTo(-0.065 * TABLE_DEPTH, 9);
  });

  it('its limits are ghosts on either side, one-sided ones too', () => {
    const ghosts = millGhosts(startingSheet('general'), 1000);
    expect(ghosts.tilt.map(({ front }) => top(front.head).toFixed(3))).toEqual(['-0.065', '0.065']);
    const narrow = millGhosts(startingSheet('toolroom'), 1000);
    expect(narrow.tableX.map(({ front }) => top(front.table).toFixed(3))).toEqual(['0.015', '-0.015']);
  });

  it('the worst angle turns by about ten degrees', () => {
    expect(millFittingFactor({ tilt: 900, nod: 10 })).toBe(200);
    expect(millFittingFactor({})).toBe(5000);
  });
});
