import { dialInstrument, dialReader, type Imperfection, type PracticeDial } from './dial.js';

type RawSheet = Record<string, unknown>;

/** Where a practice head and column truly lean, µm/m: + right, + toward the operator. */
export interface MillTruth {
  readonly x: number;
  readonly y: number;
}

/** A sweep over the table by a spindle that leans: height of the stylus circle over the table, no formula of the solver. */
export function headTramSheet(
  truth: MillTruth,
  radius: number,
  angles: readonly number[],
  dial: PracticeDial,
  pivotDistance?: number,
  imperfection?: Imperfection,
): RawSheet {
  const read = dialReader(dial, imperfection);
  const axis = [truth.x / 1e6, -truth.y / 1e6, 1];
  const readings = angles.map((angle) => {
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    // The arm is square to the axis: its tip hangs lower on the side the axis leans away from.
    const tip = -(c * axis[0] + s * axis[1]) * radius;
    return { angle, value: read(-1000 * tip) };
  });
  return {
    format: 'isometra-sheet/1',
    check: 'head-tram',
    instrument: dialInstrument(dial),
    setup: { radius, ...(pivotDistance && { pivotDistance }) },
    readings,
  };
}

/** A column that carries the indicator up along a square's blade with an error of its own (µm/m, + obtuse). */
export function columnLeanSheet(
  truth: MillTruth,
  square: number,
  heights: readonly number[],
  dial: PracticeDial,
  sides: { x: 'right' | 'left'; y: 'operator' | 'column' },
  known: boolean,
  imperfection?: Imperfection,
): RawSheet {
  const read = dialReader(dial, imperfection);
  const readings = (['x', 'y'] as const).flatMap((axis) =>
    heights.map((at) => {
      // Going up the indicator moves right (x) or toward the column (y); the blade leans away from a right angle by its error.
      const carried = axis === 'x' ? (truth.x * at) / 1000 : (-truth.y * at) / 1000;
      const blade = (-square * at) / 1000;
      const gap = blade - carried;
      const right = axis === 'x' ? sides.x === 'right' : sides.y === 'column';
      return { axis, at, value: read(right ? gap : -gap) };
    }),
  );
  const setup = { side: sides, ...(known && { squareError: { x: square, y: square } }) };
  return { format: 'isometra-sheet/1', check: 'column-lean', instrument: dialInstrument(dial), setup, readings };
}
