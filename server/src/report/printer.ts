import PDFDocument from 'pdfkit';
import type { Block, GlyphOf, Report, TableRow } from '@isometra/work';
import { onPaper, SCENE_WIDTH } from '@isometra/work/methods';
import type { BentPicture } from '@isometra/work/pictures';
import { BLUE, INK, LINE, SOFT } from './colours.js';
import { drawPicture, METHOD_PENS, type Pens } from './pictures.js';
import { drawGlyph } from './glyphs.js';
import { registerFonts, type Fonts } from './fonts.js';

type Doc = PDFKit.PDFDocument;
type Face = 'text' | 'bold' | 'head';
type Of<Kind extends Block['kind']> = Extract<Block, { readonly kind: Kind }>;

const MARGIN = 48;
const FOOT = 34;
/** Size of the words on a picture. */
const WORDS = 8;
const SIZES = { 1: 22, 2: 14, 3: 11 } as const;

/** Paper sizes that a shop prints on. */
export type Paper = 'A4' | 'Letter';

/** A line of signs that one font has. */
interface Run {
  readonly font: string;
  readonly text: string;
}

/** Prints a report: headings, tables and figures, tagged for who reads it aloud, page n of m at the foot. */
export class Printer {
  private readonly doc: Doc;
  private readonly width: number;
  private readonly known = new Map<string, string | undefined>();

  constructor(
    private readonly report: Report,
    { paper, subject }: { readonly paper: Paper; readonly subject: string },
    fonts: Fonts,
  ) {
    this.doc = new PDFDocument({
      size: paper === 'Letter' ? 'LETTER' : 'A4',
      margins: { top: MARGIN, left: MARGIN, right: MARGIN, bottom: MARGIN + FOOT },
      bufferPages: true,
      tagged: true,
      pdfVersion: '1.7',
      lang: 'en',
      displayTitle: true,
      info: { Title: report.title, Subject: subject, Creator: 'Isometra' },
    } as PDFKit.PDFDocumentOptions);
    registerFonts(this.doc, fonts);
    this.width = this.doc.page.width - 2 * MARGIN;
  }

  /** The document, as it is written. */
  print(): NodeJS.ReadableStream {
    const root = this.doc.struct('Document');
    this.doc.addStructure(root);
    for (const block of this.report.blocks) this.block(block, root);
    root.end();
    this.feet();
    this.doc.end();
    return this.doc as unknown as NodeJS.ReadableStream;
  }

  private block(block: Block, root: PDFKit.PDFStructureElement): void {
    switch (block.kind) {
      case 'heading':
        return this.heading(block, root);
      case 'text':
        return this.paragraph(block, root);
      case 'facts':
        return this.factRows(block, root);
      case 'table':
        return this.table(block, root);
      case 'zone':
        return this.zone(block, root);
      case 'profile':
        return this.profile(block, root);
      case 'picture':
        return this.picture(block.picture, root);
      case 'method':
        return this.method(block, root);
      case 'boxes':
        return this.boxes(block, root);
      case 'signatures':
        return this.signatures(block, root);
    }
  }

  private bottom(): number {
    return this.doc.page.height - MARGIN - FOOT;
  }

  /** Begin a new page where less than so much is left of this one. */
  private room(height: number): void {
    if (this.doc.y + height > this.bottom()) this.doc.addPage();
  }

  /** A text cut into what the one font has and what the other has; what neither has stands as a question mark. */
  private runs(text: string, face: Face): Run[] {
    const runs: { font: string; text: string }[] = [];
    for (const sign of text.replace(/[\u2009\u202f\u00a0\t]/g, ' ').replace(/\r?\n/g, ' ')) {
      const font = this.fontFor(face, sign);
      const [own, shown] = font ? [font, sign] : [face, '?'];
      const last = runs.at(-1);
      if (last?.font === own) last.text += shown;
      else runs.push({ font: own, text: shown });
    }
    return runs.length ? runs : [{ font: face, text: ' ' }];
  }

  /** Which font has a sign; undefined where none has. Each sign is looked for once. */
  private fontFor(face: Face, sign: string): string | undefined {
    const key = `${face} ${sign}`;
    if (!this.known.has(key))
      this.known.set(
        key,
        [face, `${face}-more`].find((name) => this.has(name, sign)),
      );
    return this.known.get(key);
  }

  private has(name: string, sign: string): boolean {
    this.doc.font(name);
    const { font } = (this.doc as unknown as { _font: { font: { hasGlyphForCodePoint(code: number): boolean } } })._font;
    return font.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0);
  }

  /** Write a text at a place. */
  private write(text: string, face: Face, size: number, { x, y, width }: { x: number; y: number; width: number }, colour = INK): void {
    this.doc.fontSize(size).fillColor(colour);
    const runs = this.runs(text, face);
    runs.forEach(({ font, text: part }, i) => {
      this.doc.font(font);
      const more = { continued: i < runs.length - 1, width, lineGap: 1 };
      if (i === 0) this.doc.text(part, x, y, more);
      else this.doc.text(part, more);
    });
  }

  private heightOf(text: string, face: Face, size: number, width: number): number {
    this.doc.font(face).fontSize(size);
    return this.doc.heightOfString(text || ' ', { width, lineGap: 1 });
  }

  private heading({ level, text, newPage }: Of<'heading'>, root: PDFKit.PDFStructureElement): void {
    const size = SIZES[level];
    if (newPage && this.doc.y > MARGIN) this.doc.addPage();
    this.room(size + (level === 3 ? 60 : 130));
    const y = this.doc.y + (this.doc.y > MARGIN ? size * 0.7 : 0);
    root.add(this.tagged(`H${level}`, () => this.write(text, 'head', size, { x: MARGIN, y, width: this.width })));
    this.doc.y += size * 0.3;
  }

  private paragraph({ text, soft }: Of<'text'>, root: PDFKit.PDFStructureElement): void {
    const size = soft ? 8.5 : 10;
    for (const line of text.split('\n').filter((one) => one.trim())) {
      this.room(this.heightOf(line, 'text', size, this.width));
      const { y } = this.doc;
      root.add(this.tagged('P', () => this.write(line, 'text', size, { x: MARGIN, y, width: this.width }, soft ? SOFT : INK)));
    }
    this.doc.y += 5;
  }

  private factRows({ rows }: Of<'facts'>, root: PDFKit.PDFStructureElement): void {
    const label = this.width * 0.3;
    const list = this.doc.struct('Table');
    root.add(list);
    for (const [name, text] of rows) {
      const height = Math.max(this.heightOf(name, 'text', 10, label - 10), this.heightOf(text, 'bold', 10, this.width - label));
      this.room(height + 3);
      const { y } = this.doc;
      const row = this.doc.struct('TR');
      list.add(row);
      row.add(this.tagged('TH', () => this.write(name, 'text', 10, { x: MARGIN, y, width: label - 10 }, SOFT)));
      row.add(this.tagged('TD', () => this.write(text, 'bold', 10, { x: MARGIN + label, y, width: this.width - label })));
      row.end();
      this.doc.y = y + height + 3;
    }
    list.end();
    this.doc.x = MARGIN;
    this.doc.y += 5;
  }

  private table({ name, columns, widths, rows }: Of<'table'>, root: PDFKit.PDFStructureElement): void {
    const marked = rows.some(({ glyph }) => glyph) ? 14 : 0;
    const sum = widths.reduce((all, width) => all + width, 0);
    const across = widths.map((width) => ((this.width - marked) * width) / sum);
    const table = this.doc.struct('Table', { title: name });
    root.add(table);
    const height = this.rowHeight({ cells: columns }, across, 'bold');
    const head = (): void => this.row({ cells: columns }, { table, across, marked, height, head: true });
    this.room(44);
    head();
    for (const row of rows) {
      const height = this.rowHeight(row, across, 'text');
      if (this.doc.y + height > this.bottom()) {
        this.doc.addPage();
        head();
      }
      this.row(row, { table, across, marked, height, head: false });
    }
    table.end();
    this.doc.x = MARGIN;
    this.doc.y += 8;
  }

  private rowHeight({ cells }: TableRow, across: readonly number[], face: Face): number {
    return Math.max(...cells.map((cell, i) => this.heightOf(cell, face, 9, across[i] - 8))) + 7;
  }

  private row(
    row: TableRow,
    {
      table,
      across,
      marked,
      height,
      head,
    }: { table: PDFKit.PDFStructureElement; across: readonly number[]; marked: number; height: number; head: boolean },
  ): void {
    const face: Face = head ? 'bold' : 'text';
    const { y } = this.doc;
    const own = this.doc.struct('TR');
    table.add(own);
    let x = MARGIN + marked;
    if (row.glyph) this.artifact(() => drawGlyph(this.doc, row.glyph as GlyphOf, MARGIN + 4, y + 8, 4));
    row.cells.forEach((cell, i) => {
      const place = { x, y: y + 3, width: across[i] - 8 };
      own.add(
        this.tagged(head || i === 0 ? 'TH' : 'TD', () => {
          this.write(cell, face, 9, place, row.struck ? SOFT : INK);
        }),
      );
      x += across[i];
    });
    own.end();
    this.artifact(() =>
      this.doc
        .moveTo(MARGIN, y + height)
        .lineTo(MARGIN + this.width, y + height)
        .lineWidth(head ? 1 : 0.5)
        .strokeColor(head ? INK : LINE)
        .stroke(),
    );
    this.doc.x = MARGIN;
    this.doc.y = y + height + 1;
  }

  /** What is written, told by what it is: a heading, a paragraph, a cell. */
  private tagged(type: string, write: () => void): PDFKit.PDFStructureElement {
    return this.doc.struct(type, {}, write);
  }

  /** Draw what is read aloud by nobody. */
  private artifact(draw: () => void): void {
    this.doc.markContent('Artifact');
    draw();
    this.doc.endMarkedContent();
  }

  /** Draw what has a sentence that says the same. */
  private figure(root: PDFKit.PDFStructureElement, alt: string, draw: () => void): void {
    root.add(this.doc.struct('Figure', { alt }, draw));
  }

  private zone({ chart }: Of<'zone'>, root: PDFKit.PDFStructureElement): void {
    this.room(26);
    const { y } = this.doc;
    const width = this.width * 0.6;
    const at = (part: number): number => MARGIN + part * width;
    this.figure(root, chart.told, () => {
      this.doc
        .rect(at(chart.low), y + 4, at(chart.high) - at(chart.low), 12)
        .fillColor('#e3e8f1')
        .fill();
      this.doc.lineWidth(1).strokeColor(INK);
      for (const end of [chart.low, chart.high])
        this.doc
          .moveTo(at(end), y + 2)
          .lineTo(at(end), y + 18)
          .stroke();
      this.doc.lineWidth(2).strokeColor(BLUE);
      this.doc
        .moveTo(at(chart.value - chart.doubt), y + 10)
        .lineTo(at(chart.value + chart.doubt), y + 10)
        .stroke();
      drawGlyph(this.doc, chart.glyph, at(chart.value), y + 10, 5);
    });
    this.doc.y = y + 24;
    this.doc.x = MARGIN;
  }

  /** A drawing of a method is as wide as the page, less a margin: its words are as large as they are on any other. */
  private method({ scene }: Of<'method'>, root: PDFKit.PDFStructureElement): void {
    const unit = SCENE_WIDTH / this.width;
    this.doc.font('text').fontSize(WORDS);
    const picture = onPaper(scene, { line: WORDS * unit, width: (text) => this.doc.widthOfString(text) * unit });
    this.picture(picture, root, METHOD_PENS);
  }

  private picture(picture: BentPicture, root: PDFKit.PDFStructureElement, pens?: Pens): void {
    const scale = this.width / picture.width;
    const height = scale * picture.height;
    this.room(height + 10);
    const y = this.doc.y + 6;
    this.figure(root, picture.told, () =>
      drawPicture(
        this.doc,
        picture,
        { x: MARGIN, y, scale },
        ({ text, anchor, strong }, x, foot) => {
          const face = strong ? 'bold' : 'text';
          this.doc.font(face).fontSize(WORDS);
          const width = this.doc.widthOfString(text) + 2;
          const left = x - (anchor === 'end' ? width : anchor === 'middle' ? width / 2 : 0);
          // A number is read whatever runs under it.
          if (strong)
            this.doc
              .rect(left - 1, foot - WORDS - 0.5, width, WORDS + 2)
              .fillOpacity(0.8)
              .fill('#ffffff')
              .fillOpacity(1);
          this.write(text, face, WORDS, { x: left, y: foot - WORDS, width }, strong ? BLUE : SOFT);
        },
        pens,
      ),
    );
    this.doc.x = MARGIN;
    this.doc.y = y + height + 4;
  }

  private profile({ chart }: Of<'profile'>, root: PDFKit.PDFStructureElement): void {
    const [height, width] = [90, this.width * 0.8];
    this.room(height + 40);
    const y = this.doc.y + 6;
    const { points } = chart;
    const heights = points.map((point) => point.height);
    const [high, low] = [Math.max(...heights), Math.min(...heights)];
    const left = MARGIN + 60;
    const x = (at: number): number => left + ((at - points[0].at) / (points[points.length - 1].at - points[0].at || 1)) * (width - 60);
    const up = (value: number): number => y + height - ((value - low) / (high - low || 1)) * height;
    this.figure(root, chart.told, () => {
      this.doc
        .rect(left, y, width - 60, height)
        .lineWidth(0.5)
        .strokeColor(LINE)
        .stroke();
      points.forEach((point, i) =>
        i === 0 ? this.doc.moveTo(x(point.at), up(point.height)) : this.doc.lineTo(x(point.at), up(point.height)),
      );
      this.doc.lineWidth(1.6).strokeColor(BLUE).stroke();
      for (const point of points) this.doc.circle(x(point.at), up(point.height), 2.2).fillColor(INK).fill();
      this.write(chart.high, 'text', 8, { x: MARGIN, y: y - 4, width: 58 }, SOFT);
      this.write(chart.low, 'text', 8, { x: MARGIN, y: y + height - 6, width: 58 }, SOFT);
      this.write(chart.from, 'text', 8, { x: left, y: y + height + 3, width: 80 }, SOFT);
      this.write(chart.to, 'text', 8, { x: left + width - 130, y: y + height + 3, width: 80 }, SOFT);
    });
    this.doc.x = MARGIN;
    this.doc.y = y + height + 20;
  }

  private signatures({ names }: Of<'signatures'>, root: PDFKit.PDFStructureElement): void {
    this.room(70);
    const y = this.doc.y + 40;
    const each = this.width / names.length;
    names.forEach((name, i) => {
      const x = MARGIN + i * each;
      this.artifact(() =>
        this.doc
          .moveTo(x, y)
          .lineTo(x + each - 24, y)
          .lineWidth(0.8)
          .strokeColor(INK)
          .stroke(),
      );
      root.add(this.tagged('P', () => this.write(`${name}, date`, 'text', 9, { x, y: y + 4, width: each - 24 }, SOFT)));
    });
    this.doc.x = MARGIN;
    this.doc.y = y + 26;
  }

  /** Numbered places with two boxes each to write in. */
  private boxes({ boxes }: Of<'boxes'>, root: PDFKit.PDFStructureElement): void {
    const [box, high] = [80, 24];
    const width = this.width - 2 * box - 16 - 30;
    boxes.forEach(({ label, ask }, i) => {
      const text = ask ? `${label}. ${ask}` : label;
      const height = Math.max(high, this.heightOf(text, 'text', 10, width)) + 6;
      this.room(height);
      const { y } = this.doc;
      root.add(
        this.tagged('P', () => {
          this.write(String(i + 1), 'bold', 11, { x: MARGIN, y: y + 5, width: 26 });
          this.write(text, 'text', 10, { x: MARGIN + 30, y: y + 5, width });
        }),
      );
      this.artifact(() => {
        for (const k of [0, 1])
          this.doc
            .rect(MARGIN + this.width - (2 - k) * (box + 8) + 8, y, box, high)
            .lineWidth(0.8)
            .strokeColor(INK)
            .stroke();
      });
      this.doc.x = MARGIN;
      this.doc.y = y + height;
    });
  }

  /** The foot of every page: what it is of, and which of how many. */
  private feet(): void {
    const { start, count } = this.doc.bufferedPageRange();
    for (let i = start; i < start + count; i++) {
      this.doc.switchToPage(i);
      // Below the margin a text would begin another page.
      this.doc.page.margins.bottom = 0;
      this.artifact(() => {
        const y = this.doc.page.height - MARGIN;
        this.write(this.report.foot, 'text', 8, { x: MARGIN, y, width: this.width - 90 }, SOFT);
        this.write(`Page ${i + 1} of ${count}`, 'text', 8, { x: MARGIN + this.width - 70, y, width: 70 }, SOFT);
      });
    }
  }
}
