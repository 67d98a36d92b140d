import { seededRandom, type Random } from '../fit/random.js';
import { solve } from '../solve/solve.js';
import { spindleAxisSheet } from './lathe.js';
import { columnLeanSheet } from './mill.js';
import { practiceRound } from './models.js';
import { traverseSheet } from './tailstock.js';

const ROUNDS = 1000;
const dial = { kind: 'lever', graduation: 2, sense: 1, accuracy: 1 } as const;

interface Told {
  readonly sheet: unknown;
  readonly name: string;
  readonly truth: number;
}

/** Whether U covers the truth in 95 of 100 rounds, without being more than three times what the errors come to. */
function covers(round: (random: Random, seed: number) => Told): void {
  const errors: number[] = [];
  const doubts: number[] = [];
  for (let seed = 1; seed <= ROUNDS; seed++) {
    const { sheet, name, truth } = round(seededRandom(seed), seed);
    const { value, expanded } = solve(sheet).quantities[name];
    errors.push(Math.abs(value - truth));
    doubts.push(expanded ?? NaN);
  }
  expect(errors.filter((error, i) => error <= doubts[i]).length / ROUNDS).toBeGreaterThanOrEqual(0.95);
  const at95 = [...errors].sort((a, b) => a - b)[Math.floor(0.95 * ROUNDS)];
  expect([...doubts].sort((a, b) => a - b)[ROUNDS >> 1]).toBeLessThanOrEqual(3 * at95);
}

describe('U covers what the artefacts hide', () => {
  it('a square without a certificate, not flipped', () => {
    covers((random, seed) => {
      const { sheet, truth } = practiceRound('axis-squareness', seed, { repeat: 0.2, square: random.between(-25, 25) });
      const readings = (sheet['readings'] as { flip: boolean }[]).filter(({ flip }) => !flip).map(({ flip: _flip, ...reading }) => reading);
      return { sheet: { ...sheet, readings }, name: 'squareness', truth: truth['squareness'] };
    });
  });

  it('a column read along a square without a certificate', () => {
    covers((random) => {
      const truth = { x: random.between(-90, 90), y: random.between(-90, 90) };
      const sheet = columnLeanSheet(truth, random.between(-25, 25), [0, 150, 300], dial, { x: 'right', y: 'operator' }, false, {
        random,
        repeat: 0.4,
      });
      return { sheet, name: 'leanX', truth: truth.x };
    });
  });

  it('a drawn rod that is not even', () => {
    covers((random) => {
      const truth = { slopeH: random.between(-90, 90), slopeV: random.between(-90, 90), bend: 15, twistPerMetre: 0 };
      const uneven = new Map([20, 280].map((at) => [at, random.between(-3, 3)]));
      const sheet = spindleAxisSheet(truth, {
        bar: { diameter: 20, freeLength: 300 },
        places: [20, 280],
        uneven: (at) => uneven.get(at) ?? 0,
        dial,
        imperfection: { random, repeat: 0.4 },
      });
      return { sheet, name: 'slopeH', truth: truth.slopeH };
    });
  });

  for (const sets of [1, 2, 3, 4])
    it(`a bar seated ${sets} time${sets > 1 ? 's' : ''}, a little elsewhere each time`, () => {
      covers((random) => {
        const truth = { offsetHorizontal: random.between(-60, 60), offsetVertical: 10 };
        const seated = Array.from({ length: sets }, (_, i) => {
          const sheet = traverseSheet(
            { ...truth, offsetHorizontal: truth.offsetHorizontal + 1.5 * random.normal() },
            { centreDistance: 500, stations: [25, 475], bar: { diameter: 32 }, dial, imperfection: { random, repeat: 0.4 } },
          );
          return { sheet, readings: (sheet['readings'] as object[]).map((reading) => ({ ...reading, set: i + 1 })) };
        });
        return {
          sheet: { ...seated[0].sheet, readings: seated.flatMap(({ readings }) => readings) },
          name: 'offsetHorizontal',
          truth: truth.offsetHorizontal,
        };
      });
    });

  it('two set-ups that differ by a few µm do not make a good call worthless', () => {
    const side = (at: number, value: string, set: number) => ({ plane: 'h', at, value, set });
    const { expanded } = solve({
      format: 'isometra-sheet/1',
      check: 'tailstock-traverse',
      instrument: { kind: 'lever', graduation: '0.5 thou', sense: 1 },
      setup: { centreDistance: '14 in', bar: { diameter: '1.25 in' } },
      readings: [side(18, '0 div', 1), side(338, '4 div', 1), side(18, '0 div', 2), side(338, '5 div', 2)],
    }).quantities['offsetHorizontal'];
    // It was ± 7 thou once: 12.7 times the half difference.
    expect((expanded ?? NaN) / 25.4).toBeLessThan(1.5);
  });
});
