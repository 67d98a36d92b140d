import { dialInstrument, dialReader } from './dial.js';
import { anyDial, hidden, honesty, sheetOf, type PracticeModel } from './model.js';

/** Direction of an angle, as a vector. */
const along = (angle: number): readonly [number, number] => [Math.cos(angle), Math.sin(angle)];

/**
 * A square of its own error laid roughly along one motion, its legs touched by a stylus that each motion carries;
 * then turned over. Everything is worked out from lines that meet, µm over mm.
 */
export const squareModel =
  (check: string): PracticeModel =>
  (chance) => {
    const dial = anyDial(chance);
    const read = dialReader(dial, honesty(chance, dial));
    const squareness = hidden(chance, 90);
    const [own, lies] = [chance.square ?? chance.random.between(-30, 30), chance.random.between(-60, 60)];
    const side = () => (chance.random.even() < 0.5 ? 1 : -1);
    const legs = (flip: boolean) => {
      const [onB, onA] = [side(), side()];
      const micro = 1e-6;
      // Turned over about its reference leg, the corner that was obtuse is acute.
      const corner = Math.PI / 2 + (flip ? -own : own) * micro;
      const [reference, test] = [along(lies * micro), along(lies * micro + corner)];
      const [a, b] = [along(0), along(Math.PI / 2 + squareness * micro)];
      // How far a leg stands off the line the stylus is carried along, µm to its left: the left of a is +B, that of b −A.
      const off = (leg: readonly [number, number], way: readonly [number, number], at: number) =>
        (1000 * at * (way[0] * leg[1] - way[1] * leg[0])) / (way[0] * leg[0] + way[1] * leg[1]);
      const stylus = { reference: onB > 0 ? '+B' : '-B', test: onA > 0 ? '+A' : '-A' };
      return [
        ...[0, 120, 260].map((at) => ({ leg: 'reference', at, flip, stylus, value: read(onB * off(reference, a, at)) })),
        ...[0, 110, 240].map((at) => ({ leg: 'test', at, flip, stylus, value: read(-onA * off(test, b, at)) })),
      ];
    };
    return {
      sheet: sheetOf(check, dialInstrument(dial), {}, [...legs(false), ...legs(true)]),
      truth: { squareness, squareError: own },
    };
  };
