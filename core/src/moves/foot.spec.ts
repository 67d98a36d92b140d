import fc from 'fast-check';
import { CHECKS } from '../checks/registry.js';
import type { CheckDefinition } from '../checks/define.js';
import { solve } from '../solve/solve.js';
import { MOVES } from './registry.js';
import { stepsOf } from '../testing/jobs.js';

const column = CHECKS.get('column-lean') as CheckDefinition;
const card = { foot: { across: 180, along: 240 } };

/** A column read on the right of the blade and on the operator's side, leaning so many µm/m; the square is known true. */
const read = (leanX: number, leanY: number, hardware: object) =>
  solve({
    format: 'isometra-sheet/1',
    check: 'column-lean',
    instrument: { kind: 'lever', graduation: '0.001 mm', sense: 1 },
    setup: { squareError: { x: 0, y: 0 }, side: { x: 'right', y: 'operator' } },
    readings: (['x', 'y'] as const).flatMap((axis) =>
      [0, 300].map((at) => ({ axis, at, value: (-(axis === 'x' ? leanX : leanY) * at) / 1000 })),
    ),
    hardware,
  });

describe('the foot of a column', () => {
  const strips = MOVES.get('step-scrape')?.hardware?.({ card, part: column.part });
  const stock = [{ thickness: 10, count: 9 }];
  const leaves = MOVES.get('shim-leaves')?.hardware?.({ card, part: column.part, stock });

  it('is another length for each lean: as wide as it is, as deep as it is', () => {
    expect(strips).toEqual({ ways: { leanX: 180, leanY: 240 }, passDepth: 5, blade: 20 });
    expect(MOVES.get('step-scrape')?.hardware?.({ card, part: CHECKS.get('vice-parallelism')?.part })).toBeUndefined();
    fc.assert(
      fc.property(fc.double({ min: 150, max: 500, noNaN: true }), fc.double({ min: 150, max: 500, noNaN: true }), (leanX, leanY) => {
        const { moves } = read(leanX, leanY, { 'step-scrape': strips });
        for (const [quantity, lean, length] of [
          ['leanX', leanX, 180],
          ['leanY', leanY, 240],
        ] as const) {
          const move = moves.find((entry) => entry.quantity === quantity) as unknown as { readonly tilt: number };
          // What the strips take off turns it by what was wanted, to half a pass over the foot.
          expect(Math.abs(move.tilt - (lean * length) / 1000)).toBeLessThanOrEqual(2.5);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('by hand: 200 µm/m over 180 mm is 36 µm of shim: four leaves of ten are nearest', () => {
    const [move] = read(200, 0, { 'shim-leaves': leaves }).moves as unknown as { readonly leaves: readonly number[] }[];
    expect(move.leaves).toEqual([10, 10, 10, 10]);
  });

  it('its cards say which side comes up and where the metal goes', () => {
    const facts = {
      size: '0.06 mm in 300 mm',
      direction: 'left at the top',
      plus: false,
      part: column.part,
      raise: 'the right side',
      lower: 'the left side',
    };
    const words = (kind: string) =>
      stepsOf(kind, facts)
        .map(({ text }) => text)
        .join(' ');
    expect(words('shim-leaves')).toContain('under the right side, at both corners, nothing under the left side');
    expect(words('step-scrape')).toContain('the most at the left side, nothing at the right side');
    // To bring the top to the left the right side comes up.
    expect(column.quantities['leanX'].words?.raised).toEqual(['the left side', 'the right side']);
  });
});
