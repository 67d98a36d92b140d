import fc from 'fast-check';
import { planeToScrape } from './planeToScrape.js';
import { joinBites, type BitePlace } from './bites.js';

const AT = [0, 50, 100, 150, 200, 250, 300, 350, 400];
/** A bite: heights over a straightedge that lies anyhow over its places. */
const bite = (height: (at: number) => number, from: number, to: number, zero = 0, lean = 0, noise = () => 0): BitePlace[] =>
  AT.filter((at) => at >= from && at <= to).map((at) => ({ at, height: height(at) - zero - (lean * at) / 1000 + noise(), doubt: 1 }));

describe('two bites of a short straightedge', () => {
  const step = (at: number) => (at >= 225 ? 15 : 0);

  it('a step of 15 µm in the middle comes back whole, however the straightedge lay the second time', () => {
    const joined = joinBites(bite(step, 0, 250), bite(step, 150, 400, 40, 180));
    expect(joined?.map(({ at }) => at)).toEqual(AT);
    for (const { at, height } of joined ?? []) expect(height).withContext(`${at}`).toBeCloseTo(step(at), 9);
    // Down to one plane without tilt: all of the step, on the high side only.
    const points = (joined ?? []).map(({ at, height }) => ({ x: at, y: 0, height, doubt: 0, bear: true }));
    expect(planeToScrape(points, { x: 0, y: 0 })?.depths.map(Math.round)).toEqual([0, 0, 0, 0, 0, 15, 15, 15, 15]);
  });

  it('places beyond the overlap are known less well, the further the less', () => {
    const doubts = joinBites(bite(step, 0, 250), bite(step, 150, 400))?.map(({ doubt }) => doubt) ?? [];
    expect(doubts.slice(0, 6)).toEqual([1, 1, 1, 1, 1, 1]);
    expect(doubts[6]).toBeGreaterThan(1.5);
    expect(doubts[7]).toBeGreaterThan(doubts[6]);
    expect(doubts[8]).toBeGreaterThan(doubts[7]);
  });

  it('without two places in common nothing is joined', () => {
    expect(joinBites(bite(step, 0, 150), bite(step, 200, 400))).toBeUndefined();
    expect(joinBites(bite(step, 0, 200), bite(step, 200, 400))).toBeUndefined();
  });

  it('any face, any lie of the straightedge: the truth lies within the doubt', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -20, max: 20, noNaN: true }), { minLength: 9, maxLength: 9 }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -200, max: 200, noNaN: true }),
        fc.infiniteStream(fc.double({ min: -0.5, max: 0.5, noNaN: true })),
        (heights, zero, lean, stream) => {
          const height = (at: number) => heights[AT.indexOf(at)];
          const noise = (): number => stream.next().value as number;
          const joined = joinBites(bite(height, 0, 250, 0, 0, noise), bite(height, 150, 400, zero, lean, noise)) ?? [];
          for (const { at, height: found, doubt } of joined) expect(Math.abs(found - height(at))).toBeLessThanOrEqual(1.5 * doubt);
        },
      ),
      { numRuns: 80 },
    );
  });
});
