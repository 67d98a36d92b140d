import * as fc from 'fast-check';
import { placed, shifted, turned, within, type Matrix } from './shapes.js';

const at = ([a, b, c, d, e, f]: Matrix, x: number, y: number): readonly [number, number] => [a * x + c * y + e, b * x + d * y + f];
const number = fc.double({ min: -500, max: 500, noNaN: true });

describe('shapes of a picture', () => {
  it('turn with the clock about their place, y downward', () => {
    const [x, y] = at(turned(90, 10, 20), 15, 20);
    expect(x).toBeCloseTo(10, 9);
    expect(y).toBeCloseTo(25, 9);
    fc.assert(
      fc.property(number, number, number, (degrees, px, py) => {
        const [still, stillY] = at(turned(degrees, px, py), px, py);
        expect(Math.hypot(still - px, stillY - py)).toBeLessThan(1e-9);
      }),
    );
  });

  it('what lies in a part that lies in another is where both put it', () => {
    fc.assert(
      fc.property(number, number, number, number, number, (degrees, x, y, px, py) => {
        const [outer, inner] = [turned(degrees, px, py), shifted(x, y)];
        const [once, twice] = [at(within(outer, inner), 3, 4), at(outer, ...at(inner, 3, 4))];
        expect(Math.hypot(once[0] - twice[0], once[1] - twice[1])).toBeLessThan(1e-6);
      }),
    );
  });

  it('words go along, and stay upright', () => {
    const [path, word] = placed(shifted(5, 6), [
      { look: 'iron', d: 'M0 0H1', at: shifted(1, 1) },
      { text: 'a', x: 2, y: 3 },
    ]);
    expect('at' in path && path.at).toEqual([1, 0, 0, 1, 6, 7]);
    expect(word).toEqual({ text: 'a', x: 7, y: 9 });
  });
});
