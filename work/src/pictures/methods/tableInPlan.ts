import { alongLine, drawnOff, figure, profileOf, type MethodMark } from './model.js';
import {
  circle,
  iron,
  mark,
  profile,
  reading,
  seat,
  thin,
  tile,
  vial,
  words,
  type MethodInputs,
  type Scene,
  type SceneNode,
  type SceneWords,
} from './scene.js';

/** Ends of a run as drawn: along x from left to right, along y from the operator to the column. */
const RUN = { x: [150, 570], y: [246, 70] } as const;
/** Where the run lies, square to it: on the table, in the slot, on the jaw, beside the edge. */
const LIES: Readonly<Record<string, number>> = { table: 158, slot: 158, jaw: 148, edge: 158 };
/** From the line of a run to the marks on one of its sides. */
const BESIDE = 17;
const OFF = 8;

interface Placed {
  readonly mark: MethodMark;
  readonly x: number;
  readonly y: number;
  /** Where its label stands, and which way its stylus points. */
  readonly label: { readonly x: number; readonly y: number; readonly anchor: SceneWords['anchor'] };
  readonly turn: number;
}

/** What is read on the table, and along which of its motions. */
interface Run {
  readonly shows: string;
  readonly along: 'x' | 'y';
  readonly inputs: MethodInputs;
}

/**
 * The table of a mill from above, the operator at the bottom and the column at the top, with what is read on it: the table
 * itself along one of its motions, its middle slot, the fixed jaw of a vice, a straightedge, or a level laid both ways.
 */
export function tableInPlan(inputs: MethodInputs): Scene {
  const run: Run = {
    shows: inputs.picture.words?.['shows'] ?? 'table',
    along: inputs.picture.words?.['along'] === 'y' ? 'y' : 'x',
    inputs,
  };
  // Whether rows lie beside each other.
  const grid = new Set(inputs.marks.map(({ keys }) => keys['across'] ?? 0)).size > 1;
  const rows = grid ? [onGrid(run)] : rowsOf(run);
  const places = rows.flat();
  const round = run.shows === 'table' || run.shows === 'level';
  return {
    height: 316,
    told: 'Table from above, with the places to read',
    of: [
      words(8, 16, 'from above'),
      iron('M290 20H430V40H290Z'),
      words(440, 36, 'column'),
      iron('M110 44H610V272H110Z', { opacity: 0.5 }),
      thin('M110 100H610M110 108H610M110 154H610M110 162H610M110 208H610M110 216H610'),
      words(104, 162, 'left', 'end'),
      words(616, 162, 'right'),
      words(360, 306, 'you', 'middle'),
      ...laidOn(run),
      ...(grid ? tilesOf(places) : []),
      ...(grid || run.shows === 'level' ? [] : rows.map((row) => profile(profileOf(row)))),
      ...places.map(({ mark: one, x, y, turn, label }) =>
        mark(one, x, y, [
          round ? circle('seat', 7) : seat('M0 0 8 15H-8Z', { at: { turn: [turn] } }),
          reading(label.x, label.y, figure(one.text), label.anchor),
        ]),
      ),
    ],
  };
}

/** What lies on the table. */
function laidOn({ shows, along }: Run): readonly SceneNode[] {
  if (shows === 'slot') return [iron('M110 152H610V164H110Z')];
  if (shows === 'jaw') return [iron('M140 96H580V140H140Z M140 176H580V214H140Z'), thin('M200 140V176M520 140V176')];
  if (shows === 'edge') return [iron(along === 'x' ? 'M130 151H590V165H130Z' : 'M353 56H367V260H353Z')];
  if (shows === 'level') return [iron('M190 148H350V168H190Z M450 82H470V236H450Z'), vial('M250 153H290V163H250Z M455 139H465V179H455Z')];
  return [];
}

/** Places of a grid where they lie on the table: along x to the right, along y toward the column. */
function onGrid({ along, inputs: { marks } }: Run): Placed[] {
  const [first, second] = along === 'x' ? [RUN.x, RUN.y] : [RUN.y, RUN.x];
  const a = alongLine(marks, first[0], first[1]);
  const b = alongLine(
    marks.map((one) => ({ ...one, keys: { at: Number(one.keys['across'] ?? 0) } })),
    second[0],
    second[1],
  );
  return marks.map((one, i) => {
    const [x, y] = along === 'x' ? [a[i], b[i]] : [b[i], a[i]];
    return { mark: one, x, y, label: { x: 0, y: 24, anchor: 'middle' }, turn: 0 };
  });
}

/** The map: the higher a place, the bluer its tile. */
function tilesOf(places: readonly Placed[]): readonly SceneNode[] {
  const read = places.filter(({ mark: one }) => one.deviation !== null);
  const heights = read.map(({ mark: one }) => one.deviation ?? 0);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  return read.map(({ x, y }, i) => {
    const part = high > low ? (heights[i] - low) / (high - low) : 0;
    return tile('M-26 -18H26V18H-26Z', { at: { move: [x, y] }, opacity: Number((0.05 + 0.5 * part).toFixed(2)) });
  });
}

/** A row for each way the reference is turned: on one side of it, and on the other. */
function rowsOf(run: Run): Placed[][] {
  const { marks } = run.inputs;
  if (run.shows === 'level') return [marks.map(levelPlace)];
  const off = drawnOff(marks, OFF, ({ keys }) => keys['turn']);
  const turned = ({ keys }: MethodMark) => keys['turn'] === 180;
  return [marks.filter((one) => !turned(one)), marks.filter(turned)].map((own, row) => laidAlong(run, own, row, off));
}

/** Marks along the run: beside it on the stylus's side, the row of the turned reference on the other. */
function laidAlong(
  { shows, along, inputs: { setup } }: Run,
  marks: readonly MethodMark[],
  row: number,
  off: ReadonlyMap<MethodMark, number>,
): Placed[] {
  const [start, end] = RUN[along];
  const line = alongLine(marks, start, end);
  const onTop = shows === 'table' || shows === 'slot';
  // The operator's side is below a run to the right, and left of one to the column.
  const rear = (setup['side'] === 'rear') !== (row === 1);
  const out = rear ? -1 : 1;
  const lies = along === 'x' ? LIES[shows] : 360;
  const beside = onTop ? (row === 1 ? out * BESIDE : 0) : out * BESIDE;
  return marks.map((one, i): Placed => {
    const by = off.get(one) ?? 0;
    if (along === 'x') {
      return {
        mark: one,
        x: line[i],
        y: lies + beside - by - (onTop ? 0 : out * (BESIDE - 8)),
        label: { x: 0, y: rear && !onTop ? -20 : onTop ? 26 : 31, anchor: 'middle' },
        turn: rear ? 180 : 0,
      };
    }
    const side = -out;
    return {
      mark: one,
      x: lies + (onTop ? (row === 1 ? side * BESIDE : 0) : side * 9) + by,
      y: line[i],
      label: { x: side * (onTop ? 14 : 22), y: 5, anchor: side > 0 ? 'start' : 'end' },
      turn: side > 0 ? -90 : 90,
    };
  });
}

/** A level laid along x at the left and along y at the right: its mark is at the end that is read first, turned round at the other. */
function levelPlace(one: MethodMark): Placed {
  const reversed = one.keys['end'] === 'reversed';
  return one.keys['axis'] === 'y'
    ? { mark: one, x: 460, y: reversed ? 224 : 94, label: { x: 16, y: 5, anchor: 'start' }, turn: 0 }
    : { mark: one, x: reversed ? 202 : 338, y: 158, label: { x: 0, y: 30, anchor: 'middle' }, turn: 0 };
}
