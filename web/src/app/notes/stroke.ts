import { getStroke } from 'perfect-freehand';
import type { Mark, Spot } from '@isometra/contract';

/** A picture is drawn over as if it were so wide; its height follows from its shape. */
export const WIDE = 1000;

/** Width of a line, and length of the head of an arrow, in the same unit. */
const LINE = 9;
const HEAD = 34;

const at = ([x, y]: Spot, tall: number): [number, number] => [x * WIDE, y * tall];
const figure = (value: number): string => value.toFixed(1);

/** A line by hand as the outline of its stroke. */
export function linePath(points: readonly Spot[], tall: number): string {
  const outline = getStroke(
    points.map((point) => at(point, tall)),
    { size: LINE, thinning: 0, smoothing: 0.6, streamline: 0.4, last: true },
  );
  return outline.map(([x, y], i) => `${i ? 'L' : 'M'}${figure(x)} ${figure(y)}`).join('') + (outline.length ? 'Z' : '');
}

/** An arrow as lines: its shaft and the two of its head. */
export function arrowPath(from: Spot, to: Spot, tall: number): string {
  const [[ax, ay], [bx, by]] = [at(from, tall), at(to, tall)];
  const turn = Math.atan2(by - ay, bx - ax);
  const wing = (angle: number): string =>
    `M${figure(bx)} ${figure(by)}L${figure(bx - HEAD * Math.cos(turn + angle))} ${figure(by - HEAD * Math.sin(turn + angle))}`;
  return `M${figure(ax)} ${figure(ay)}L${figure(bx)} ${figure(by)}${wing(0.45)}${wing(-0.45)}`;
}

/** A mark ready to be drawn. */
export interface Drawn {
  readonly fill: string;
  readonly stroke: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

const NOTHING: Drawn = { fill: '', stroke: '', text: '', x: 0, y: 0 };

/** @param tall height of the picture where it is WIDE wide. */
export function drawn(mark: Mark, tall: number): Drawn {
  switch (mark.kind) {
    case 'line':
      return { ...NOTHING, fill: linePath(mark.points, tall) };
    case 'arrow':
      return { ...NOTHING, stroke: arrowPath(mark.from, mark.to, tall) };
    case 'words': {
      const [x, y] = at(mark.at, tall);
      return { ...NOTHING, text: mark.text, x, y };
    }
  }
}
