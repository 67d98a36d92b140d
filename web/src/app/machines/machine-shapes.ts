import { MACHINE_KINDS } from '@isometra/contract/machine-kinds';

/** A part of a machine as it is drawn, in a box of 240 by 150. */
export interface Shape {
  readonly d: string;
  /** Fields of the machine card that are about this part. */
  readonly fields?: readonly string[];
  /** Drawn thin: an axis, a dimension line. */
  readonly thin?: true;
  /** Drawn only while one of its fields is in hand: it would crowd the drawing otherwise. */
  readonly inHand?: true;
}

const box = (x: number, y: number, width: number, height: number): string => `M${x} ${y}h${width}v${height}h${-width}z`;
const circle = (x: number, y: number, r: number): string => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
/** A dimension line from one point to another along x or y, with its arrow heads. */
function dimension(x1: number, y1: number, x2: number, y2: number): string {
  const [ux, uy] = [Math.sign(x2 - x1), Math.sign(y2 - y1)];
  const head = (x: number, y: number, way: number) =>
    `M${x} ${y}l${way * (5 * ux - 3 * uy)} ${way * (5 * uy - 3 * ux)}M${x} ${y}l${way * (5 * ux + 3 * uy)} ${way * (5 * uy + 3 * ux)}`;
  return `M${x1} ${y1}L${x2} ${y2}${head(x1, y1, 1)}${head(x2, y2, -1)}`;
}
/** Two feet under a base, with the screws that level it. */
const feet = (left: number, right: number, y: number): Shape => ({ d: `${box(left, y, 18, 5)}${box(right, y, 18, 5)}`, fields: ['feet'] });

const CAPS = (x: number, y: number): Shape => ({ d: `${box(x, y, 11, 6)}${box(x + 33, y, 11, 6)}`, fields: ['capShims'] });

function lathe(onBench: boolean): readonly Shape[] {
  return [
    { d: box(20, 92, 202, 14) },
    ...(onBench ? [] : [{ d: 'M28 106h32l-4 32H32z' }, { d: 'M182 106h32l-4 32h-24z' }]),
    onBench ? feet(36, 186, 106) : feet(35, 189, 138),
    { d: 'M104 116l6-9 6 9zM132 116l6-9 6 9z', fields: ['jacks'] },
    { d: box(26, 50, 58, 42) },
    CAPS(34, 44),
    { d: `${box(84, 62, 8, 16)}${box(92, 54, 10, 32)}M102 66l8 4-8 4z` },
    { d: 'M112 70H138', thin: true },
    { d: box(160, 82, 54, 10), fields: ['base'] },
    { d: `${box(168, 52, 38, 30)}${box(148, 65, 20, 10)}M148 66l-8 4 8 4z` },
    { d: `${circle(190, 66, 8)}${circle(192.5, 63.5, 2.5)}`, fields: ['eccentric'] },
    { d: `${circle(174, 87, 3.5)}M171.5 84.5l5 5${circle(200, 87, 3.5)}M197.5 84.5l5 5`, fields: ['adjuster'] },
    { d: box(114, 84, 26, 8) },
    { d: 'M120 84l3-6h8l3 6z', fields: ['gib', 'gibs'] },
    { d: dimension(107, 76, 107, 92), fields: ['swing'], thin: true, inHand: true },
    { d: dimension(110, 38, 140, 38), fields: ['centreDistance'], thin: true, inHand: true },
  ];
}

const TAIL = ['base', 'adjuster', 'eccentric', 'centreDistance'];

function turning(kind: string): readonly Shape[] {
  const has = MACHINE_KINDS.find(({ value }) => value === kind)?.has ?? [];
  const [sub, tail] = [has.includes('sub-spindle'), has.includes('tailstock')];
  const right: readonly Shape[] = [
    ...(sub && !tail ? [{ d: `${box(180, 54, 42, 42)}${box(169, 60, 11, 28)}` }] : []),
    ...(sub && tail ? [{ d: `${box(202, 54, 22, 42)}${box(194, 60, 8, 28)}` }] : []),
    ...(tail
      ? [{ d: sub ? `${box(164, 64, 24, 32)}${box(152, 70, 12, 8)}` : `${box(182, 60, 38, 36)}${box(164, 69, 18, 10)}`, fields: TAIL }]
      : []),
  ];
  return [
    { d: box(28, 122, 188, 16) },
    feet(40, 186, 138),
    { d: 'M20 96h204l-16 26H36z', fields: ['slide'] },
    { d: `${box(24, 52, 48, 44)}${box(72, 60, 12, 28)}` },
    CAPS(27, 46),
    ...(has.includes('guide-bush') ? [{ d: box(92, 62, 10, 26) }] : []),
    { d: 'M86 74H158', thin: true },
    { d: box(120, 70, 28, 26), fields: ['gib', 'gibs'] },
    {
      d: `M126 30h16l8 10v16l-8 10h-16l-8-10V40z${circle(128, 40, 2.5)}${circle(140, 40, 2.5)}${circle(128, 56, 2.5)}${circle(140, 56, 2.5)}`,
      fields: ['stations'],
    },
    ...right,
    { d: `${box(186, 10, 38, 28)}M192 18h26M192 24h26M192 30h14`, fields: ['registers', 'homing'] },
    { d: dimension(108, 74, 108, 96), fields: ['swing'], thin: true, inHand: true },
  ];
}

/** Seen from the operator's right: the operator at the left, the column at the right. */
function kneeMill(swivels: boolean): readonly Shape[] {
  return [
    { d: box(56, 126, 138, 12) },
    feet(62, 170, 138),
    { d: box(132, 42, 44, 80) },
    { d: box(128, 120, 52, 6), fields: ['foot'] },
    { d: box(76, 26, 104, 12) },
    ...(swivels ? [{ d: box(138, 38, 32, 5), fields: ['swivels'] }] : [{ d: box(138, 38, 32, 4) }]),
    { d: `${swivels ? 'M62 14h30v44H62z' : 'M66 18h24v38H66z'}`, ...(swivels && { fields: ['head'] }) },
    { d: `${box(72, swivels ? 58 : 56, 10, 8)}` },
    { d: box(54, 72, 76, 8) },
    { d: box(76, 80, 46, 8) },
    { d: 'M126 84h6v30h-6z', fields: ['gib', 'gibs', 'strip'] },
    { d: 'M68 88h58v20l-18 6H78z' },
    { d: box(92, 114, 8, 12) },
  ];
}

const columnMill: readonly Shape[] = [
  { d: box(50, 122, 138, 14) },
  feet(56, 162, 136),
  { d: box(140, 18, 28, 98) },
  { d: box(132, 115, 44, 7), fields: ['foot'] },
  { d: 'M82 28h50v36H82z', fields: ['head'] },
  { d: box(132, 32, 8, 28), fields: ['gib', 'gibs', 'strip'] },
  { d: box(92, 64, 12, 12) },
  { d: box(52, 98, 84, 8) },
  { d: box(70, 106, 48, 16) },
];

const machiningCentre: readonly Shape[] = [
  { d: box(46, 120, 144, 18) },
  feet(54, 164, 138),
  { d: box(142, 14, 36, 100) },
  { d: box(134, 113, 52, 7), fields: ['foot'] },
  { d: 'M138 20v84M58 116h78', thin: true },
  { d: `${box(132, 36, 8, 9)}${box(132, 62, 8, 9)}${box(62, 108, 14, 6)}${box(114, 108, 14, 6)}`, fields: ['trucks'] },
  { d: `${box(86, 30, 46, 48)}${box(100, 78, 14, 10)}` },
  { d: box(50, 98, 88, 10) },
];

/** The parts of a machine of a kind, from back to front. */
export function shapesOf(kind: string): readonly Shape[] {
  if (kind.endsWith('-lathe')) return lathe(kind === 'bench-lathe');
  if (kind.startsWith('turning-centre')) return turning(kind);
  if (kind === 'column-mill') return columnMill;
  return kind === 'machining-centre' ? machiningCentre : kneeMill(kind === 'turret-mill');
}

/** Whether a field of the card is about a part that is drawn. */
export const isDrawn = (kind: string, field: string): boolean => shapesOf(kind).some(({ fields }) => fields?.includes(field));
