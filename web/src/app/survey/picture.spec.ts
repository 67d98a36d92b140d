import type { Round } from '@isometra/contract';
import { FRAME, fittingFactor, knownFrom, pictureOf } from './picture';

const round = (check: string, quantities: Record<string, number>): Round =>
  ({
    check,
    at: '2026-01-01',
    finding: { quantities: Object.fromEntries(Object.entries(quantities).map(([name, value]) => [name, { value }])) },
  }) as unknown as Round;

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

describe('what is known', () => {
  it('is the latest word on each, as of a time', () => {
    const rounds = [
      round('tailstock-traverse', { offsetHorizontal: 60 }),
      round('bed-twist', { twistPerMetre: 3 }),
      round('tailstock-traverse', { offsetHorizontal: 5, offsetVertical: 9 }),
    ];
    expect(knownFrom(rounds.slice(0, 1))).toEqual({ tailH: 60 });
    expect(knownFrom(rounds)).toEqual({ twistPerMetre: 3, tailH: 5, tailV: 9 });
  });
  it('is exaggerated within ×100 to ×5000', () => {
    expect(fittingFactor({})).toBe(5000);
    expect(fittingFactor({ tailH: 120 })).toBe(500);
    expect(fittingFactor({ tailH: 5000 })).toBe(100);
  });
});
