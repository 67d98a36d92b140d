import DxfParser from 'dxf-parser';
import { flatten, linesOf } from './flat';
import { dxfText, svgText } from './written';

const SHEET = { title: 'Foot <of> L-14', mmPerUnit: 0.5 };

/** A drawing on the page, in a box of half its size. */
function drawn(inner: string): SVGSVGElement {
  document.body.insertAdjacentHTML(
    'beforeend',
    `<div class="spec-drawing"><style>.seen{stroke:rgb(1,2,3)}.gone{display:none}</style>
    <svg viewBox="0 0 200 100" style="width:100px;height:50px">${inner}</svg></div>`,
  );
  return document.querySelector('.spec-drawing svg') as SVGSVGElement;
}

describe('a drawing as lines and words', () => {
  afterEach(() => document.querySelectorAll('.spec-drawing').forEach((one) => one.remove()));

  it('is what is seen, where it is seen: turned, shifted, coloured by its style sheet', () => {
    const svg = drawn(`<defs><path d="M0 0H9" stroke="red"/></defs>
      <g transform="translate(20 10) rotate(90)"><line class="seen" x1="0" y1="0" x2="30" y2="0" stroke-width="2"/></g>
      <rect class="gone" x="1" y="1" width="5" height="5"/><path d="M0 0H4" fill="none"/>
      <polygon points="10,20 30,20 30,40" fill="blue"/><text x="5" y="50" font-size="12">12 µm</text>`);
    const { lines, words, width, height } = flatten(svg);
    expect([width, height]).toEqual([200, 100]);
    expect(lines.length).toBe(2);
    const [line, area] = lines;
    expect(line.points.map((point) => point.map((each) => Math.round(each * 100) / 100))).toEqual([
      [20, 10],
      [20, 40],
    ]);
    expect(line).toEqual(jasmine.objectContaining({ stroke: 'rgb(1, 2, 3)', closed: false }));
    expect(line.width).toBeCloseTo(2, 6);
    expect(area).toEqual(jasmine.objectContaining({ closed: true, fill: 'rgb(0, 0, 255)', stroke: null }));
    expect(area.points.length).toBe(3);
    expect(words.map(({ text, size, turn }) => [text, Math.round(size), turn])).toEqual([['12 µm', 12, 0]]);
    expect(words[0].at[0]).toBeCloseTo(5, 3);
    expect(words[0].at[1]).toBeCloseTo(50, 3);
  });

  it('has its curves as straight pieces that lie on them', () => {
    const [circle] = linesOf('M-10 0A10 10 0 1 0 10 0A10 10 0 1 0 -10 0Z', [2, 0, 0, 2, 5, 0]);
    expect(circle.closed).toBeTrue();
    for (const [x, y] of circle.points) expect(Math.hypot(x - 5, y)).toBeCloseTo(20, 1);
    const [curve] = linesOf('M0 0Q10 0 10 10', [1, 0, 0, 1, 0, 0]);
    // The middle of a quadratic curve: a quarter of both ends and half of its arm.
    const middle = curve.points[8];
    expect(middle[0]).toBeCloseTo(7.5, 9);
    expect(middle[1]).toBeCloseTo(2.5, 9);
    expect(linesOf('M0 0H10V10Z m5 5 l1 1', [1, 0, 0, 1, 0, 0]).length).toBe(2);
  });

  it('is cut off where the drawing cuts it off, and seen through as much as it is', () => {
    const svg = drawn(`<defs><clipPath id="c"><rect x="10" y="10" width="50" height="30"/></clipPath></defs>
      <g clip-path="url(#c)" opacity="0.5"><path class="seen" d="M0 20H100M20 0V5" fill="none" stroke-opacity="0.5"/>
      <rect x="0" y="0" width="30" height="30" fill="red" fill-opacity="0.4"/></g>`);
    const { lines } = flatten(svg);
    expect(lines.map(({ points }) => points.length)).toEqual([2, 4]);
    expect(lines[0].points).toEqual([
      [10, 20],
      [60, 20],
    ]);
    expect(lines[0].strokeOpacity).toBeCloseTo(0.25, 9);
    expect(lines[1].fillOpacity).toBeCloseTo(0.2, 9);
    expect(svgText({ width: 1, height: 1, lines, words: [] }, SHEET)).toContain('fill-opacity="0.2"');
    expect(Math.max(...lines[1].points.flat())).toBe(30);
    expect(Math.min(...lines[1].points.flat())).toBe(10);
  });

  it('is written as an SVG that a browser reads back, at its size in millimetres', () => {
    const flat = flatten(drawn('<rect x="10" y="20" width="30" height="40" class="seen" fill="none"/><text x="5" y="50">a &lt; b</text>'));
    const read = new DOMParser().parseFromString(svgText(flat, SHEET), 'image/svg+xml');
    expect(read.querySelector('parsererror')).toBeNull();
    expect(read.documentElement.getAttribute('width')).toBe('100mm');
    expect(read.querySelector('title')?.textContent).toBe('Foot <of> L-14');
    expect(read.querySelector('path')?.getAttribute('d')).toBe('M10 20L40 20L40 60L10 60Z');
    expect(read.querySelector('text')?.textContent).toBe('a < b');
  });

  it('is written as a DXF that another program reads back, at its scale and the right way up', () => {
    const flat = flatten(
      drawn('<rect x="10" y="20" width="30" height="40" class="seen" fill="none"/><text x="5" y="50" font-size="12">12 µm</text>'),
    );
    const read = new DxfParser().parseSync(dxfText(flat, SHEET));
    expect(read?.header['$INSUNITS']).toBe(4);
    type Entity = {
      type: string;
      vertices?: { x: number; y: number }[];
      shape?: boolean;
      text?: string;
      startPoint?: { x: number; y: number };
    };
    const [rect, word] = read?.entities as unknown as Entity[];
    // Half a millimetre a unit; the sheet is 50 mm high, and what is 20 units from its top is 40 mm from its bottom.
    expect(rect.vertices?.map(({ x, y }) => [x, y])).toEqual([
      [5, 40],
      [20, 40],
      [20, 20],
      [5, 20],
    ]);
    expect(rect.shape).toBeTrue();
    expect(word.text).toBe('12 µm');
    expect(word.startPoint?.y).toBeCloseTo(25, 6);
  });
});
