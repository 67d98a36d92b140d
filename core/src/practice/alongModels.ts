import { dialInstrument, dialReader } from './dial.js';
import { anyDial, hidden, honesty, sheetOf, type PracticeModel } from './model.js';

/**
 * An indicator carried along something that slopes and waves, against a reference that slopes and waves itself. The
 * reference is turned half round and read again: what is its own then comes with the other sign.
 */
export const alongModel =
  (check: string, { slope: most = 60, wave: height = 6, length = 400, places = 5 } = {}): PracticeModel =>
  (chance) => {
    const dial = anyDial(chance);
    const read = dialReader(dial, honesty(chance, dial));
    const [slope, wave] = [hidden(chance, most), hidden(chance, height)];
    const own = { slope: chance.random.between(-80, 80), bow: chance.random.between(-9, 9) };
    const rear = chance.random.even() < 0.3;
    const machine = (at: number) => (slope * at) / 1000 + wave * Math.cos((2 * Math.PI * at) / length);
    const reference = (at: number) => (own.slope * at) / 1000 + own.bow * Math.sin((Math.PI * at) / length);
    const along = Array.from({ length: places }, (_, i) => (length * i) / (places - 1));
    const readings = ([0, 180] as const).flatMap((turn) =>
      along.map((at) => ({ at, turn, value: read((rear ? -1 : 1) * (machine(at) + (turn === 0 ? reference(at) : -reference(at)))) })),
    );
    // The slope and what is left of it are those of the line through the places, by trying slopes.
    const heights = along.map(machine);
    const line = bestLine(along, heights);
    const left = heights.map((y, i) => y - line.at0 - line.slope * along[i]);
    return {
      sheet: sheetOf(check, dialInstrument(dial), rear ? { side: 'rear' } : {}, readings),
      truth: { slope: 1000 * line.slope, range: Math.max(...left) - Math.min(...left) },
    };
  };

/** The line with the least squares, found by stepping toward it: no formula of the solver. */
export function bestLine(x: readonly number[], y: readonly number[]): { slope: number; at0: number } {
  const middle = x.reduce((sum, value) => sum + value, 0) / x.length;
  const scale = Math.max(...x.map((value) => Math.abs(value - middle)));
  let [tilt, height] = [0, 0];
  for (let i = 0; i < 4000; i++) {
    let [a, b] = [0, 0];
    x.forEach((value, k) => {
      const u = (value - middle) / scale;
      const miss = y[k] - height - tilt * u;
      a += miss * u;
      b += miss;
    });
    tilt += (0.8 * a) / x.length;
    height += (0.8 * b) / x.length;
  }
  const slope = tilt / scale;
  return { slope, at0: height - slope * middle };
}
