import { CHECKS } from '../checks/registry.js';
import { seededRandom } from '../fit/random.js';
import type { Finding } from '../judging/finding.js';
import { solve } from '../solve/solve.js';
import { MODELS, practiceRound } from './models.js';

interface Raw {
  readonly readings: readonly Record<string, unknown>[];
}
const outs = ({ quantities }: Finding): string[] =>
  Object.entries(quantities).flatMap(([name, { verdict }]) => (verdict === 'out' ? [name] : []));

describe('forward models', () => {
  it('there is one for every check and none for another', () => {
    expect(Object.keys(MODELS).sort()).toEqual([...CHECKS.keys()].sort());
  });

  for (const id of CHECKS.keys()) {
    describe(id, () => {
      it('its truth comes back exactly when nothing is misread', () => {
        const wrong: string[] = [];
        for (let seed = 1; seed <= 60; seed++) {
          const { sheet, truth } = practiceRound(id, seed);
          const { quantities } = solve(sheet);
          for (const [name, value] of Object.entries(truth)) {
            const found = quantities[name]?.value ?? NaN;
            const room = 2e-3 * Math.max(1, Math.abs(value));
            if (!(Math.abs(found - value) < room)) wrong.push(`${name} is ${found}, in truth ${value}, seed ${seed}`);
          }
        }
        expect(wrong.slice(0, 3)).toEqual([]);
      });

      it('no beginning of a round on a perfect machine calls anything out, in any order of its readings', () => {
        const wrong: string[] = [];
        for (let seed = 1; seed <= 25; seed++) {
          const { sheet } = practiceRound(id, seed, { perfect: true });
          const { even } = seededRandom(seed);
          const { readings } = sheet as unknown as Raw;
          for (const order of [readings, [...readings].reverse(), shuffled(readings, even), shuffled(readings, even)])
            for (let taken = 0; taken <= order.length; taken++) {
              const finding = tried({ ...sheet, readings: order.slice(0, taken) });
              const out = finding ? [...outs(finding), ...finding.moves.map(({ kind }) => kind)] : [];
              if (out.length) wrong.push(`${out.join(', ')} after ${taken} of ${order.length}, seed ${seed}`);
            }
          wrong.push(...outs(solve(sheet)));
        }
        expect(wrong.slice(0, 3)).toEqual([]);
      });
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

function shuffled<T>(all: readonly T[], even: () => number): T[] {
  const rest = [...all];
  return all.map(() => rest.splice(Math.floor(even() * rest.length), 1)[0]);
}
