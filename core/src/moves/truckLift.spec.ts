import fc from 'fast-check';
import { stepsOf } from '../testing/jobs.js';
import { MOVES, planMove } from './registry.js';

interface Plan {
  readonly shim: number;
  readonly end: 'left' | 'right' | 'front' | 'rear';
  readonly leaves?: readonly number[];
  readonly residual?: number;
}
const plan = (input: object): Plan => planMove({ format: 'isometra-move/1', move: 'truck-lift', ...input }) as unknown as Plan;

/**
 * A stiff table on trucks at x = ±spacing/2 (right +) or y (toward the column +), mm, with a shim, µm, under one end: its slope then,
 * + where it rises to the right or toward the column, µm/m, from the heights of two places on it.
 */
function lifted(slope: number, spacing: number, end: Plan['end'], shim: number): number {
  const height = { plus: 0, minus: 0, [end === 'right' || end === 'rear' ? 'plus' : 'minus']: shim };
  const at = (place: number): number =>
    (slope * place) / 1000 + height.minus + ((height.plus - height.minus) * (place + spacing / 2)) / spacing;
  return (1000 * (at(150) - at(-150))) / 300;
}

describe('shims at the trucks', () => {
  it('bring the table level whichever way it is out, on either pair of rails', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -400, max: 400, noNaN: true }).filter((value) => Math.abs(value) > 1),
        fc.double({ min: 100, max: 1500, noNaN: true }),
        fc.constantFrom('x' as const, 'y' as const),
        (slope, spacing, along) => {
          const { shim, end } = plan({ slope: -slope, spacing, along });
          expect(along === 'x' ? ['left', 'right'] : ['front', 'rear']).toContain(end);
          expect(lifted(slope, spacing, end, shim)).toBeCloseTo(0, 6);
          expect(MOVES.get('truck-lift')?.does?.({ spacing }, { shim, end })).toBeCloseTo(-slope, 6);
        },
      ),
    );
  });

  it('by hand: falling to the right by 80 µm/m on trucks 400 mm apart, 32 µm under the right end', () => {
    const stock = [{ thickness: '0.01 mm', count: 5 }];
    const found = plan({ slope: '80 um/m', spacing: '400 mm', along: 'x', stock });
    expect(found).toEqual(jasmine.objectContaining({ end: 'right', leaves: [10, 10, 10] }));
    expect(found.shim).toBeCloseTo(32, 9);
    expect(found.residual).toBeCloseTo(5, 9);
  });

  it('says on which body and at which end, and never speaks of a gib, a way or a scraper', () => {
    const said = stepsOf('truck-lift', {
      plan: { shim: 32, end: 'rear', leaves: [30] },
      part: { name: 'table', faces: '', onTrucks: { body: 'saddle', along: 'y' } },
    })
      .map(({ text }) => text)
      .join(' ');
    expect(said).toContain('between the saddle and each of the trucks at its rear end');
    expect(said).not.toMatch(/\bgib|scrape|\bways\b/i);
  });

  it('rails of no known axis are refused by name', () => {
    expect(() => plan({ slope: 10, spacing: 400, along: 'z' })).toThrowMatching((error: Error) => error.message.includes('along'));
  });
});
