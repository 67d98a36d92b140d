import { isCircle, isWord, type BentPicture, type Look, type PictureWord } from '@isometra/work/pictures';
import { BLUE, EDGE, INK, RED, SOFT } from './colours.js';

type Doc = PDFKit.PDFDocument;

interface Pen {
  readonly stroke?: string;
  readonly fill?: string;
  readonly width: number;
  readonly dashes?: number[];
}

const IRON: Pen = { fill: '#cfd6d5', stroke: INK, width: 1.2 };
const LIMIT: Pen = { stroke: INK, width: 1, dashes: [3, 3] };

export type Pens = Readonly<Record<Look, Pen>>;

/** How each thing is drawn: as on the screen. */
const PENS: Pens = {
  iron: IRON,
  head: IRON,
  // What is seen through: lighter, as paper has no depth.
  glass: { ...IRON, fill: '#e4e9e8' },
  bed: { fill: '#e3e6e4', stroke: EDGE, width: 1 },
  true: { stroke: EDGE, width: 1, dashes: [10, 4, 2, 4] },
  thin: { stroke: EDGE, width: 1, dashes: [3, 3] },
  zone: LIMIT,
  limit: LIMIT,
  axis: { stroke: BLUE, width: 3 },
  section: { fill: BLUE, width: 0 },
  slide: { stroke: INK, width: 2 },
  ring: { stroke: INK, width: 2 },
  ghost: { stroke: BLUE, width: 1.6 },
  'ghost-out': { stroke: RED, width: 1.6 },
  seat: { fill: '#ffffff', stroke: INK, width: 1.4 },
  vial: { fill: '#ffffff', stroke: INK, width: 1 },
  bubble: { fill: BLUE, width: 0 },
  seen: { stroke: BLUE, width: 3 },
  profile: { stroke: BLUE, width: 1.4 },
  along: { stroke: BLUE, width: 5 },
  tile: { fill: BLUE, width: 0 },
  tool: { fill: '#ffffff', stroke: INK, width: 1.2 },
  arrow: { fill: INK, width: 0 },
};

/** Lines of a drawing of a method: what is thin is whole there, an axis is dashed as on drawings of parts. */
export const METHOD_PENS: Pens = { ...PENS, thin: { stroke: EDGE, width: 1 }, axis: { stroke: SOFT, width: 1, dashes: [10, 4, 2, 4] } };

function ink(doc: Doc, { stroke, fill, width, dashes }: Pen): void {
  doc.lineWidth(width);
  // The types of the library know one length only; it takes several.
  if (dashes) doc.dash(dashes as unknown as number, {});
  if (fill && stroke) doc.fillAndStroke(fill, stroke);
  else if (fill) doc.fill(fill);
  else doc.stroke(stroke);
}

/**
 * Draw a machine, bent by what is known of it, as lines that stay sharp.
 *
 * @param at where its top left corner is, and how much of a point one of its units is.
 * @param write writes one of its words, whose foot is at a place of the page.
 */
export function drawPicture(
  doc: Doc,
  { drawn }: BentPicture,
  at: { readonly x: number; readonly y: number; readonly scale: number },
  write: (word: PictureWord, x: number, y: number) => void,
  pens: Pens = PENS,
): void {
  doc.save();
  doc.translate(at.x, at.y).scale(at.scale);
  for (const one of drawn) {
    if (isWord(one)) continue;
    doc.save();
    if (one.at) doc.transform(...one.at);
    if (isCircle(one)) doc.circle(one.circle.x, one.circle.y, one.circle.r);
    else doc.path(one.d);
    if (one.opacity !== undefined) doc.fillOpacity(one.opacity);
    ink(doc, one.dashed ? { ...pens[one.look], dashes: [3, 5] } : pens[one.look]);
    doc.restore();
  }
  doc.restore();
  for (const one of drawn) if (isWord(one)) write(one, at.x + at.scale * one.x, at.y + at.scale * one.y);
}
