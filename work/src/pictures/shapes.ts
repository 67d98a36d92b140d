import type { MethodLook } from './methods/scene.js';

/** From the coordinates of a shape to those of its picture, as an SVG matrix: a, b, c, d, e, f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** What a shape of a machine shows: castings, what carries them, the true line, where a thing may stand by its limits, where it does stand. */
type MachineLook = 'iron' | 'head' | 'glass' | 'bed' | 'true' | 'thin' | 'zone' | 'limit' | 'axis' | 'section' | 'slide' | 'ring';

/** What a shape shows: of a machine, or of how something is read. */
export type Look = MachineLook | MethodLook | 'ghost-out';

/** A line or an area, as a path in its own coordinates. */
export interface PathShape {
  readonly look: Look;
  readonly d: string;
  readonly at?: Matrix;
  /** Of what it encloses, 0 to 1. */
  readonly opacity?: number;
  readonly dashed?: true;
}

export interface CircleShape {
  readonly look: Look;
  readonly circle: { readonly x: number; readonly y: number; readonly r: number };
  readonly at?: Matrix;
  readonly opacity?: number;
  readonly dashed?: true;
}

export interface PictureWord {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly anchor?: 'start' | 'middle' | 'end';
  /** It stands among lines, and stays readable over them. */
  readonly over?: true;
  /** It is what is looked for: the number of a place. */
  readonly strong?: true;
}

export type Drawn = PathShape | CircleShape | PictureWord;

/** A machine as it is drawn, bent by what is known of it: on a screen, on paper, in a file. */
export interface BentPicture {
  readonly width: number;
  readonly height: number;
  readonly told: string;
  /** In the order in which they are drawn. */
  readonly drawn: readonly Drawn[];
}

export const isWord = (one: Drawn): one is PictureWord => 'text' in one;
export const isCircle = (one: Drawn): one is CircleShape => 'circle' in one;

export const path = (look: Look, d: string, at?: Matrix): PathShape => ({ look, d, ...(at && { at }) });

export const shifted = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

/** Turned by degrees, clockwise, about a place. */
export function turned(degrees: number, x = 0, y = 0): Matrix {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [c, s, -s, c, x - c * x + s * y, y - s * x - c * y];
}

/** One after the other: what is inside first. */
export function within([a, b, c, d, e, f]: Matrix, [a2, b2, c2, d2, e2, f2]: Matrix): Matrix {
  return [a * a2 + c * b2, b * a2 + d * b2, a * c2 + c * d2, b * c2 + d * d2, a * e2 + c * f2 + e, b * e2 + d * f2 + f];
}

/** Shapes that lie in a part of a picture, put where that part is. */
export const placed = (at: Matrix, drawn: readonly Drawn[]): readonly Drawn[] =>
  drawn.map((one) => {
    if (!isWord(one)) return { ...one, at: one.at ? within(at, one.at) : at };
    const [a, b, c, d, e, f] = at;
    return { ...one, x: a * one.x + c * one.y + e, y: b * one.x + d * one.y + f };
  });
