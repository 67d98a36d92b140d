import { isCircle, isWord, type BentPicture, type Look, type PictureWord } from '@isometra/work/pictures';
import { BLUE, EDGE, INK } from './colours.js';

type Doc = PDFKit.PDFDocument;

interface Pen {
  readonly stroke?: string;
  readonly fill?: string;
  readonly width: number;
  readonly dashes?: number[];
}

const IRON: Pen = { fill: '#cfd6d5', stroke: INK, width: 1.2 };
const LIMIT: Pen = { stroke: INK, width: 1, dashes: [3, 3] };

/** How each thing is drawn: as on the screen. */
const PENS: Readonly<Record<Look, Pen>> = {
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
};

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
): void {
  doc.save();
  doc.translate(at.x, at.y).scale(at.scale);
  for (const one of drawn) {
    if (isWord(one)) continue;
    doc.save();
    if (one.at) doc.transform(...one.at);
    if (isCircle(one)) doc.circle(one.circle.x, one.circle.y, one.circle.r);
    else doc.path(one.d);
    ink(doc, PENS[one.look]);
    doc.restore();
  }
  doc.restore();
  for (const one of drawn) if (isWord(one)) write(one, at.x + at.scale * one.x, at.y + at.scale * one.y);
}
