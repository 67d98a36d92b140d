import fc from 'fast-check';
import { MOVE_FORMAT, MOVES, planMove } from './registry.js';
import { stepsOf } from '../testing/jobs.js';

interface Plan {
  readonly shim: number;
  readonly truck: 'rear' | 'front';
  readonly leaves?: readonly number[];
  readonly residual?: number;
  readonly finest?: number;
}
const plan = (input: object): Plan => planMove({ format: 'isometra-move/1', move: 'trucks', ...input }) as unknown as Plan;

/**
 * A slide on two trucks of its master rail, seen from above: x to the right, y toward the column. A shim between a truck
 * and a shoulder on its left pushes that end of the slide to the right. The motion along y turns with it.
 * Returns by how much the motion runs off to the left toward the column afterwards, + obtuse, µm/m.
 */
function shimmed(squareness: number, spacing: number, shoulder: 'left' | 'right', truck: 'rear' | 'front', shim: number): number {
  const right = shim * (shoulder === 'left' ? 1 : -1);
  const [rear, front] = truck === 'rear' ? [right, 0] : [0, right];
  return squareness - (1000 * (rear - front)) / spacing;
}

describe('a shim at a truck', () => {
  it('brings the motions square, whichever way they are out and wherever the shoulder is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -400, max: 400, noNaN: true }).filter((value) => Math.abs(value) > 1),
        fc.double({ min: 100, max: 900, noNaN: true }),
        fc.constantFrom('left' as const, 'right' as const),
        (squareness, spacing, shoulder) => {
          const { shim, truck } = plan({ slope: -squareness, spacing, shoulder });
          expect(shim).toBeGreaterThan(0);
          expect(shimmed(squareness, spacing, shoulder, truck, shim)).toBeCloseTo(0, 6);
        },
      ),
    );
  });

  it('by hand: 132 µm/m obtuse, trucks 300 mm apart, shoulder on the left: 39.6 µm in the rear one', () => {
    const stock = [
      { thickness: '0.03 mm', count: 2 },
      { thickness: '0.01 mm', count: 2 },
    ];
    const found = plan({ slope: -132, spacing: 300, shoulder: 'left', stock });
    expect([found.truck, found.leaves]).toEqual(['rear', [30, 10]]);
    expect(found.shim).toBeCloseTo(39.6, 9);
    expect(found.residual).toBeCloseTo((1000 * -0.4) / 300, 6);
    expect(plan({ slope: -132, spacing: 300, shoulder: 'right' }).truck).toBe('front');
    expect(plan({ slope: 132, spacing: 300, shoulder: 'left' }).truck).toBe('front');
  });

  it('one thou over 12 in is 83 µm/m: coarser than the limit, and told', () => {
    expect(plan({ slope: -70, spacing: '12 in', shoulder: 'left', stock: [{ thickness: '1 thou', count: 5 }] }).finest).toBeCloseTo(
      83.33,
      2,
    );
  });

  it('its card slackens the followers first and tightens them last, and reads what else may have moved', () => {
    const facts = {
      size: '0.04 mm in 300 mm',
      direction: 'to the right at the column end',
      plus: false,
      plan: { truck: 'rear', leaves: [30, 10] },
    };
    const steps = stepsOf('trucks', facts).map(({ text }) => text);
    const at = (words: string) => steps.findIndex((text) => text.includes(words));
    expect(at('Loosen the bolts of the trucks on the other rail')).toBeLessThan(at('Lay in 0.030 mm + 0.010 mm between the rear truck'));
    expect(at('then tighten the followers')).toBeGreaterThan(at('trucks of the master rail against their shoulder'));
    expect(at('Nothing else may have moved')).toBe(steps.length - 3);
  });

  it('a strip bolted to a saddle on scraped ways is packed at the end where a truck would be; only where the card tells of one', () => {
    const asked = { slope: '-130 um/m', spacing: '300 mm', shoulder: 'right' };
    const strip = planMove({ format: MOVE_FORMAT, move: 'way-shims', ...asked });
    const truck = planMove({ format: MOVE_FORMAT, move: 'trucks', ...asked });
    expect({ ...strip, move: '' }).toEqual({ ...truck, move: '' });
    expect(strip['truck']).toBe('front');
    const wayShims = MOVES.get('way-shims');
    expect(wayShims?.hardware?.({ card: {} })).toBeUndefined();
    const told = (strip: object) => wayShims?.hardware?.({ card: { strip: { length: 300, side: 'left', ...strip } } });
    expect(told({ pushes: 'away' })).toEqual({ spacing: 300, shoulder: 'left' });
    // A strip that reaches round the way pulls the saddle to its own side: the other end takes the shim.
    expect(told({ pushes: 'toward' })).toEqual({ spacing: 300, shoulder: 'right' });
    // Nobody said which way it pushes: it is asked, and nothing is planned.
    expect(told({})).toEqual({ spacing: 300 });
    // Which side it is on decides the end: without it there is no plan.
    const open = MOVES.get('trucks')?.hardware?.({ card: { trucks: { spacing: 300 } }, has: ['trucks'] });
    expect(open).toEqual({ spacing: 300 });
    expect(() => planMove({ format: MOVE_FORMAT, move: 'trucks', slope: '-130 um/m', ...open })).toThrowMatching(
      (error) => error.faults[0].path === 'shoulder',
    );
    const packed = stepsOf('way-shims', { plan: { truck: 'front', leaves: [40] } });
    expect(packed.some(({ text }) => text.includes('lay 0.040 mm behind its front end'))).toBeTrue();
  });
});
