import type { GlyphOf } from '@isometra/work';
import { BLUE, INK, SOFT } from './colours.js';

/** How each result is drawn: the same shapes as on the screens. */
const DRAW: Readonly<Record<GlyphOf, (doc: PDFKit.PDFDocument, x: number, y: number, r: number) => void>> = {
  in: (doc, x, y, r) =>
    void doc
      .rect(x - r, y - r, 2 * r, 2 * r)
      .fillColor(BLUE)
      .fill(),
  out: (doc, x, y, r) =>
    void doc
      .moveTo(x, y - r * 1.3)
      .lineTo(x + r * 1.3, y)
      .lineTo(x, y + r * 1.3)
      .lineTo(x - r * 1.3, y)
      .closePath()
      .lineWidth(1.3)
      .fillAndStroke('#ffffff', '#b3261e'),
  unsure: (doc, x, y, r) => {
    doc.circle(x, y, r).lineWidth(1).fillAndStroke('#ffffff', INK);
    doc
      .path(`M ${x} ${y - r} A ${r} ${r} 0 0 0 ${x} ${y + r} Z`)
      .fillColor(INK)
      .fill();
  },
  left: (doc, x, y, r) => {
    doc
      .rect(x - r, y - r, 2 * r, 2 * r)
      .lineWidth(1)
      .fillAndStroke('#ffffff', INK);
    doc
      .moveTo(x - r, y)
      .lineTo(x + r, y)
      .lineWidth(1.6)
      .strokeColor(INK)
      .stroke();
  },
  none: (doc, x, y, r) =>
    void doc
      .circle(x, y, r / 2)
      .fillColor(SOFT)
      .fill(),
};

/** Draw the mark of a result with its middle at a place. @param r half its width, points. */
export const drawGlyph = (doc: PDFKit.PDFDocument, glyph: GlyphOf, x: number, y: number, r: number): void => DRAW[glyph](doc, x, y, r);
