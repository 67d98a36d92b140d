import type { Scene } from '../pictures/methods/scene.js';
import type { BentPicture } from '../pictures/shapes.js';
import type { GlyphOf } from './glyphOf.js';

/** A row of a table; one that is struck out is history. */
export interface TableRow {
  readonly cells: readonly string[];
  readonly struck?: boolean;
  /** The mark in front of the row. */
  readonly glyph?: GlyphOf;
}

/** Heights along what was read, µm over mm, with the zone they must stay in. */
export interface ProfileChart {
  readonly points: readonly { readonly at: number; readonly height: number }[];
  /** What it shows, in a sentence: read aloud where it cannot be seen. */
  readonly told: string;
  /** Ends of the axes as they are written. */
  readonly from: string;
  readonly to: string;
  readonly high: string;
  readonly low: string;
}

/** A value in its zone, drawn as a bar: parts of the width from 0 to 1. */
export interface ZoneChart {
  readonly low: number;
  readonly high: number;
  readonly value: number;
  readonly doubt: number;
  readonly told: string;
  readonly glyph: GlyphOf;
}

/** What a report is made of, from its beginning to its end. How it looks is the printer's business. */
export type Block =
  | { readonly kind: 'heading'; readonly level: 1 | 2 | 3; readonly text: string; readonly newPage?: boolean }
  | { readonly kind: 'text'; readonly text: string; readonly soft?: boolean }
  | { readonly kind: 'facts'; readonly rows: readonly (readonly [label: string, text: string])[] }
  | {
      readonly kind: 'table';
      readonly name: string;
      readonly columns: readonly string[];
      readonly widths: readonly number[];
      readonly rows: readonly TableRow[];
    }
  | { readonly kind: 'profile'; readonly chart: ProfileChart }
  | { readonly kind: 'zone'; readonly chart: ZoneChart }
  | { readonly kind: 'picture'; readonly picture: BentPicture }
  /** How something is read, with the numbers of its places. */
  | { readonly kind: 'method'; readonly scene: Scene }
  /** Boxes to write in, numbered. */
  | { readonly kind: 'boxes'; readonly boxes: readonly { readonly label: string; readonly ask: string }[] }
  | { readonly kind: 'signatures'; readonly names: readonly string[] };

/** A report as it is printed. */
export interface Report {
  readonly title: string;
  /** On every page: the machine and the day. */
  readonly foot: string;
  readonly blocks: readonly Block[];
}
