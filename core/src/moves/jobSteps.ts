import type { Way } from '../checks/define.js';
import { ANY_PART, type Part } from '../checks/parts.js';
import type { ScrewRule } from './screwDial.js';

/** One step of a job card. */
export interface JobStep {
  readonly text: string;
  /** Beside the step that needs it. */
  readonly caution?: string;
  /** The step at which the needle is watched to its target. */
  readonly needle?: boolean;
  /** A screw is turned at it: at the part all of these are said, in their order. */
  readonly screw?: boolean;
  /** The step at which the movement on tightening is written down. */
  readonly shift?: boolean;
  /** The step at which what really went in is written down. */
  readonly leaves?: boolean;
}

/** Turns figures of a plan into words, in the units of the reader; none of them has a sign. */
export interface PlanWords {
  /** A size, µm: "0.021 mm". */
  readonly size: (um: number) => string;
  /** A slope, µm/m: "0.021 mm in 300 mm". */
  readonly slope: (umPerM: number) => string;
  /** A place or a length, mm: "180 mm". */
  readonly length: (mm: number) => string;
  /** Whether a part carried so many µm comes into its limits; left out where nobody can say. */
  readonly landsIn?: (um: number) => boolean;
}

/** What the steps of every move are written from; texts already in the reader's units and words. */
export interface JobFacts {
  /** "0.021 mm". */
  readonly size: string;
  /** "toward you". */
  readonly direction: string;
  /** Whether the move is in the + direction. */
  readonly plus: boolean;
  /** Which way the part goes, where an arrow can point there. */
  readonly way?: Way;
  /** Which quantity of its check it corrects: "tilt". */
  readonly quantity?: string;
  /** Signed, in the unit of its quantity. */
  readonly amount?: number;
  /** What is moved or worked on. */
  readonly part?: Part;
  /** How metal or shims are wanted: all over alike, as a wedge, or only where it is high. */
  readonly spread?: 'even' | 'wedge' | 'high-places';
  /** Where the needle is watched: "on the quill, operator's side, zeroed". */
  readonly where?: string;
  /** "from 0 to 10.5 div"; empty without a dial. */
  readonly needle?: string;
  /** Which side of the joint comes up, and which goes down: "the left side". */
  readonly raise?: string;
  readonly lower?: string;
  /** What was given and felt so far stands beside the steps, with what comes next: they do not say it a second time. */
  readonly byFeel?: boolean;
  /** Which of two opposed screws is driven on this machine, where it has been seen. */
  readonly rule?: ScrewRule;
}

/** The same with what its own kind has worked out and what the machine card says. */
export interface StepFacts<Plan = Readonly<Record<string, unknown>>, Card = Readonly<Record<string, unknown>>> extends JobFacts {
  readonly plan: Plan;
  readonly card: Card;
  readonly words: PlanWords;
}

export const ISOLATE = 'Isolate and lock out the machine; never power the spindle with an indicator or bar set up.';
export const SNUG = 'Loosen to snug, never free.';
export const RATED = 'Lift with rated gear, never by hand over an edge. Isolate first.';
export const SCRAPERS = 'Scrapers cut. Iron dust and blue: gloves, eyes, air.';

/** What is moved, where a check does not say. */
export const partOf = (facts: JobFacts): Part => facts.part ?? ANY_PART;

export const watch = ({ where, needle }: JobFacts): JobStep => ({
  text: `Set an indicator ${where || 'where it will see the move'}. ${needle ? `Its needle must go ${needle}. ` : ''}Nudge the part toward the stylus once to see which way the needle goes.`,
});

/** The same where a joint is opened: what is zeroed after it was loosened tells nothing of where the part stood. */
export const watchClosed = (facts: JobFacts): JobStep => ({ text: `${watch(facts).text} Zero it before anything is loosened.` });

/** How every card that moves a part by hand ends. */
export const after: readonly JobStep[] = [
  { text: 'Tighten the clamp as in normal use. Read again after each bolt and write down what the needle did.', shift: true },
  { text: 'Take a new round under the same conditions.' },
];

/** Whether a figure in words is nothing: "0.000 mm". */
export const isZero = (text: string): boolean => !/[1-9]/.test(text.split(' ')[0]);

/** Turns of a screw as a hand gives them. */
export function turnsInWords(turns: number): string {
  const size = Math.abs(turns);
  if (size < 1 / 16) return `about ${(size * 360).toFixed(0)}° of the screw`;
  return `about ${size < 1 ? `${Math.round(size * 360)}° of the screw` : `${size.toFixed(2)} turns`}`;
}

/** Steps where a kind of move has none of its own. */
export const plainSteps = (facts: JobFacts): JobStep[] => [
  { text: `Move it ${facts.size} ${facts.direction}.`, caution: ISOLATE },
  watch(facts),
  ...after,
];
