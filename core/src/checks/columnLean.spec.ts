import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import { CHECKS } from './registry.js';
import type { CheckDefinition } from './define.js';

/** A column that leans by `lean` and a square that is `error` out as it is first set up, µm/m, + where each would show to the right or you. */
interface Truth {
  readonly lean: number;
  readonly error: number;
}

/**
 * What a dial of one division to the µm shows that is carried up the column along the blade: the blade drifts away from the top as the
 * column leans one way; turned round, the square is out the other way; from the other side every reading turns its sign.
 */
function shown({ lean, error }: Truth, height: number, turned: boolean, farSide: boolean): number {
  const drift = (-lean + (turned ? 1 : -1) * error) * height;
  return ((farSide ? -1 : 1) * drift) / 1000;
}

const FAR = { x: 'left', y: 'column' } as const;
const NEAR = { x: 'right', y: 'operator' } as const;

describe('a column read on a square that is turned round', () => {
  const check = CHECKS.get('column-lean') as CheckDefinition;

  it('lean and error of the square come out apart, whichever edge is read then, each group from a zero of its own', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('x' as const, 'y' as const),
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: -300, max: 300 }),
        fc.boolean(),
        fc.boolean(),
        fc.integer({ min: -200, max: 200 }),
        (axis, lean, error, farFirst, farThen, zero) => {
          const side = (far: boolean) => (far ? FAR : NEAR)[axis];
          const setup = { side: { [axis]: side(farFirst) } };
          const plan = { heights: '0, 150, 300 mm', turned: true, [axis === 'x' ? 'overX' : 'overY']: side(farThen) };
          const slots = check.slots(check.setup.parse(setup), check.plan.parse(plan)).filter(({ keys }) => keys['axis'] === axis);
          const readings = slots.map(({ keys }) => {
            const turned = keys['flip'] === true;
            return {
              ...keys,
              value: shown({ lean, error }, keys['at'] as number, turned, turned ? farThen : farFirst) + (turned ? zero : 0),
            };
          });
          const instrument = { kind: 'plunger', graduation: '0.001 mm', sense: 1 };
          const found = solve({ format: 'isometra-sheet/1', check: 'column-lean', setup, instrument, readings });
          const name = axis === 'x' ? 'leanX' : 'leanY';
          expect(found.quantities[name].value).withContext('lean').toBeCloseTo(lean, 6);
          expect(Math.abs(found.quantities[axis === 'x' ? 'squareErrorX' : 'squareErrorY'].value)).toBeCloseTo(Math.abs(error), 6);
        },
      ),
    );
  });

  it('the step at which it is turned says on which side it is read then', () => {
    const asks = (plan: object) =>
      check
        .slots(check.setup.parse({ side: 'right' }), check.plan.parse({ turned: true, ...plan }))
        .flatMap(({ ask, keys }) => (ask?.includes('square') && keys['axis'] === 'x' ? [ask] : []));
    expect(asks({ overX: 'right' })).toEqual([
      'Turn the square round and set it up again. It is read on the right-hand side of its blade now.',
    ]);
    expect(asks({})).toEqual(['Turn the square round and set it up again. It is read on the left-hand side of its blade now.']);
  });
});
