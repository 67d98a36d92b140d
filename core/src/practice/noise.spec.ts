import { CHECKS } from '../checks/registry.js';
import type { Finding } from '../judging/finding.js';
import { solve } from '../solve/solve.js';
import { practiceRound } from './models.js';

const ROUNDS = 400;
/** Hinges have no instrument, so no doubt to state. */
const withDoubt = [...CHECKS.keys()].filter((id) => id !== 'hinge');

describe('forward models with noise', () => {
  for (const id of withDoubt) {
    it(`${id}: U covers the truth in 95 of 100 noisy rounds, and is not wider than it need be`, () => {
      const errors = new Map<string, number[]>();
      const doubts = new Map<string, number[]>();
      // Not every round asks the same: a flat is read along the spindle or along the slide.
      const asked = new Map<string, number>();
      for (let seed = 1; seed <= ROUNDS; seed++) {
        const { sheet, truth } = practiceRound(id, seed, { repeat: 0.2 });
        for (const name of Object.keys(truth)) asked.set(name, (asked.get(name) ?? 0) + 1);
        const finding = tried(sheet);
        if (!finding) continue;
        for (const [name, value] of Object.entries(truth)) {
          const found = finding.quantities[name];
          if (!found || found.expanded === null) continue;
          // Dials of all kinds are mixed: errors are told in parts of what the dial can tell.
          const division = Number(/[\d.]+/.exec(String((sheet['instrument'] as { graduation: string }).graduation))?.[0]);
          errors.set(name, errors.get(name) ?? []);
          errors.get(name)?.push(Math.abs(found.value - value) / division);
          doubts.set(name, doubts.get(name) ?? []);
          // These rounds are read in one set-up: what setting up again would move is no part of their error.
          const seated = found.budget.find(({ source }) => source === 'setting-up')?.share ?? 0;
          doubts.get(name)?.push((found.expanded * Math.sqrt(1 - seated)) / division);
        }
      }
      for (const [name, all] of errors) {
        const own = doubts.get(name) as number[];
        const covered = all.filter((error, i) => error <= own[i] + 1e-9).length / all.length;
        expect(all.length)
          .withContext(name)
          .toBeGreaterThan(0.9 * (asked.get(name) ?? ROUNDS));
        expect(covered).withContext(`${name} covered`).toBeGreaterThanOrEqual(0.95);
        const at95 = [...all].sort((a, b) => a - b)[Math.floor(0.95 * all.length)];
        const median = [...own].sort((a, b) => a - b)[own.length >> 1];
        expect(median)
          .withContext(`${name}: median U ${median}, error ${at95}`)
          .toBeLessThanOrEqual(3 * at95);
      }
    });
  }
});

/** The finding of a sheet; nothing where its readings do not make one yet. */
function tried(sheet: unknown): Finding | undefined {
  try {
    return solve(sheet);
  } catch {
    return undefined;
  }
}
