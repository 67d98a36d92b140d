import { FRAME, fittingFactor, pictureOf } from './lathe.js';

describe('the machine as drawn, against three known truths', () => {
  it('an axis that points toward the operator points down the picture in plan, a high one up in the side view', () => {
    const { plan, side } = pictureOf({ axisSlopeH: 100, axisSlopeV: 50 }, 1000);
    expect(plan.axisEnd).toBeCloseTo(100e-6 * 0.3 * FRAME.perMetre * 1000, 9);
    expect(side.axisEnd).toBeCloseTo(-50e-6 * 0.3 * FRAME.perMetre * 1000, 9);
  });

  it('a tailstock away from the operator and low lies up in plan and down in the side view, to scale', () => {
    const { plan, side } = pictureOf({ tailH: -40, tailV: -20 }, 500);
    expect(plan.tail).toBeCloseTo(-40e-6 * FRAME.perMetre * 500, 9);
    expect(side.tail).toBeCloseTo(20e-6 * FRAME.perMetre * 500, 9);
    expect(plan.tail / side.tail).toBeCloseTo(-2, 9);
  });

  it('a bed whose operator’s side rises toward the tailstock turns its sections more and more, that side up', () => {
    const { sections } = pictureOf({ twistPerMetre: 60 }, 1000);
    expect(sections[0].turn).toBeCloseTo(0, 9);
    expect(sections.at(-1)?.turn).toBeCloseTo((-60e-6 * 1000 * 180) / Math.PI, 6);
    const turns = sections.map((section) => section.turn);
    expect([...turns].sort((a, b) => b - a)).toEqual(turns);
    // Turned counter-clockwise, the right end (the operator, seen from the tailstock) goes up.
    const right = Math.sin(((sections.at(-1)?.turn ?? 0) * Math.PI) / 180);
    expect(right).toBeLessThan(0);
  });
});

describe('the rest of the machine as drawn', () => {
  it('a quill that rises and points toward the operator has its free end up in the side view and down in plan', () => {
    const { plan, side } = pictureOf({ quillH: 100, quillV: 50 }, 1000);
    // Its free end is on the left of what it turns about.
    const end = (turn: number) => -Math.sin((turn * Math.PI) / 180);
    expect(end(plan.quill)).toBeCloseTo(0.1, 3);
    expect(end(side.quill)).toBeCloseTo(-0.05, 3);
  });

  it('a slide that faces hollow on a true axis has its rear end toward the headstock; square to the bed it faces hollow by the axis', () => {
    expect(pictureOf({ facing: 60 }, 1000).plan.slide).toBeCloseTo(-0.06 * FRAME.slide, 9);
    expect(pictureOf({ facing: 60, axisSlopeH: 60 }, 1000).plan.slide).toBeCloseTo(0, 9);
    expect(pictureOf({ axisSlopeH: 60 }, 1000).plan.slide).toBeUndefined();
  });

  it('a bed that is high in the middle is drawn high in the middle, to scale and place', () => {
    const way = [0, 500, 1000].map((at) => ({ at, height: at === 500 ? 12 : -6 }));
    const { bed } = pictureOf({ ways: [{ name: '', heights: way }] }, 500).side;
    const points = [...bed.matchAll(/[ML](\S+) (\S+)/g)].map(([, x, y]) => [Number(x), Number(y)]);
    expect(points.map(([x]) => x)).toEqual([40, 170, 480, 790, 920]);
    expect(points[2][1]).toBeCloseTo(FRAME.bedTop - 12e-6 * FRAME.perMetre * 500, 9);
    expect(points[1][1]).toBeGreaterThan(FRAME.bedTop);
    const long = pictureOf({ ways: [{ name: '', heights: [0, 900, 1800].map((at) => ({ at, height: 0 })) }] }, 500).side.bed;
    expect([...long.matchAll(/L(\S+) /g)].map(([, x]) => Number(x))).toEqual([170, 545, 920, 920]);
    expect(pictureOf({}, 500).side.bed).toBe('M40 60 L920 60');
  });

  it('of several ways the one that was read last is the bed, the others are lines over it', () => {
    const heights = (peak: number) => [0, 500, 1000].map((at) => ({ at, height: at === 500 ? peak : 0 }));
    const ways = [
      { name: 'way rear flat', heights: heights(20) },
      { name: 'way front vee', heights: heights(-8) },
    ];
    const { side } = pictureOf({ ways }, 500);
    expect(side.ways.map(({ name }) => name)).toEqual(['way rear flat']);
    expect(side.ways[0].path).toMatch(/^M170 60 L480 53\.8\S* L790 60$/);
    expect(side.bed).toMatch(/^M40 60 L170 60 L480 62\.4\S* L790 60 L920 60$/);
    // A way that is far out of true is not drawn out of the picture.
    expect(fittingFactor({ ways: [{ name: '', heights: heights(120) }] })).toBe(500);
  });

  it('is exaggerated within ×100 to ×5000', () => {
    expect(fittingFactor({})).toBe(5000);
    expect(fittingFactor({ tailH: 120 })).toBe(500);
    expect(fittingFactor({ tailH: 5000 })).toBe(100);
  });
});
