import fc from 'fast-check';
import { FaultError } from '../input/faults.js';
import { seededRandom } from '../fit/random.js';
import { displacement, FRAMES, supportRow, type Pose, type Vector } from './pose.js';
import { planMove } from './registry.js';

interface Plan {
  readonly feasible: boolean;
  readonly obstacle?: string;
  readonly supports: Record<string, number>;
  readonly pose: Record<string, number>;
  readonly watch: Record<string, Record<string, number>>;
  readonly cost: number;
}
type Support = Record<string, unknown> & { id: string; at: Vector; normal: Vector };
const plan = (input: Record<string, unknown>) =>
  planMove({ format: 'isometra-move/1', move: 'supports', origin: [0, 100, 0], ...input }) as unknown as Plan;

const ROOT = Math.SQRT1_2;
/** A headstock on vee and flat: front and rear, three faces each. */
function headstock(allow: string, more: Record<string, unknown> = {}): Support[] {
  return [-40, -330].flatMap((z) => [
    { id: `inner${z}`, at: [z, 0, 91], normal: [0, ROOT, -ROOT], allow, ...more },
    { id: `outer${z}`, at: [z, 0, 109], normal: [0, ROOT, ROOT], allow, ...more },
    { id: `flat${z}`, at: [z, 0, -107], normal: [0, 1, 0], allow, ...more },
  ]) as Support[];
}
const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });

describe('a small movement', () => {
  it('a support feels what the body does at its place', () => {
    const vector = fc.tuple(number(300), number(300), number(300));
    fc.assert(
      fc.property(
        fc.tuple(number(50), number(50), number(50), number(100), number(100), number(100)),
        vector,
        fc.tuple(number(1), number(1), number(1)),
        (pose, arm, normal) => {
          const moved = displacement(pose as Pose, arm);
          const felt = supportRow(normal, arm).reduce((sum, row, i) => sum + row * pose[i], 0);
          expect(felt).toBeCloseTo(
            normal.reduce((sum, part, i) => sum + part * moved[i], 0),
            6,
          );
        },
      ),
    );
  });

  it('is named as people name it: free end up, top to the right, operator’s side high', () => {
    const pose = (frame: 'lathe' | 'mill', name: string): Pose =>
      FRAMES[frame].components.map(([known, sign]) => (known === name ? sign * 100 : 0)) as unknown as Pose;
    expect(displacement(pose('lathe', 'slopeV'), [1000, 0, 0])[1]).toBeCloseTo(100, 9);
    expect(displacement(pose('lathe', 'slopeH'), [1000, 0, 0])[2]).toBeCloseTo(100, 9);
    expect(displacement(pose('lathe', 'roll'), [0, 0, 1000])[1]).toBeCloseTo(100, 9);
    expect(displacement(pose('mill', 'leanX'), [0, 0, 1000])[0]).toBeCloseTo(100, 9);
    expect(displacement(pose('mill', 'leanY'), [0, 0, 1000])[1]).toBeCloseTo(-100, 9);
  });
});

describe('the support solver', () => {
  it('meets any wanted pose exactly and breaks no sign when it may shim and scrape', () => {
    fc.assert(
      fc.property(number(120), number(120), number(60), (slopeH, slopeV, lift) => {
        const found = plan({ frame: 'lathe', supports: headstock('either'), want: { slopeH, slopeV, lift, roll: 0 } });
        expect(found.feasible).toBeTrue();
        for (const [name, value] of Object.entries({ slopeH, slopeV, lift, roll: 0 })) expect(found.pose[name]).toBeCloseTo(value, 5);
        expect(found.pose['alongZ']).toBe(0);
      }),
      { numRuns: 40 },
    );
  });

  it('scraping alone is never dearer than many other ways to the same pose', () => {
    const random = seededRandom(3);
    for (let run = 0; run < 25; run++) {
      const want = { slopeH: random.between(-80, 80), slopeV: random.between(-80, 80), roll: 0 };
      const supports = headstock('scrape', { area: 400 });
      const found = plan({ frame: 'lathe', supports, want });
      expect(found.feasible).toBeTrue();
      for (const amount of Object.values(found.supports)) expect(amount).toBeLessThanOrEqual(0);
      let cheapest = Infinity;
      for (let i = 0; i < 4000; i++) {
        const pose: Pose = [0, random.between(-80, 20), random.between(-50, 50), 0, -want.slopeH, want.slopeV];
        const amounts = supports.map(({ at, normal }) =>
          supportRow(normal, [at[0], at[1] - 100, at[2]]).reduce((sum, row, k) => sum + row * pose[k], 0),
        );
        if (amounts.every((amount) => amount <= 0))
          cheapest = Math.min(
            cheapest,
            amounts.reduce((sum, amount) => sum - 400 * amount, 0),
          );
      }
      expect(found.cost).toBeLessThanOrEqual(cheapest + 1e-6);
    }
  });

  it('a vee lifts by t·sin β square to each flank', () => {
    const found = plan({ frame: 'lathe', supports: headstock('shim'), want: { lift: 30, slopeH: 0, slopeV: 0, roll: 0, shiftH: 0 } });
    expect(found.supports['inner-40']).toBeCloseTo(30 * ROOT, 5);
    expect(found.supports['flat-40']).toBeCloseTo(30, 5);
  });

  it('names the obstacle when a limit stands in the way, and plans without it', () => {
    const found = plan({ frame: 'lathe', supports: headstock('scrape', { max: 40 }), want: { lift: 25, slopeH: 10, slopeV: 0, roll: 0 } });
    expect(found.feasible).toBeFalse();
    expect(found.obstacle).toBe('lift');
    expect(found.pose['slopeH']).toBeCloseTo(10, 5);
    for (const amount of Object.values(found.supports)) expect(Math.abs(amount)).toBeLessThanOrEqual(40 + 1e-6);
  });

  it('least depth takes the largest amount down', () => {
    const want = { slopeV: 120, slopeH: 60, roll: 0 };
    const deepest = (prefer: string) =>
      Math.max(...Object.values(plan({ frame: 'lathe', supports: headstock('either'), want, prefer }).supports).map(Math.abs));
    expect(deepest('least-depth')).toBeLessThanOrEqual(deepest('least-metal') + 1e-6);
  });

  it('says what moves along', () => {
    const { watch, pose } = plan({
      frame: 'lathe',
      supports: headstock('scrape'),
      want: { slopeV: 60, slopeH: 0, roll: 0 },
      watch: [{ id: 'nose', at: [0, 100, 0] }],
    });
    expect(watch['nose']['v']).toBeCloseTo(pose['lift'], 6);
  });

  it('names what is wrong', () => {
    const good = headstock('scrape');
    const faults = (input: Record<string, unknown>) => {
      try {
        plan({ frame: 'lathe', supports: good, want: {}, ...input });
      } catch (error) {
        return (error as { faults: { path: string }[] }).faults.map((fault) => fault.path);
      }
      return [];
    };
    expect(faults({ want: { leanX: 3 } })).toEqual(['want.leanX']);
    expect(faults({ want: { slopeV: 'steep' } })).toEqual(['want.slopeV']);
    expect(faults({ supports: [...good, good[0]] })).toEqual(['supports']);
    expect(faults({ supports: [{ ...good[0], normal: [0, 2, 0], allow: 'glue' }] })).toEqual(['supports[0].normal', 'supports[0].allow']);
  });

  it('a want or a place beyond any machine is named, not planned', () => {
    const one = { id: 'a', at: [0, 0, 0], normal: [0, 0, 1], allow: 'scrape' };
    const faults = (more: object): string[] => {
      try {
        planMove({ format: 'isometra-move/1', move: 'supports', frame: 'mill', origin: [0, 0, 0], supports: [one], want: {}, ...more });
      } catch (error) {
        if (error instanceof FaultError) return error.faults.map((fault) => `${fault.path} ${fault.message}`);
        throw error;
      }
      return [];
    };
    expect(faults({ want: { leanX: 1e308 } })).toEqual(['want.leanX must be 1000000 um/m or less']);
    expect(faults({ origin: [0, 0, -1e9] })).toEqual(['origin[2] must be within 1000000 mm']);
    expect(faults({})).toEqual([]);
  });
});
