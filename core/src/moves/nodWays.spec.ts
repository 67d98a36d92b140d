import fc from 'fast-check';
import { crossOrder, headScrews, headSteps } from './headSteps.js';
import { meanPivot, nodOf, nodTarget, nodTravel, nodWays, type Sides } from './nodWays.js';
import { planMove } from './registry.js';
import { METRIC_WORDS } from './registry.js';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A spindle nose on a pin P behind it: turned by µm/m, each side falls by its own distance from the pin. */
const turned = (now: Sides, by: number, pivot: number, radius: number): Sides => ({
  operator: now.operator + (by * (pivot + radius)) / 1000,
  column: now.column + (by * (pivot - radius)) / 1000,
});

describe('a head that nods on a pin behind the spindle', () => {
  it('is square when the watched side reads its target, whichever side is watched', () => {
    fc.assert(
      fc.property(
        number(40, 300),
        number(50, 900),
        number(-200, 200),
        number(-200, 200),
        number(-60, 60),
        (radius, pivot, operator, column, aim) => {
          const facts = { radius, pivot, now: { operator, column }, limit: 65, aim };
          const target = nodTarget(facts);
          const after = turned(facts.now, aim - nodOf(facts.now, radius), pivot, radius);
          expect(target.operator).toBeCloseTo(after.operator, 6);
          expect(target.column).toBeCloseTo(after.column, 6);
          expect(nodOf(after, radius)).toBeCloseTo(aim, 6);
          expect(nodTravel(facts).operator).toBeCloseTo(Math.abs(after.operator - operator), 6);
        },
      ),
    );
  });

  it('by hand: R 110, P 450, 120 and −40: the target lies past zero, at −287.3', () => {
    const facts = { radius: 110, pivot: 450, now: { operator: 120, column: -40 }, limit: 65 };
    expect(nodTarget(facts).operator).toBeCloseTo(120 - (160 * 560) / 220, 6);
    expect(nodTarget(facts).operator).toBeCloseTo(-287.27, 2);
    expect(nodTarget(facts).column).toBeCloseTo(-40 - (160 * 340) / 220, 6);
  });

  it('the classic way takes the rounds that the simulated head takes, halving more, one move one', () => {
    fc.assert(
      fc.property(number(50, 150), number(160, 900), number(30, 200), (radius, pivot, operator) => {
        const limit = 65;
        const [one, classic, halving] = nodWays({ radius, pivot, now: { operator, column: -operator }, limit });
        let now: Sides = { operator: 2 * operator, column: 0 };
        let rounds = 0;
        while (Math.abs(nodOf(now, radius)) > limit && rounds < 13) {
          // The operator's side to zero by the screw, the column side zeroed by the table.
          now = turned(now, (-1000 * now.operator) / (pivot + radius), pivot, radius);
          now = { operator: now.operator - now.column, column: 0 };
          rounds += 1;
        }
        expect(classic.rounds).toBe(rounds <= 12 ? rounds : null);
        expect(one.rounds ?? 99).toBeLessThanOrEqual(1);
        expect(halving.rounds ?? 99).toBeGreaterThanOrEqual(classic.rounds ?? 99);
      }),
    );
  });

  it('nothing is promised of going round and round where the pivot lies within the sweep', () => {
    const [one, classic] = nodWays({ radius: 150, pivot: 100, now: { operator: 200, column: -200 }, limit: 65 });
    expect([one.rounds, classic.rounds]).toEqual([1, null]);
  });

  it('two strokes learn what one taught roughly, weighed by their doubts', () => {
    const truth = { radius: 110, pivot: 450 };
    const before = { operator: 120, column: -40 };
    const after = turned(before, -300, truth.pivot, truth.radius);
    const plan = planMove({ format: 'isometra-move/1', move: 'tram-pivot', radius: 110, rounds: [{ before, after }], doubt: 1 }) as {
      pivot: number;
      doubt: number;
    };
    expect(plan.pivot).toBeCloseTo(450, 6);
    expect(meanPivot([plan, { pivot: 470, doubt: plan.doubt }])?.pivot).toBeCloseTo(460, 6);
    expect(meanPivot([])).toBeUndefined();
  });
});

describe('the bolts of a head', () => {
  it('are tightened crosswise', () => {
    expect(crossOrder(4)).toEqual([1, 3, 2, 4]);
    expect(crossOrder(6)).toEqual([1, 4, 2, 5, 3, 6]);
    expect(crossOrder(3).length).toBe(3);
  });

  it('are eased and never freed, and the needle rules, not the scale', () => {
    const facts = { size: '60 µm/m', direction: 'left at the top', plus: false, needle: 'from 0 to 3 div' };
    const steps = headSteps({ ...facts, plan: {}, card: { head: { bolts: 4 } }, words: METRIC_WORDS });
    expect(steps.find(({ caution }) => caution?.includes('never free'))?.text).toContain('half a turn');
    expect(steps.find(({ needle }) => needle)?.text).toContain('left at the top, until the needle reads its target');
    expect(steps.find(({ shift }) => shift)?.text).toContain('bolts 1, 3, 2, 4');
    expect(headScrews({ head: { nodOver: 250, nodPitch: 2 } })).toEqual({ ways: { nod: { over: 250, pitch: 2 } } });
    expect(headScrews({})).toBeUndefined();
  });
});
