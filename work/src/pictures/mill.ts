import { featuresOf } from '@isometra/contract/machine-kinds';
import type { KnownMill } from '../ladder/known.js';
import { type BentPicture, type Drawn, type Look, path, placed, shifted, turned } from './shapes.js';

/** Depth of the table in the plan, drawing units. */
export const TABLE_DEPTH = 110;

export interface MillPicture {
  /** Seen by the operator: turns in degrees, clockwise. */
  readonly front: { readonly table: number; readonly column: number; readonly head: number };
  /** Seen from the right, the operator on the left. */
  readonly side: { readonly table: number; readonly column: number; readonly head: number };
  /** From above: turns of the slot and of the jaw, degrees, clockwise. */
  readonly plan: { readonly slot: number; readonly vice: number };
  /** From above, the operator at the bottom: how far the column's end of the table lies to the right of square, drawing units. */
  readonly shear: number;
}

/**
 * A mill bent by what is known of it.
 *
 * @param factor exaggeration, printed on the picture: an angle of 1 µm/m is drawn as `factor` µm/m.
 */
export function millPictureOf(known: KnownMill, factor: number): MillPicture {
  const turn = (slope = 0): number => (slope / 1e6) * factor * (180 / Math.PI);
  return {
    // Rising to the right turns against the clock; leaning to the right turns with it.
    front: { table: -turn(known.tableX), column: turn(known.leanX), head: turn(known.tilt) },
    // The operator stands on the left: leaning toward them turns against the clock, and so does rising to the column.
    side: { table: -turn(known.tableY), column: -turn(known.leanY), head: -turn(known.nod) },
    // Seen from above the operator is below: a right end that runs toward them turns with the clock.
    plan: { slot: turn(known.slot), vice: turn(known.vice) },
    // An obtuse angle takes the column's end to the left.
    shear: -((known.squareness ?? 0) / 1e6) * factor * TABLE_DEPTH,
  };
}

/** A factor that turns the worst angle by about ten degrees, within ×100 to ×5000. */
export function millFittingFactor(known: KnownMill): number {
  const worst = Math.max(1, ...Object.values(known as Record<string, number>).map(Math.abs));
  return [5000, 2000, 1000, 500, 200, 100].find((factor) => (worst / 1e6) * factor <= 0.18) ?? 100;
}

/** Pictures of a mill at both bounds of each limit. */
export type MillGhosts = Readonly<Partial<Record<keyof KnownMill, readonly MillPicture[]>>>;

/** A piece that turns: its outline and its ghost, what it turns about, by how much, and by how much at its bounds. */
interface Piece {
  readonly d: string;
  readonly ghost: string;
  readonly about: readonly [x: number, y: number];
  readonly turn: number;
  readonly ghosts: readonly number[];
}

/** What carries the table: a base with ways, a knee on the column, or a base with rails and trucks. */
type Carried = 'base' | 'knee' | 'rails';
const FRONT_BASE: Readonly<Record<Carried, string>> = {
  base: 'M-90 356H90V440H-90Z',
  knee: 'M-100 424H100V440H-100Z',
  rails: 'M-110 374H110V440H-110Z',
};
const FRONT_CARRIES: Readonly<Record<Carried, readonly string[]>> = {
  base: [],
  // Saddle, knee and its screw.
  knee: ['M-78 353H78V366H-78Z', 'M-58 366H58V404H-58Z', 'M-8 404H8V424H-8Z'],
  // Two rails with a truck each under the table.
  rails: ['M-92 366H-56V374H-92Z M56 366H92V374H56Z', 'M-88 353H-60V366H-88Z M60 353H88V366H60Z'],
};
const SIDE_BASE: Readonly<Record<Carried, string>> = {
  base: 'M-110 356H150V440H-110Z',
  knee: 'M-60 424H150V440H-60Z M56 356H144V424H56Z',
  rails: 'M-110 374H150V440H-110Z',
};
const SIDE_CARRIES: Readonly<Record<Carried, readonly string[]>> = {
  base: [],
  knee: ['M-74 353H30V366H-74Z', 'M-60 366H56V404H-60Z', 'M-32 404H-18V424H-32Z'],
  rails: ['M-100 366H50V374H-100Z', 'M-82 353H-56V366H-82Z M8 353H34V366H8Z'],
};

const HEAD = 'M-34 96H34V206H-34Z M-18 206H18V236H-18Z';

/** A view of an upright mill, as it stands about its own middle. */
interface Upright {
  readonly base: string;
  readonly carries: readonly string[];
  readonly trueLines: string;
  readonly column: Piece;
  /** The column is behind what it carries. */
  readonly behind: boolean;
  readonly head: Piece;
  readonly table: Piece;
}

const ghostLines = ({ ghost, about, ghosts }: Piece): readonly Drawn[] => ghosts.map((turn) => path('zone', ghost, turned(turn, ...about)));
const standing = (look: Look, { d, turn, about }: Piece): Drawn => path(look, d, turned(turn, ...about));

const upright = ({ base, carries, trueLines, column, behind, head, table }: Upright): readonly Drawn[] => [
  path('bed', base),
  ...carries.map((part) => path('bed', part)),
  path('true', trueLines),
  standing(behind ? 'bed' : 'iron', column),
  ...ghostLines(column),
  standing('head', head),
  path('axis', 'M0 80V300', turned(head.turn, ...head.about)),
  ...ghostLines(head),
  standing('iron', table),
  ...ghostLines(table),
];

function fromTheFront({ front }: MillPicture, ghosts: MillGhosts, carried: Carried): readonly Drawn[] {
  const at = (name: keyof KnownMill, of: keyof MillPicture['front']): readonly number[] =>
    (ghosts[name] ?? []).map((bound) => bound.front[of]);
  return upright({
    ...{ base: FRONT_BASE[carried], carries: FRONT_CARRIES[carried], trueLines: 'M0 36V440M-150 330H150', behind: true },
    column: { d: 'M-46 60H46V330H-46Z', ghost: 'M0 330V52', about: [0, 330], turn: front.column, ghosts: at('leanX', 'column') },
    head: { d: HEAD, ghost: 'M0 236V318', about: [0, 150], turn: front.head, ghosts: at('tilt', 'head') },
    table: {
      ...{ d: 'M-130 330H130V352H-130Z', ghost: 'M130 330H150M-130 330H-150', about: [0, 330] },
      ...{ turn: front.table, ghosts: at('tableX', 'table') },
    },
  });
}

function fromTheRight({ side }: MillPicture, ghosts: MillGhosts, carried: Carried): readonly Drawn[] {
  const at = (name: keyof KnownMill, of: keyof MillPicture['side']): readonly number[] =>
    (ghosts[name] ?? []).map((bound) => bound.side[of]);
  return upright({
    ...{ base: SIDE_BASE[carried], carries: SIDE_CARRIES[carried], trueLines: 'M100 36V356M-120 330H50', behind: false },
    column: { d: 'M56 60H144V356H56Z', ghost: 'M100 356V52', about: [100, 356], turn: side.column, ghosts: at('leanY', 'column') },
    head: { d: `${HEAD} M34 120H66V170H34Z`, ghost: 'M0 236V318', about: [30, 150], turn: side.head, ghosts: at('nod', 'head') },
    table: { d: 'M-90 330H40V352H-90Z', ghost: 'M-90 330H-112', about: [-30, 330], turn: side.table, ghosts: at('tableY', 'table') },
  });
}

const NEAR = 260;
const FAR = NEAR - TABLE_DEPTH;
/** The table from above, its column's end moved to the right by so much. */
const outline = (shear: number): string => `M-110 ${NEAR}H110L${110 + shear} ${FAR}H${-110 + shear}Z`;

const tableFromAbove = (known: KnownMill, { shear, plan }: MillPicture, ghosts: MillGhosts): readonly Drawn[] => [
  path('bed', 'M-46 60H46V118H-46Z'),
  path('true', outline(0)),
  path('glass', outline(shear)),
  ...(ghosts.squareness ?? []).map((bound) => path('zone', `M0 ${NEAR}L${bound.shear} ${FAR}`)),
  path('axis', `M0 ${NEAR}L${shear} ${FAR}`),
  path('axis', `M-110 ${NEAR}H110`),
  ...(known.slot === undefined
    ? []
    : [
        path('axis', 'M-96 222H96', turned(plan.slot, 0, 222)),
        ...(ghosts.slot ?? []).map((bound): Drawn => path('zone', 'M-104 222H104', turned(bound.plan.slot, 0, 222))),
      ]),
  ...(known.vice === undefined
    ? []
    : [
        path('iron', 'M-56 168H56V186H-56Z', turned(plan.vice, 0, 186)),
        ...(ghosts.vice ?? []).map((bound): Drawn => path('zone', 'M-70 186H70', turned(bound.plan.vice, 0, 186))),
      ]),
  { text: 'operator', x: 0, y: NEAR + 32, anchor: 'middle' },
];

/** A mill from the front, from the right and from above, bent by what is known of it; ghost lines are the limits. */
export function drawMill(kind: string, known: KnownMill, factor: number, ghosts: MillGhosts = {}): BentPicture {
  const has = featuresOf(kind);
  const carried: Carried = has.includes('knee') ? 'knee' : has.includes('trucks') ? 'rails' : 'base';
  const picture = millPictureOf(known, factor);
  return {
    ...{ width: 960, height: 470, told: 'The mill from the front, the side and above, bent by what is known of it' },
    drawn: [
      { text: 'from the front', x: 66, y: 24 },
      ...placed(shifted(180, 0), fromTheFront(picture, ghosts, carried)),
      { text: 'from the right', x: 366, y: 24 },
      ...placed(shifted(480, 0), fromTheRight(picture, ghosts, carried)),
      { text: 'operator', x: 376, y: 462 },
      { text: 'from above', x: 710, y: 24 },
      ...placed(shifted(828, 0), tableFromAbove(known, picture, ghosts)),
      { text: `errors drawn ×${factor}`, x: 950, y: 462, anchor: 'end' },
    ],
  };
}
