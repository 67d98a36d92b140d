import { alongLine, drawnOff, figure, profileOf, type MethodMark } from './model.js';
import { iron, mark, moved, profile, reading, seat, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 60;
const RIGHT = 660;
const ROW = 72;

interface Placed {
  readonly mark: MethodMark;
  readonly x: number;
  readonly y: number;
}

interface Row {
  readonly name: string;
  readonly places: readonly Placed[];
  /** What was read along the row, as a shape; empty where the places have no travel. */
  readonly profile: string;
}

/** Keys that make rows of their own: which plane, which way round, which leg. Places along each row by `at`. */
const ALONG = 'at';

/** What a row is called: the words of all keys but the place. */
const rowOf = (one: MethodMark): string =>
  Object.entries(one.keys)
    .filter(([key]) => key !== ALONG)
    .map(([, value]) =>
      value === true ? 'flipped' : value === false ? '' : typeof value === 'number' ? String(Number(value.toFixed(2))) : value,
    )
    .filter(Boolean)
    .join(', ');

/**
 * Places along a travel, a row for each way of reading: for checks whose places lie along a line, and
 * for those that have no place but a name. Readings stand beside their marks.
 */
export function places({ marks }: MethodInputs): Scene {
  const rows = new Map<string, MethodMark[]>();
  for (const one of marks) {
    const name = rowOf(one);
    rows.set(name, [...(rows.get(name) ?? []), one]);
  }
  const off = drawnOff(marks, 8, rowOf);
  const all = joined(
    [...rows].map(([name, own]) => {
      const placed = placedAlong(own, off);
      return { name, places: placed, profile: own.every(({ keys }) => ALONG in keys) ? profileOf(placed) : '' };
    }),
  );
  return {
    height: 40 + all.length * ROW,
    told: 'Places to read',
    of: all.map((row, i) =>
      moved(0, 46 + i * ROW, [
        words(8, -22, row.name),
        iron('M40 9H680V19H40Z'),
        profile(row.profile),
        ...row.places.map(({ mark: one, x, y }) => mark(one, x, y, [seat('M0 0 8 -15H-8Z'), reading(0, 36 - y, figure(one.text))])),
      ]),
    ),
  };
}

/** Rows of one mark each share a line: places that have a name but no travel. */
function joined(rows: readonly Row[]): readonly Row[] {
  if (rows.length < 4 || rows.some((row) => row.places.length > 1)) return rows;
  const all = rows.flatMap((row) => row.places);
  return [{ name: '', places: all.map((place, i) => ({ ...place, x: LEFT + ((RIGHT - LEFT) * (i + 0.5)) / all.length })), profile: '' }];
}

/** Places along the travel; what came toward the stylus is drawn higher. */
function placedAlong(marks: readonly MethodMark[], off: ReadonlyMap<MethodMark, number>): Placed[] {
  const x = alongLine(marks, LEFT, RIGHT);
  return marks.map((one, i) => ({ mark: one, x: x[i], y: -(off.get(one) ?? 0) }));
}
