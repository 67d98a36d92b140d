import { CHECKS } from '../checks/registry.js';
import { planCheck } from '../testing/sampleSetups.js';
import { solve } from '../solve/solve.js';
import { monteCarlo } from './draws.js';

/** Enough to tell 5 % from nothing ten times over. */
const DRAWS = 20_000;

describe('a Monte Carlo of a check', () => {
  for (const check of CHECKS.values()) {
    it(`${check.id}: agrees with the first-order budget within 5 %`, () => {
      const sheet = planCheck(check);
      const run = monteCarlo(sheet, DRAWS, 11);
      expect(run.step(DRAWS)).toBe(DRAWS);
      const drawn = run.result();
      for (const [name, quantity] of Object.entries(solve(sheet).quantities)) {
        if (check.quantities[name].magnitude || quantity.budget.length === 0) continue;
        const u = Math.sqrt(quantity.budget.reduce((sum, line) => sum + (line.source === 'wandering' ? 0 : line.u ** 2), 0));
        // A swing is a size too: near zero its draws fold over, and only the interval is told.
        if (Math.abs(quantity.value) < 3 * u && drawn[name].low >= 0) continue;
        expect(Math.abs(drawn[name].u / u - 1))
          .withContext(`${name}: drawn ${drawn[name].u}, first order ${u}`)
          .toBeLessThan(0.05);
        expect(Math.abs(drawn[name].mean - quantity.value)).toBeLessThan(0.05 * u + 1e-9);
        expect(drawn[name].low).toBeLessThan(drawn[name].high);
      }
    });
  }

  it('reports an interval for a size near zero, where the first order fails', () => {
    const readings = [0, 90, 180, 270].map((angle) => ({ angle, value: 0 }));
    const sheet = {
      format: 'isometra-sheet/1',
      check: 'turret-bore',
      instrument: { kind: 'plunger', graduation: '2 um', sense: 1, holderSag: '-1 um' },
      setup: { feature: 'bore' },
      readings,
    };
    const run = monteCarlo(sheet, 20_000);
    run.step(20_000);
    const { offsetRadial } = run.result();
    expect(offsetRadial.low).toBeGreaterThanOrEqual(0);
    expect(offsetRadial.mean).toBeGreaterThan(0.2);
  });

  it('goes on in steps and may be stopped early', () => {
    const run = monteCarlo(planCheck([...CHECKS.values()][0]), 1000);
    expect(run.step(300)).toBe(300);
    expect(Object.keys(run.result()).length).toBeGreaterThan(0);
    expect(run.step(5000)).toBe(1000);
  });
});
