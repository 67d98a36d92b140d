import { ANY_PART, type Part } from '../checks/parts.js';
import type { ScrewRule } from './screwDial.js';

/** One step of a job card. */
export interface JobStep {
  readonly text: string;
  /** Beside the step that needs it. */
  readonly caution?: string;
  /** The step at which the needle is watched to its target. */
  readonly needle?: boolean;
  /** The step at which the movement on tightening is written down. */
  readonly shift?: boolean;
  /** The step at which what really went in is written down. */
  readonly leaves?: boolean;
}

/** What a job card is written from; texts already in the reader's units and words. */
export interface JobFacts {
  /** "0.021 mm". */
  readonly size: string;
  /** "toward you". */
  readonly direction: string;
  /** Whether the move is in the + direction. */
  readonly plus: boolean;
  /** What is moved or worked on. */
  readonly part?: Part;
  /** How metal or shims are wanted: all over alike, as a wedge, or only where it stands high. */
  readonly spread?: 'even' | 'wedge' | 'high-places';
  readonly turns?: number;
  /** "0.05 mm + 0.02 mm", thickest first. */
  readonly leaves?: string;
  /** Leaves that come out for them: "0.075 mm". */
  readonly out?: string;
  readonly frontLeaves?: string;
  readonly rearLeaves?: string;
  readonly angle?: number;
  readonly turn?: number;
  /** How far an eccentric gets when it cannot do it all: "0.1 mm". */
  readonly reach?: string;
  /** What the ways must be moved by where it cannot: "0.178 mm". */
  readonly ways?: string;
  /** Height change that comes with a sideways turn of an eccentric: "0.012 mm up"; empty when there is none to tell. */
  readonly heightChange?: string;
  /** Eighths of a turn to give now, and in all. */
  readonly eighthsNow?: number;
  readonly eighths?: number;
  /** Where the needle is watched: "on the quill, operator's side, zeroed". */
  readonly where?: string;
  /** "from 0 to 10.5 div"; empty without a dial. */
  readonly needle?: string;
  /** Which truck takes a shim, how thick it is, what its bolts are tightened to, and what the finest leaf would do. */
  readonly truck?: string;
  readonly thickness?: string;
  readonly torque?: string;
  readonly finest?: string;
  /** Which side of the joint comes up, and which goes down: "the left side". */
  readonly raise?: string;
  readonly lower?: string;
  /** Strips of a wedge, with their passes: "0 to 60 mm: 7 passes". */
  readonly strips?: readonly string[];
  /** A gib of even thickness, pressed by so many screws. */
  readonly straight?: boolean;
  readonly screws?: number;
  /** Bolts that hold a head. */
  readonly bolts?: number;
  readonly layout?: string;
  /** A third screw locks what two opposed ones move. */
  readonly thirdScrew?: boolean;
  /** Where the screws are: "low at the tail end, one each side". */
  readonly screwsSit?: string;
  /** Which screw is driven on this machine, where it has been seen. */
  readonly rule?: ScrewRule;
  /** How much a centre comes up with shims that only tilt it: "0.044 mm". */
  readonly centreLift?: string;
  /** What is done to each face of a casting: "front vee near, outer: scrape 0.021 mm". */
  readonly faces?: readonly string[];
  /** What is laid under a roll of a sine plate, and what its leaves do not give: "0.204 mm", "0.002 mm in 300 mm". */
  readonly stack?: string;
  readonly leftOver?: string;
  /** Whether it is dowelled where it stands; undefined where nobody said. */
  readonly dowels?: boolean;
  /** Depths of a roughing and a finishing pass: "0.012 mm", "0.005 mm". */
  readonly passes?: readonly [string, string];
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

/** How every card that moves a part by hand ends. */
export const after: readonly JobStep[] = [
  { text: 'Tighten the clamp as in normal use. Read again after each bolt and write down what the needle did.', shift: true },
  { text: 'Take a new round under the same conditions.' },
];

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
