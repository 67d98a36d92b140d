import { footFaces } from './footprints.js';
import { planMove } from './registry.js';
import { suits } from './suits.js';

describe('the means that suit a wedge', () => {
  it('below a quarter of what a grind or the thinnest leaf does, the scraper suits; below half a pass nothing does', () => {
    expect(suits('sine-stack', 5)).toBeUndefined();
    expect(suits('sine-stack', -4.9)).toEqual({ too: 'grind', least: 20, passes: 1, minutes: 25 });
    expect(suits('sine-stack', 2)?.passes).toBe(0);
    expect(suits('shim-leaves', 12, { leaf: 50 })).toEqual({ too: 'shim', least: 50, passes: 2, minutes: 50 });
    expect(suits('shim-leaves', 13, { leaf: 50 })).toBeUndefined();
    expect(suits('step-scrape', 1)).toBeUndefined();
  });
});

describe('the foot of a column', () => {
  const plan = (want: object, allow: string) =>
    planMove({
      ...{ format: 'isometra-move/1', move: 'supports', frame: 'mill', origin: [0, 0, 0], want },
      supports: footFaces({ across: 180, along: 240 }).map((face) => ({ ...face, allow })),
    })['supports'] as Record<string, number>;

  it('shims come by corner: to lean it to the right the left corners come up, by the slope over the foot', () => {
    // 100 µm/m over 180 mm are 18 µm.
    const amounts = plan({ leanX: 100, leanY: 0 }, 'shim');
    for (const corner of ['left front', 'left rear']) expect(amounts[corner]).withContext(corner).toBeCloseTo(18, 6);
    for (const corner of ['right front', 'right rear']) expect(amounts[corner]).withContext(corner).toBeCloseTo(0, 6);
  });

  it('toward the operator the rear comes up; both leans at once are one joint', () => {
    const amounts = plan({ leanX: 100, leanY: 50 }, 'shim');
    expect(amounts['left rear'] - amounts['left front']).toBeCloseTo(12, 6);
    expect(amounts['left rear'] - amounts['right rear']).toBeCloseTo(18, 6);
    expect(Math.min(...Object.values(amounts))).toBeCloseTo(0, 6);
  });
});
