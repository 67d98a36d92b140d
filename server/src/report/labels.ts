import PDFDocument from 'pdfkit';
import { encode } from 'uqr';
import { INK, LINE } from './colours.js';
import { registerFonts, type Fonts } from './fonts.js';
import type { Paper } from './printer.js';

/** What is stuck on a machine, an instrument or a box. */
export interface Label {
  readonly title: string;
  readonly line: string;
  /** What its code opens on a phone. */
  readonly address: string;
}

const MARGIN = 28;
const ACROSS = 3;
const DOWN = 8;

/** Draw a code: dark squares one beside another, so that it is sharp at any size. @param size points. */
function drawCode(doc: PDFKit.PDFDocument, text: string, { x, y, size }: { x: number; y: number; size: number }): void {
  const { data } = encode(text, { border: 2, ecc: 'M' });
  const dot = size / data.length;
  doc.fillColor('#000000');
  data.forEach((row, j) => row.forEach((dark, i) => dark && doc.rect(x + i * dot, y + j * dot, dot + 0.05, dot + 0.05)));
  doc.fill();
}

/** A sheet of labels, three across and eight down: what it is in words, and a code that opens it on a phone. */
export function labelSheet(labels: readonly Label[], paper: Paper, fonts: Fonts): NodeJS.ReadableStream {
  const doc = new PDFDocument({ size: paper === 'Letter' ? 'LETTER' : 'A4', margin: 0, info: { Title: 'Labels', Creator: 'Isometra' } });
  registerFonts(doc, fonts);
  const [width, height] = [(doc.page.width - 2 * MARGIN) / ACROSS, (doc.page.height - 2 * MARGIN) / DOWN];
  labels.forEach(({ title, line, address }, i) => {
    const place = i % (ACROSS * DOWN);
    if (i > 0 && place === 0) doc.addPage();
    const [x, y] = [MARGIN + (place % ACROSS) * width, MARGIN + Math.floor(place / ACROSS) * height];
    const size = Math.min(height - 16, width * 0.45);
    doc
      .rect(x + 2, y + 2, width - 4, height - 4)
      .lineWidth(0.4)
      .strokeColor(LINE)
      .stroke();
    drawCode(doc, address, { x: x + 8, y: y + 8, size });
    const words = { width: width - size - 22, height: 34, ellipsis: true };
    doc
      .fillColor(INK)
      .font('head')
      .fontSize(13)
      .text(title, x + size + 14, y + 14, words);
    doc
      .font('text')
      .fontSize(8.5)
      .text(line, { ...words, height: 44 });
  });
  doc.end();
  return doc as unknown as NodeJS.ReadableStream;
}
