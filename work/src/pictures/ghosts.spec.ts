import { startingSheet } from '@isometra/core';
import { ghostsOf } from './ghosts.js';
import { FRAME, pictureOf } from './lathe.js';

describe('the ghost lines of a survey', () => {
  const factor = 1000;
  const units = (um: number) => (um / 1e6) * FRAME.perMetre * factor;
  const near = (found: readonly number[], wanted: readonly number[]) => {
    expect(found.length).toBe(wanted.length);
    found.forEach((value, i) => expect(value).toBeCloseTo(wanted[i], 9));
  };

  it('stand where the machine would at its bounds: a toolroom’s are half as far off', () => {
    const [general, toolroom] = [ghostsOf(startingSheet('general'), factor), ghostsOf(startingSheet('toolroom'), factor)];
    near(general.plan.tail, [units(-15), units(15)]);
    near(toolroom.plan.tail, [units(-7.5), units(7.5)]);
    near(
      toolroom.sections.map((sections) => sections[4].turn),
      general.sections.map((sections) => sections[4].turn / 2),
    );
  });

  it('one-sided zones begin at true: the axis may point toward the operator and up, never the other way', () => {
    const { plan, side } = ghostsOf(startingSheet('general'), factor);
    near(plan.axisEnd, [0, units(0.3 * 50)]);
    near(side.axisEnd, [0, -units(0.3 * 67)]);
    near(side.tail, [0, -units(20)]);
  });

  it('a machine within its limits lies between them', () => {
    const { sections } = ghostsOf(startingSheet('general'), factor);
    const known = pictureOf({ twistPerMetre: 12 }, factor).sections;
    known.forEach((section, i) => {
      const [low, high] = [sections[0][i].turn, sections[1][i].turn].sort((a, b) => a - b);
      expect(section.turn).toBeGreaterThanOrEqual(low);
      expect(section.turn).toBeLessThanOrEqual(high);
    });
  });

  it('without a sheet the check’s own limits hold', () => {
    near(ghostsOf(undefined, factor).plan.tail, ghostsOf(startingSheet('general'), factor).plan.tail);
  });
});
