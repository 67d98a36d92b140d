import type { Drawing } from '@isometra/core';

/** A dimension line on a drawing: along x or along y, in the units of its viewBox. */
export interface DimensionLine {
  /** The field of the set-up, by its path: "bar.diameter". */
  readonly field: string;
  readonly from: readonly [x: number, y: number];
  readonly to: readonly [x: number, y: number];
  /** Where its words stand. */
  readonly words: readonly [x: number, y: number, anchor: 'start' | 'middle' | 'end'];
}

const along = (field: string, x1: number, x2: number, y: number): DimensionLine => ({
  field,
  from: [x1, y],
  to: [x2, y],
  words: [(x1 + x2) / 2, y - 6, 'middle'],
});
const across = (field: string, x: number, y1: number, y2: number): DimensionLine => ({
  field,
  from: [x, y1],
  to: [x, y2],
  words: [x + 8, y2 + 15, 'start'],
});

/** What the lengths of a set-up are on its drawing; a field that has no place on it is not here. */
export const DIMENSION_LINES: Partial<Readonly<Record<Drawing, readonly DimensionLine[]>>> = {
  'bar-between-centres': [along('centreDistance', 128, 592, 176), across('bar.diameter', 430, 239, 265)],
  'bar-in-spindle': [along('bar.freeLength', 170, 652, 322), across('bar.diameter', 420, 247, 269)],
  'turned-bar': [along('centreDistance', 130, 596, 48), across('bar.diameter', 430, 99, 137)],
  quill: [along('freeLength', 132, 476, 166), across('bar.diameter', 250, 214, 254)],
  'head-over-table': [along('radius', 210, 300, 180), along('pivotDistance', 508, 570, 284)],
  'headstock-side': [along('span', 120, 404, 46), along('farDistance', 488, 654, 62)],
  'bar-in-vees': [along('length', 70, 650, 162)],
  'bed-in-plan': [along('bedLength', 178, 622, 258)],
};
