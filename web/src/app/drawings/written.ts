import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf';
import type { FlatDrawing, Point } from './flat';

/** What a drawing is called, and how large it is. */
export interface Sheet {
  readonly title: string;
  /** Millimetres that one unit of the drawing stands for: 1:1 where that is known, otherwise a document. */
  readonly mmPerUnit: number;
}

const number = (value: number): string => String(Math.round(value * 1e3) / 1e3);
const safe = (text: string): string => text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

const through = (what: 'stroke' | 'fill', opacity: number): string => (opacity < 1 ? ` ${what}-opacity="${number(opacity)}"` : '');

/** A drawing as an SVG file that stands for itself. */
export function svgText({ width, height, lines, words }: FlatDrawing, { title, mmPerUnit }: Sheet): string {
  const path = (points: readonly Point[], closed: boolean): string =>
    `M${points.map((point) => point.map(number).join(' ')).join('L')}${closed ? 'Z' : ''}`;
  const drawn = lines.map(({ points, closed, stroke, fill, strokeOpacity, fillOpacity, width: wide, dashes }) => {
    const dashed = stroke !== null && dashes !== null ? ` stroke-dasharray="${safe(dashes)}"` : '';
    const line =
      stroke === null ? '' : ` stroke="${safe(stroke)}" stroke-width="${number(wide)}"${through('stroke', strokeOpacity)}${dashed}`;
    return `<path d="${path(points, closed)}" fill="${safe(fill ?? 'none')}"${fill === null ? '' : through('fill', fillOpacity)}${line}/>`;
  });
  const written = words.map(({ text, at: [x, y], size, turn, colour }) => {
    const turned = Math.abs(turn) < 0.01 ? '' : ` transform="rotate(${[turn, x, y].map(number).join(' ')})"`;
    return `<text x="${number(x)}" y="${number(y)}" font-size="${number(size)}" fill="${safe(colour)}"${turned}>${safe(text)}</text>`;
  });
  const [wide, high] = [width, height].map((each) => `${number(each * mmPerUnit)}mm`);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${wide}" height="${high}" viewBox="0 0 ${number(width)} ${number(height)}" font-family="sans-serif"><title>${safe(title)}</title>${drawn.join('')}${written.join('')}</svg>\n`;
}

const LINES = 'LINES';
const WORDS = 'WORDS';

/** A drawing as a DXF file in millimetres, y upward: lines on one layer, words on another. Colours are left behind. */
export function dxfText({ height, lines, words }: FlatDrawing, { mmPerUnit }: Sheet): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const name of [LINES, WORDS]) dxf.addLayer(name, 7, 'Continuous');
  const place = ([x, y]: Point): Point => [x * mmPerUnit, (height - y) * mmPerUnit];
  for (const { points, closed } of lines)
    dxf.addLWPolyline(
      points.map((point) => ({ point: point2d(...place(point)) })),
      { layerName: LINES, flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
    );
  for (const { text, at, size, turn } of words)
    dxf.addText(point3d(...place(at), 0), size * mmPerUnit, text, { layerName: WORDS, rotation: -turn });
  return dxf.stringify();
}
