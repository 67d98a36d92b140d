import type { HeightAt } from '@isometra/core';
import type { KnownLathe } from '../ladder/known.js';
import { type BentPicture, type Drawn, path, placed, shifted, turned } from './shapes.js';

/** Drawing units: the bed runs from x = 130 to 870, 0.5 units to the millimetre of a 1.5 m lathe. */
export const FRAME = { nose: 170, tail: 790, perMetre: 620, twistWidth: 46, bedTop: 60, bedEnd: 920, slide: 72 } as const;

export interface Picture {
  /** From above: + y is down the picture, where the operator stands. */
  readonly plan: {
    readonly axisEnd: number;
    readonly tail: number;
    /** Turn of the quill in degrees, clockwise. */
    readonly quill: number;
    /** How far the rear end of the cross slide lies toward the headstock (−) of square; undefined when not known. */
    readonly slide?: number;
  };
  /** From the side: + y is down, so what is high has a smaller y. */
  readonly side: {
    readonly axisEnd: number;
    readonly tail: number;
    readonly quill: number;
    /** Top edge of the bed as a path, bent as the way was found that was read last. */
    readonly bed: string;
    /** The other ways that were read, each as a line over the bed. */
    readonly ways: readonly { readonly name: string; readonly path: string }[];
  };
  /** Roll of cross-sections along the bed: place (x) and turn in degrees, clockwise as seen from the tailstock end. */
  readonly sections: readonly { readonly x: number; readonly turn: number }[];
}

/**
 * The lathe bent by what is known of it, in drawing units from the true line. One drawing unit of
 * deviation is 1000/`factor`·(1000/620) µm: the factor is printed on the picture.
 *
 * @param factor exaggeration, 100 to 5000.
 */
export function pictureOf(known: KnownLathe, factor: number): Picture {
  const units = (um: number): number => (um / 1e6) * FRAME.perMetre * factor;
  const degrees = (slope: number): number => (slope / 1e6) * factor * (180 / Math.PI);
  const reach = 0.3;
  const ways = known.ways ?? [];
  const places = [0, 0.25, 0.5, 0.75, 1];
  return {
    plan: {
      axisEnd: units((known.axisSlopeH ?? 0) * reach),
      tail: units(known.tailH ?? 0),
      // The free end is on the left: turned against the clock it comes down, toward the operator.
      quill: -degrees(known.quillH ?? 0),
      // Square to the bed a slide faces hollow by the axis' own slope; what is more is the slide's, its rear toward the headstock.
      ...(known.facing !== undefined && { slide: -((known.facing - (known.axisSlopeH ?? 0)) / 1e6) * factor * FRAME.slide }),
    },
    side: {
      axisEnd: -units((known.axisSlopeV ?? 0) * reach),
      tail: -units(known.tailV ?? 0),
      quill: degrees(known.quillV ?? 0),
      bed: lineThrough([`40 ${FRAME.bedTop}`, ...wayPoints(ways.at(-1)?.heights ?? [], units), `${FRAME.bedEnd} ${FRAME.bedTop}`]),
      ways: ways.slice(0, -1).map(({ name, heights }) => ({ name, path: lineThrough(wayPoints(heights, units)) })),
    },
    sections: places.map((part) => ({
      x: FRAME.nose + part * (FRAME.tail - FRAME.nose),
      // Seen from the tailstock end the operator is on the right: operator's side high turns counter-clockwise.
      turn: -(((known.twistPerMetre ?? 0) * part * ((FRAME.tail - FRAME.nose) / FRAME.perMetre)) / 1e6) * factor * (180 / Math.PI),
    })),
  };
}

/** Points of the top of the bed along a way: high where it is high, nothing where nothing is known. */
function wayPoints(way: readonly HeightAt[], units: (um: number) => number): string[] {
  // A way longer than the drawing is drawn shorter: what counts is where along it the height is.
  const perMm = Math.min(FRAME.perMetre / 1000, (FRAME.bedEnd - FRAME.nose) / Math.max(1, ...way.map(({ at }) => at)));
  return way.map(({ at, height }) => `${FRAME.nose + at * perMm} ${FRAME.bedTop - units(height)}`);
}

const lineThrough = (points: readonly string[]): string => `M${points.join(' L')}`;

/** A factor that draws the largest error at about 40 units, within ×100 to ×5000. */
export function fittingFactor(known: KnownLathe): number {
  const largest = Math.max(
    1,
    Math.abs(known.tailH ?? 0),
    Math.abs(known.tailV ?? 0),
    0.3 * Math.abs(known.axisSlopeH ?? 0),
    0.3 * Math.abs(known.axisSlopeV ?? 0),
    // A quill or a bed is turned by seven degrees at the most: more would look like a broken one.
    ...[known.quillH, known.quillV, known.twistPerMetre].map((slope = 0) => 0.54 * Math.abs(slope)),
    ...(known.ways ?? []).flatMap(({ heights }) => heights.map(({ height }) => Math.abs(height))),
  );
  const wanted = 40 / ((largest / 1e6) * FRAME.perMetre);
  return [5000, 2000, 1000, 500, 200, 100].find((factor) => factor <= wanted) ?? 100;
}

/** Limits of a survey as ghost lines, in drawing units like the picture: where each known thing may stand at the most. */
export interface Ghosts {
  readonly plan: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  readonly side: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  /** The sections of a bed that is twisted as far as it may be, one way and the other. */
  readonly sections: readonly Picture['sections'][];
}

const NONE: Ghosts = { plan: { tail: [], axisEnd: [] }, side: { tail: [], axisEnd: [] }, sections: [] };

const QUILL = 'M790 0 808 -10V-14H820V14H808V10Z';

/** Where the tailstock and the free end of the axis may stand. */
const mayStand = ({ tail, axisEnd }: Ghosts['plan']): readonly Drawn[] => [
  ...tail.map((y) => path('zone', `M${FRAME.tail} ${y}h70`)),
  ...axisEnd.map((y) => path('limit', `M${FRAME.nose} 0L356 ${y}`)),
];

/** The tailstock with its quill, so far off the true line. @param body its outline. */
const tailstock = ({ tail, quill }: Pick<Picture['plan'], 'tail' | 'quill'>, body: string): readonly Drawn[] =>
  placed(shifted(0, tail), [path('iron', body), path('iron', QUILL, turned(quill, 820, 0))]);

function fromAbove({ plan }: Picture, ghosts: Ghosts): readonly Drawn[] {
  const { slide } = plan;
  return [
    { text: 'from above', x: 10, y: -84 },
    path('iron', 'M40 -58H150V58H40Z M150 -26H170V26H150Z'),
    path('bed', 'M40 66H920V76H40Z M40 -76H920V-66H40Z'),
    path('true', 'M170 0H900'),
    ...(slide === undefined
      ? []
      : [path('thin', 'M500 -72V72'), path('axis', `M${500 + slide} -72L${500 - slide} 72`), { text: 'cross slide', x: 512, y: -52 }]),
    ...mayStand(ghosts.plan),
    ...tailstock(plan, 'M820 -44H900V48H820Z'),
    path('axis', `M170 0L356 ${plan.axisEnd}`),
    { text: 'operator', x: 480, y: 102, anchor: 'middle' },
  ];
}

const fromTheSide = ({ side }: Picture, ghosts: Ghosts): readonly Drawn[] => [
  { text: 'from the side', x: 10, y: -66 },
  path('iron', 'M40 -52H150V52H40Z M150 -26H170V26H150Z'),
  path('bed', `${side.bed}V84H40Z`),
  ...side.ways.map((way) => path('thin', way.path)),
  path('true', 'M170 0H900'),
  ...mayStand(ghosts.side),
  ...tailstock(side, 'M820 -40H900V54H820Z'),
  path('axis', `M170 0L356 ${side.axisEnd}`),
];

const acrossTheBed = ({ sections }: Picture, ghosts: Ghosts): readonly Drawn[] => [
  { text: 'across the bed, from the tailstock end', x: 10, y: -24 },
  ...sections.flatMap(({ x, turn }, i) =>
    placed(shifted(x, 0), [
      path('true', 'M-34 0H34'),
      ...ghosts.sections.map((bound): Drawn => path('zone', 'M-44 0H44', turned(bound[i].turn))),
      path('section', 'M-34 -5H34V5H-34Z M20 -13 28 -5H12Z', turned(turn)),
    ]),
  ),
];

/** A lathe in plan and side view and across its bed, bent by what is known of it; ghost lines are the limits. */
export function drawLathe(known: KnownLathe, factor: number, ghosts: Ghosts = NONE): BentPicture {
  const picture = pictureOf(known, factor);
  return {
    ...{ width: 960, height: 470, told: 'The lathe in plan and side view, bent by what is known of it' },
    drawn: [
      ...placed(shifted(0, 116), fromAbove(picture, ghosts)),
      ...placed(shifted(0, 300), fromTheSide(picture, ghosts)),
      ...placed(shifted(0, 424), acrossTheBed(picture, ghosts)),
      { text: `errors drawn ×${factor}`, x: 950, y: 460, anchor: 'end' },
    ],
  };
}
