import { clipPolygon, clipPolyline } from 'lineclip';
import svgpath from 'svgpath';

export type Point = readonly [x: number, y: number];
/** Left, top, right, bottom. */
export type Box = [number, number, number, number];

/** A line of a drawing, in its own units, y downward. */
export interface FlatLine {
  readonly points: readonly Point[];
  readonly closed: boolean;
  /** Colour of the line, and of what it encloses; null where there is none. */
  readonly stroke: string | null;
  readonly fill: string | null;
  /** From 0 to 1. */
  readonly strokeOpacity: number;
  readonly fillOpacity: number;
  readonly width: number;
  readonly dashes: string | null;
}

/** A word of a drawing: the left end of its foot, and how it is turned, degrees, clockwise. */
export interface FlatWord {
  readonly text: string;
  readonly at: Point;
  readonly size: number;
  readonly turn: number;
  readonly colour: string;
}

/** A drawing as lines and words, with nothing that only a style sheet could tell. */
export interface FlatDrawing {
  readonly width: number;
  readonly height: number;
  readonly lines: readonly FlatLine[];
  readonly words: readonly FlatWord[];
}

/** A curve is drawn as so many straight pieces. */
const PIECES = 16;

const SHAPES = 'path, line, polyline, polygon, rect, circle, ellipse';
/** What lies in these is drawn only where something else refers to it. */
const ASIDE = 'defs, clipPath, pattern, marker, symbol, mask';

/** The outline of a shape as a path, in its own coordinates. */
function pathOf(shape: SVGGeometryElement): string {
  const at = (name: string): number => Number(shape.getAttribute(name) ?? 0);
  const round = (x: number, y: number, rx: number, ry: number): string =>
    `M${x - rx} ${y}A${rx} ${ry} 0 1 0 ${x + rx} ${y}A${rx} ${ry} 0 1 0 ${x - rx} ${y}Z`;
  switch (shape.tagName) {
    case 'path':
      // A style sheet may tell its outline instead: nothing here does that.
      return shape.getAttribute('d') ?? '';
    case 'line':
      return `M${at('x1')} ${at('y1')}L${at('x2')} ${at('y2')}`;
    case 'polyline':
      return `M${shape.getAttribute('points') ?? ''}`;
    case 'polygon':
      return `M${shape.getAttribute('points') ?? ''}Z`;
    case 'rect':
      return `M${at('x')} ${at('y')}h${at('width')}v${at('height')}h${-at('width')}Z`;
    case 'circle':
      return round(at('cx'), at('cy'), at('r'), at('r'));
    default:
      return round(at('cx'), at('cy'), at('rx'), at('ry'));
  }
}

/** Points of a cubic curve after its first one. */
function cubic([a, b, c, d]: readonly [Point, Point, Point, Point]): Point[] {
  return Array.from({ length: PIECES }, (_, i) => {
    const t = (i + 1) / PIECES;
    const of = (k: 0 | 1): number => (1 - t) ** 3 * a[k] + 3 * (1 - t) ** 2 * t * b[k] + 3 * (1 - t) * t ** 2 * c[k] + t ** 3 * d[k];
    return [of(0), of(1)] as const;
  });
}

/** A path as straight lines, one for each of its parts. */
export function linesOf(
  path: string,
  matrix: readonly number[],
): readonly { readonly points: readonly Point[]; readonly closed: boolean }[] {
  const lines: { points: Point[]; closed: boolean }[] = [];
  // Both ends of a quadratic curve's arms as those of a cubic one.
  const part = (from: Point, to: Point): Point => [from[0] + (2 / 3) * (to[0] - from[0]), from[1] + (2 / 3) * (to[1] - from[1])];
  svgpath(path)
    .abs()
    .unshort()
    .unarc()
    .matrix([...matrix])
    .iterate((segment, _, x, y) => {
      const [letter, ...given] = segment as [string, ...number[]];
      const here: Point = [x, y];
      const points = Array.from({ length: Math.floor(given.length / 2) }, (_point, i): Point => [given[2 * i], given[2 * i + 1]]);
      const last = lines.at(-1);
      if (letter === 'M') lines.push({ points: [points[0]], closed: false });
      else if (!last) return;
      else if (letter === 'Z' || letter === 'z') last.closed = true;
      else if (letter === 'H') last.points.push([given[0], y]);
      else if (letter === 'V') last.points.push([x, given[0]]);
      else if (letter === 'C') last.points.push(...cubic([here, points[0], points[1], points[2]]));
      else if (letter === 'Q') last.points.push(...cubic([here, part(here, points[0]), part(points[1], points[0]), points[1]]));
      else last.points.push(...points);
    });
  return lines.filter(({ points }) => points.length > 1);
}

/** Whether something is seen: neither it nor what it lies in is hidden. */
const isSeen = (one: Element): boolean => one.checkVisibility({ visibilityProperty: true, opacityProperty: true }) && !one.closest(ASIDE);

/** How much of something is seen through what it lies in, from 0 to 1. */
function opacityOf(one: Element | null, svg: SVGSVGElement): number {
  if (!one || one === svg) return 1;
  return Number(getComputedStyle(one).opacity) * opacityOf(one.parentElement, svg);
}

/** The box that something is cut off at, in the units of the drawing; undefined where it is not. */
function clipOf(svg: SVGSVGElement, one: Element): Box | undefined {
  const cut = one.closest<SVGGraphicsElement>('[clip-path]');
  const id = cut && svg.contains(cut) ? /#([^)"']+)/.exec(cut.getAttribute('clip-path') ?? '')?.[1] : undefined;
  const shape = id === undefined ? null : svg.querySelector<SVGGeometryElement>(`#${CSS.escape(id)} > *`);
  const matrix = cut && matrixIn(svg, cut);
  if (!shape || !matrix) return undefined;
  const points = linesOf(pathOf(shape), matrix).flatMap((line) => line.points);
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return points.length ? [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] : undefined;
}

/** What of a line lies in a box: an open one may come to be several. */
export function cutAt<Line extends Pick<FlatLine, 'points' | 'closed'>>(line: Line, box: Box | undefined): readonly Line[] {
  if (!box) return [line];
  const points = line.points.map(([x, y]): [number, number] => [x, y]);
  const parts = line.closed ? [clipPolygon(points, box)] : clipPolyline(points, box);
  return parts.filter((part) => part.length > 1).map((part) => ({ ...line, points: part }));
}

/** A colour as it is drawn; null where there is none, or where it is a pattern. */
const colourOf = (value: string, opacity: string): string | null =>
  value === 'none' || value.startsWith('url') || Number(opacity) === 0 || /^rgba\(.*, 0\)$/.test(value) ? null : value;

/** From the coordinates of something in a drawing to those of the drawing, as a, b, c, d, e, f. */
function matrixIn(svg: SVGSVGElement, one: SVGGraphicsElement): readonly number[] | undefined {
  const [whole, own] = [svg.getScreenCTM(), one.getScreenCTM()];
  if (!whole || !own) return undefined;
  const { a, b, c, d, e, f } = whole.inverse().multiply(own);
  return [a, b, c, d, e, f];
}

function flatLines(svg: SVGSVGElement, shape: SVGGeometryElement): readonly FlatLine[] {
  const matrix = matrixIn(svg, shape);
  if (!matrix) return [];
  const style = getComputedStyle(shape);
  const stroke = colourOf(style.stroke, style.strokeOpacity);
  const fill = shape.tagName === 'line' ? null : colourOf(style.fill, style.fillOpacity);
  if (stroke === null && fill === null) return [];
  // A line that keeps its width whatever it is drawn at, or grows with it.
  const grown = style.vectorEffect === 'non-scaling-stroke' ? 1 : Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2]));
  const width = Number.parseFloat(style.strokeWidth) * grown;
  const dashes = style.strokeDasharray === 'none' ? null : style.strokeDasharray.replaceAll('px', '');
  const [seen, box] = [opacityOf(shape, svg), clipOf(svg, shape)];
  const opacities = { strokeOpacity: seen * Number(style.strokeOpacity), fillOpacity: seen * Number(style.fillOpacity) };
  return linesOf(pathOf(shape), matrix)
    .map((line) => ({ ...line, stroke, fill, ...opacities, width, dashes }))
    .flatMap((line) => cutAt(line, box));
}

function flatWord(svg: SVGSVGElement, word: SVGTextElement): readonly FlatWord[] {
  const [matrix, text] = [matrixIn(svg, word), word.textContent?.replace(/\s+/g, ' ').trim() ?? ''];
  if (!matrix || text === '' || word.getNumberOfChars() === 0) return [];
  const { x, y } = word.getStartPositionOfChar(0);
  const [a, b, c, d, e, f] = matrix;
  const style = getComputedStyle(word);
  return [
    {
      text,
      at: [a * x + c * y + e, b * x + d * y + f],
      size: Number.parseFloat(style.fontSize) * Math.sqrt(Math.abs(a * d - b * c)),
      turn: (Math.atan2(b, a) * 180) / Math.PI,
      colour: colourOf(style.fill, style.fillOpacity) ?? '#000',
    },
  ];
}

/** A drawing on the screen as lines and words in the units of its view box: as it is seen, styles and all. */
export function flatten(svg: SVGSVGElement): FlatDrawing {
  const box = svg.viewBox.baseVal;
  const { width, height } = box && box.width > 0 ? box : svg.getBoundingClientRect();
  const of = <One extends Element>(what: string): One[] => [...svg.querySelectorAll<One>(what)].filter(isSeen);
  return {
    ...{ width, height },
    lines: of<SVGGeometryElement>(SHAPES).flatMap((shape) => flatLines(svg, shape)),
    words: of<SVGTextElement>('text').flatMap((word) => flatWord(svg, word)),
  };
}
