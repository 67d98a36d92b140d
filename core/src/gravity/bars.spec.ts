import { addedUpSag } from '../practice/tailstock.js';
import { barStiffness, centresPush, centresSag, heldPush, heldSag } from './bars.js';

describe('gravity', () => {
  it('a 12 mm steel rod 250 mm out of the chuck droops over 20 µm', () => {
    const sag = heldSag({ diameter: 12 }, 250, 250);
    expect(sag).toBeGreaterThan(20);
    expect(sag).toBeLessThan(30);
  });

  it('between centres agrees with adding up the curvature', () => {
    const bar = { diameter: 32, bore: 10, material: 'cast-iron' } as const;
    for (const at of [20, 111, 250, 480]) expect(centresSag(bar, 500, at)).toBeCloseTo(addedUpSag(bar, 500, at), 2);
  });

  it('is nothing at the ends and symmetric between centres', () => {
    expect(centresSag({ diameter: 20 }, 400, 0)).toBe(0);
    expect(centresSag({ diameter: 20 }, 400, 400)).toBeCloseTo(0, 9);
    expect(centresSag({ diameter: 20 }, 400, 100)).toBeCloseTo(centresSag({ diameter: 20 }, 400, 300), 9);
  });

  it('a stylus pushes a held bar by F·x³/3EI and one between centres far less', () => {
    const bar = { diameter: 20 };
    const { ei } = barStiffness(bar);
    expect(heldPush(bar, 1, 200)).toBeCloseTo((1e6 * 0.2 ** 3) / (3 * ei), 9);
    expect(centresPush(bar, 400, 1, 200)).toBeCloseTo((1e6 * 0.4 ** 3) / (48 * ei), 9);
  });

  it('a hollow bar droops less than a solid one', () => {
    expect(heldSag({ diameter: 40, bore: 30 }, 300, 300)).toBeLessThan(heldSag({ diameter: 40 }, 300, 300));
  });

  it('refuses a bar that is all bore', () => expect(() => barStiffness({ diameter: 10, bore: 10 })).toThrowError(RangeError));
});
