import { featuresOf } from '@isometra/contract/machine-kinds';
import type { KnownTurning } from '../ladder/known.js';
import { type BentPicture, type Drawn, type Look, path, placed, shifted } from './shapes.js';

/** Radii within which each may stand, µm. */
export interface TurningGhosts {
  readonly turret: readonly number[];
  readonly bush: readonly number[];
  readonly sub: readonly number[];
}

/** Drawing units of an offset of so many µm: a millimetre of the machine is drawn as long as one of the drawing, times the factor. */
export const offsetPixels = (um: number, factor: number): number => Number(((um / 1000) * factor).toFixed(2));

/** How far a line of so many units goes off by a slope, µm/m, drawn `factor` times as steep. */
export const slopePixels = (slope: number, length: number, factor: number): number => Number(((slope / 1e6) * length * factor).toFixed(2));

const OFFSETS = ['bushH', 'bushV', 'subH', 'subV', 'tailH', 'tailV'] as const;

/** Where the bed is drawn from its end: px. */
const BED = { left: 60, right: 430, top: 60, bottom: 400, middle: 250, axis: 236, below: 100 } as const;

/** The outline of a bed whose face lies along a slide, + its rear (left) end the higher, as far below the axis as it is drawn. */
export function bedUnder(slant: number): string {
  const radians = (Math.max(-75, Math.min(75, slant)) * Math.PI) / 180;
  const face = (x: number): number => BED.axis + (x - BED.middle) * Math.tan(radians) + BED.below / Math.cos(radians);
  const xAt = (y: number): number => BED.middle + (y - BED.axis - BED.below / Math.cos(radians)) / Math.tan(radians);
  const ends = [BED.left, BED.right].map((x) => {
    const y = Math.max(BED.top, Math.min(BED.bottom, face(x)));
    return { x: y === face(x) || slant === 0 ? x : xAt(y), y };
  });
  const [left, right] = ends.map(({ x, y }) => `${Math.round(x)} ${Math.round(y)}`);
  const foot = slant >= 0 ? BED.left : BED.right;
  return slant === 0 ? `M${left}L${right}V${BED.bottom}H${BED.left}Z` : `M${left}L${right}V${BED.bottom}H${foot}Z`;
}

/** A factor that draws the worst offset by at most 60 units, within ×100 to ×5000. */
export function turningFittingFactor(known: KnownTurning): number {
  const offsets = [...OFFSETS.map((name) => known[name]), ...(known.pockets ?? []).flatMap(({ h, v }) => [h, v])];
  const worst = Math.max(1, ...offsets.map((offset) => Math.abs(offset ?? 0)));
  const slope = Math.max(Math.abs(known.axisSlopeH ?? 0), 1);
  return (
    [5000, 2000, 1000, 500, 200, 100].find((factor) => offsetPixels(worst, factor) <= 60 && slopePixels(slope, 310, factor) <= 60) ?? 100
  );
}

/** What a kind of turning centre has beside its turret. */
export function turningHas(kind: string): { readonly sub: boolean; readonly bush: boolean; readonly tail: boolean } {
  const has = featuresOf(kind);
  return { sub: has.includes('sub-spindle'), bush: has.includes('guide-bush'), tail: has.includes('tailstock') };
}

type Has = ReturnType<typeof turningHas>;
const NO_LIMITS: TurningGhosts = { turret: [], bush: [], sub: [] };
/** The line of the spindle axis in the view from above. */
const NOSE = { x: 570, y: 190 };
const SUB = { x: 880, y: 190 };
const TURRET = 'M720 168H744V180H720Z M720 200H744V212H720Z M744 168H830V330H744Z';

const circle = (look: Look, r: number, x = 0, y = 0): Drawn => ({ look, circle: { x, y, r } });

/** The slide through the axis: toward the operator, on the right, it goes down where its rear is the higher. */
function slideAt(slant: number): string {
  const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
  const [x, y] = [Math.round(170 * c), Math.round(170 * s)];
  return `M${-x} ${-y}L${x} ${y}`;
}

/** One thing that was swept about the axis: its ring, where it may stand, how far it is off. */
function ring(
  { name, r, label }: { readonly name: string; readonly r: number; readonly label: number },
  [h, v]: readonly [number | undefined, number | undefined],
  ghosts: readonly number[],
  px: (um?: number) => number,
): readonly Drawn[] {
  const known = h !== undefined || v !== undefined;
  const [x, y] = [px(h), -px(v)];
  return [
    circle('true', r),
    ...ghosts.map((limit) => circle('zone', px(limit))),
    ...(known ? [circle('ring', r, x, y), path('axis', `M0 0L${x} ${y}`)] : []),
    { text: known ? name : `${name}: not measured`, x: 56, y: label },
  ];
}

function fromItsEnd(
  known: KnownTurning,
  {
    slant,
    has,
    ghosts,
    px,
  }: { readonly slant: number | null; readonly has: Has; readonly ghosts: TurningGhosts; readonly px: (um?: number) => number },
): readonly Drawn[] {
  const pockets = known.pockets ?? [];
  // The pocket that was swept last is drawn as a ring, the centres of the others beside it.
  const last = pockets.at(-1);
  const rings = [
    ring({ name: last?.name ? `pocket, ${last.name}` : 'pocket', r: 84, label: -212 }, [last?.h, last?.v], ghosts.turret, px),
    has.bush ? ring({ name: 'bush', r: 58, label: -193 }, [known.bushH, known.bushV], ghosts.bush, px) : [],
    has.sub ? ring({ name: 'sub-spindle', r: 34, label: -174 }, [known.subH, known.subV], ghosts.sub, px) : [],
  ];
  const others = pockets
    .slice(0, -1)
    .flatMap(({ name, h, v }): readonly Drawn[] =>
      placed(shifted(px(h), -px(v)), [circle('axis', 4), { text: name, x: 8, y: 5, over: true }]),
    );
  return [
    path('true', 'M-190 0H190M0 -150V150'),
    slant === null ? { text: 'how the slide leans is not on the card', x: -180, y: -140 } : path('slide', slideAt(slant)),
    ...rings.flat(),
    ...others,
  ];
}

/** Something beside the axis, so far off it. */
const beside = (um: number | undefined, px: (um?: number) => number, d: string, word: Drawn): readonly Drawn[] => [
  ...placed(shifted(0, px(um)), [path('iron', d)]),
  word,
];

/**
 * A turning centre from its end, with the slide at its slant, and from above, bent by what is known of it: the pocket, the bush and the
 * sub-spindle stand off the axis by what was swept. Ghost circles are the limits.
 *
 * @param slant degrees, + its rear end the higher; null where the card does not tell.
 */
export function drawTurning(
  kind: string,
  known: KnownTurning,
  factor: number,
  { slant, ghosts = NO_LIMITS }: { readonly slant: number | null; readonly ghosts?: TurningGhosts | undefined },
): BentPicture {
  const has = turningHas(kind);
  const px = (um = 0): number => offsetPixels(um, factor);
  // Behind the axis where the slide rises toward the rear: the turret is at its higher end.
  const behind = (slant ?? 0) > 0;
  const turret: Drawn = behind ? path('iron', TURRET, [1, 0, 0, -1, 0, 380]) : path('iron', TURRET);
  const down = slopePixels(known.axisSlopeH ?? 0, SUB.x - NOSE.x, factor);
  const word = (text: string, x: number, y: number): Drawn => ({ text, x, y, anchor: 'middle' });
  return {
    ...{ width: 1000, height: 430, told: 'The turning centre from its end and from above, bent by what is known of it' },
    drawn: [
      { text: 'seen from the headstock', x: 20, y: 24 },
      path('bed', bedUnder(slant ?? 0)),
      ...placed(shifted(250, 236), fromItsEnd(known, { slant, has, ghosts, px })),
      { text: 'operator', x: 430, y: 420, anchor: 'end' },
      { text: 'rear', x: 60, y: 420 },
      { text: 'from above', x: 520, y: 24 },
      path('iron', 'M500 120H560V260H500Z M560 160H570V220H560Z'),
      path('true', 'M560 190H980'),
      path('axis', `M${NOSE.x} ${NOSE.y}L${SUB.x} ${NOSE.y + down}`),
      ...(has.sub ? beside(known.subH, px, 'M890 130H960V250H890Z M880 165H890V215H880Z', word('sub-spindle', 925, 118)) : []),
      ...(has.tail ? beside(known.tailH, px, 'M900 150H970V230H900Z M900 178 880 190 900 202Z', word('tailstock', 935, 138)) : []),
      ...(has.bush ? beside(known.bushH, px, 'M640 150H664V180H640Z M640 200H664V230H640Z', word('bush', 652, 140)) : []),
      ...placed(shifted(0, px(known.pockets?.at(-1)?.h)), [turret]),
      word('turret', 787, behind ? 40 : 352),
      { text: 'operator below', x: 520, y: 420 },
      { text: `errors drawn ×${factor}`, x: 990, y: 420, anchor: 'end' },
    ],
  };
}
