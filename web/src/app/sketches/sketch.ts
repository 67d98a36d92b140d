import type { Type } from '@angular/core';

/** A place on the drawing where the stylus goes. */
export interface SketchMark {
  readonly index: number;
  readonly keys: Readonly<Record<string, string | number | boolean>>;
  readonly label: string;
  readonly state: 'next' | 'read' | 'todo';
  /** Reading as shown beside the mark; empty when not read. */
  readonly text: string;
  /** µm toward the instrument from the first reading of its kind, or null. */
  readonly deviation: number | null;
}

/** Where the thing measured was found to stand, µm; null when not known. */
export interface SketchResult {
  readonly offsetHorizontal: number | null;
  readonly offsetVertical: number | null;
  readonly out: boolean;
}

/** Inputs that every sketch takes. */
export interface SketchInputs {
  readonly setup: Readonly<Record<string, unknown>>;
  readonly marks: readonly SketchMark[];
  readonly result: SketchResult;
  readonly pick: (index: number) => void;
}

const headstock = () => import('./headstock-side').then((part) => part.HeadstockSide);
const swept = () => import('./swept-circle').then((part) => part.SweptCircle);

/** Sketches by check: loaded when they are first drawn. */
export const SKETCHES: Readonly<Record<string, () => Promise<Type<unknown>>>> = {
  'tailstock-traverse': () => import('./bar-between-centres').then((part) => part.BarBetweenCentres),
  'tailstock-test-cut': () => import('./turned-bar').then((part) => part.TurnedBar),
  'spindle-axis': () => import('./bar-in-spindle').then((part) => part.BarInSpindle),
  'spindle-play': headstock,
  'spindle-runout': headstock,
  'centre-runout': headstock,
  seat: () => import('./seat-corners').then((part) => part.SeatCorners),
  'tailstock-sweep': swept,
  'turret-bore': swept,
  'guide-bush': swept,
  'sub-spindle': swept,
  'head-tram': swept,
};

/** The sketch of a check: its own, a circle for what is swept, or places along a line. */
export function sketchOf(checkId: string): Promise<Type<unknown>> {
  const own = SKETCHES[checkId];
  if (own) return own();
  return import('./places').then((part) => part.Places);
}

/** An exaggeration that draws the largest of some µm at about `pixels`: 50, 100, 200, 500, … */
export function exaggeration(values: readonly (number | null)[], pixels: number, pixelsPerMm: number): number {
  const largest = Math.max(0, ...values.map((value) => Math.abs(value ?? 0)));
  if (largest === 0) return 500;
  const wanted = pixels / ((largest / 1000) * pixelsPerMm);
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = [5, 2, 1].find((factor) => factor * power <= wanted) ?? 1;
  return Math.min(20_000, Math.max(5, step * power));
}
