import type { Picture } from '@isometra/core';
import type { MethodMark, MethodResult } from './model.js';

/** What a line or an area of a method's drawing shows. How it looks is up to whoever draws it: a screen, a sheet of paper. */
export type MethodLook =
  'iron' | 'thin' | 'axis' | 'ghost' | 'seat' | 'vial' | 'bubble' | 'seen' | 'profile' | 'along' | 'tile' | 'tool' | 'arrow';

/** Where a part of a drawing stands: moved to a place, then turned clockwise by degrees, about a place of its own if it names one, then mirrored. */
export interface Standing {
  readonly move?: readonly [x: number, y: number];
  readonly turn?: readonly [degrees: number, x?: number, y?: number];
  /** Top to bottom. */
  readonly mirrored?: true;
}

interface Styled {
  readonly look: MethodLook;
  readonly opacity?: number;
  readonly dashed?: true;
  /** What is shown lies outside its limits. */
  readonly out?: boolean;
}

export interface ScenePath extends Styled {
  readonly kind: 'path';
  readonly d: string;
  readonly at?: Standing;
}

export interface SceneCircle extends Styled {
  readonly kind: 'circle';
  readonly r: number;
  readonly x: number;
  readonly y: number;
}

/** Words of the drawing, or a reading beside its mark. */
export interface SceneWords {
  readonly kind: 'words';
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly reading: boolean;
}

export interface SceneGroup {
  readonly kind: 'group';
  readonly at: Standing;
  readonly of: readonly SceneNode[];
}

/** A place where the stylus goes. */
export interface SceneMark {
  readonly kind: 'mark';
  readonly mark: MethodMark;
  readonly at: Standing;
  readonly of: readonly SceneNode[];
}

/** A side on which the stylus may stand: said by pointing at it. */
export interface SceneSide {
  readonly kind: 'side';
  /** Its words, after "the stylus stands on". */
  readonly words: string;
  readonly chosen: boolean;
  /** What of the set-up it changes. */
  readonly sets: Readonly<Record<string, unknown>>;
  readonly at: Standing;
  readonly of: readonly SceneNode[];
}

/** Something that stands so many mm along a line, and may be carried along it. */
export interface SceneSlider {
  readonly kind: 'slider';
  readonly label: string;
  /** mm, from 0 to `most`. */
  readonly distance: number;
  readonly most: number;
  /** How it is written. */
  readonly words: string;
  /** Units of the drawing for a millimetre, and x of its 0. */
  readonly scale: number;
  readonly from: number;
  readonly at: Standing;
  readonly of: readonly SceneNode[];
}

export type SceneNode = ScenePath | SceneCircle | SceneWords | SceneGroup | SceneMark | SceneSide | SceneSlider;

/** How something is read, drawn: 720 wide, whatever is drawn later lies over what was drawn before. */
export interface Scene {
  readonly height: number;
  /** What it shows, for who cannot see it. */
  readonly told: string;
  readonly of: readonly SceneNode[];
}

/** Width of every drawing of a method, in its own units. */
export const SCENE_WIDTH = 720;

/** What a drawing of a method is made from. */
export interface MethodInputs {
  readonly setup: Readonly<Record<string, unknown>>;
  readonly marks: readonly MethodMark[];
  readonly result: MethodResult;
  readonly picture: Picture;
  /** The drawing is shrunk so far that letters need more room between two views than it gives them. */
  readonly narrow?: boolean;
  /** How a length in mm is written. */
  readonly length?: (mm: number) => string;
  /** mm at which what can be carried is held now. */
  readonly held?: number | null;
}

type Style = Omit<Styled, 'look'>;

const pathOf =
  (look: MethodLook) =>
  (d: string, style: Style & { readonly at?: Standing } = {}): ScenePath => ({ kind: 'path', look, d, ...style });

export const iron = pathOf('iron');
export const thin = pathOf('thin');
export const axis = pathOf('axis');
export const seat = pathOf('seat');
export const vial = pathOf('vial');
export const profile = pathOf('profile');
export const seenAt = pathOf('seen');
export const along = pathOf('along');
export const tile = pathOf('tile');
export const tool = pathOf('tool');
export const arrow = pathOf('arrow');
export const ghost = (d: string, out: boolean): ScenePath => ({ kind: 'path', look: 'ghost', d, out });

export const circle = (look: MethodLook, r: number, x = 0, y = 0, style: Style = {}): SceneCircle => ({
  kind: 'circle',
  look,
  r,
  x,
  y,
  ...style,
});

type Anchor = SceneWords['anchor'];
export const words = (x: number, y: number, text: string, anchor: Anchor = 'start'): SceneWords => ({
  kind: 'words',
  text,
  x,
  y,
  anchor,
  reading: false,
});
/** What was read, beside its mark. */
export const reading = (x: number, y: number, text: string, anchor: Anchor = 'middle'): SceneWords => ({
  kind: 'words',
  text,
  x,
  y,
  anchor,
  reading: true,
});

export const group = (at: Standing, of: readonly SceneNode[]): SceneGroup => ({ kind: 'group', at, of });
export const moved = (x: number, y: number, of: readonly SceneNode[]): SceneGroup => group({ move: [x, y] }, of);
export const mark = (of: MethodMark, x: number, y: number, parts: readonly SceneNode[]): SceneMark => ({
  kind: 'mark',
  mark: of,
  at: { move: [x, y] },
  of: parts,
});

/** Something where it is so, else nothing. */
export const where = (so: unknown, ...nodes: readonly SceneNode[]): readonly SceneNode[] => (so ? nodes : []);

/** By how many times errors are drawn larger than they are; nothing where none is known. */
export const errorsDrawn = (y: number, factor: number, { h, v }: MethodResult): readonly SceneNode[] =>
  where(h !== null || v !== null, words(SCENE_WIDTH - 8, y, `errors drawn ×${factor}`, 'end'));
