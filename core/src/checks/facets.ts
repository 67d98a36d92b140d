import type { DoubtCode } from './doubts.js';
import type { Values } from '../instruments/slots.js';
import type { Zone } from './zone.js';

/** The drawings there are, by what they show. */
export type Drawing =
  | 'bar-between-centres'
  | 'bar-in-spindle'
  | 'bar-in-vees'
  | 'bed-in-plan'
  | 'column-in-elevation'
  | 'faced-disc'
  | 'head-over-table'
  | 'headstock-side'
  | 'places'
  | 'push-pull'
  | 'quill'
  | 'seat-corners'
  | 'square-in-plan'
  | 'swept-circle'
  | 'table-in-plan'
  | 'tailstock-way'
  | 'turret-flat'
  | 'turned-bar'
  | 'way-from-the-side';

/** How a check is drawn on the bench: which drawing, and the words that stand at its sides. */
export interface Picture {
  readonly drawing: Drawing;
  /** From where it is seen: "from above, you at the bottom". */
  readonly seen?: string;
  /** Words on the drawing, by their place on it: an angle, "left", "right", "along". */
  readonly words?: Readonly<Record<string, string>>;
  /** What is swept is a bore unless the set-up says otherwise. */
  readonly bore?: true;
  /** Quantities that bend it: h sideways, v in height. */
  readonly bends?: { readonly h?: string; readonly v?: string };
}

/** Something of the machine that a quantity makes known: the survey is drawn from it, and other set-ups are filled in. */
export interface Fact {
  readonly quantity: string;
  /** Name of the thing known: "axisSlopeH". */
  readonly name: string;
  /** Only for this kind of set-up. */
  readonly when?: (setup: Values) => boolean;
}

/** One act of the hand that makes a call surer: what it leaves of a doubt (0 none, 1 all). */
export interface HelpAct {
  readonly kind: 'turn' | 'bar' | 'set-up' | 'base';
  readonly doubt: DoubtCode;
  readonly left: number;
  readonly text: string;
  /** Whether it can be done at all, for a set-up and the places (`at`, mm) read; always if left out. */
  readonly possible?: (setup: Values, places: readonly number[]) => boolean;
}

/** The zone of a quantity that follows from stated work, with the sum that led to it. */
export interface JobZone {
  readonly quantity: string;
  readonly zone: Zone;
  readonly sum: string;
}

/** Work that limits follow from, in base units: mm, µm. */
export interface JobFigures {
  readonly taper: { readonly taper: number; readonly length: number; readonly centres?: number };
  readonly 'reamed-hole': { readonly oversize: number };
  readonly 'hole-pattern': { readonly error: number; readonly length: number };
  readonly 'face-milling': { readonly flatness: number; readonly diameter: number };
  readonly facing: { readonly hollow: number; readonly diameter: number };
}
export type JobRules = { readonly [Job in keyof JobFigures]?: (work: JobFigures[Job]) => readonly JobZone[] };
