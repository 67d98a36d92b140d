import type { Way } from '../checks/define.js';
import type { JobFacts } from './jobSteps.js';
import { OPPOSITE } from './screwDial.js';

/** A way that a drawing from above can show. */
export type LevelWay = Exclude<Way, 'up' | 'down'>;

/**
 * What the job card draws: the part, what the hand works on, which way it goes. Sides and ways are the machine's, as the operator
 * sees it; how it is put on paper is for the screen.
 */
export type JobDrawing =
  /** From above: a part between the sides of two opposed screws; of one screw that pulls and pushes there is no pair. */
  | { readonly shows: 'screws'; readonly way: LevelWay; readonly pair: ScrewPair | null; readonly third: boolean }
  /** From above: what guides a slide, front at the bottom, with the shim between its end and its shoulder or seat. */
  | { readonly shows: 'guide'; readonly end: 'front' | 'rear'; readonly side: 'left' | 'right' }
  /** From above: a way that is pulled over at its two ends, a dial on the operator's side of each; µm, + toward the operator. */
  | { readonly shows: 'pulled'; readonly near: number; readonly far: number }
  /** From the front: shims under both ends of a base; the front end is that toward the headstock. */
  | { readonly shows: 'ends'; readonly front: boolean; readonly rear: boolean }
  /** A joint: one side comes up by shims, or the other goes down by metal. */
  | { readonly shows: 'joint'; readonly raise: string; readonly lower: string; readonly metal: boolean }
  /** A head that turns about its pin: from the front for left and right, from the machine's right side otherwise. */
  | { readonly shows: 'head'; readonly way: LevelWay }
  /** From the tailstock's end: the throw of a sleeve, degrees, 0 up and 90 toward the operator. */
  | { readonly shows: 'sleeve'; readonly from: number; readonly to: number }
  /** A taper gib from its large end, or a straight one with its screws numbered in the order in which they are set. */
  | { readonly shows: 'gib'; readonly screws: readonly number[] };

/** The sides on which the screw that is driven and the one that is slacked sit. */
export interface ScrewPair {
  readonly drive: LevelWay;
  readonly slack: LevelWay;
}

const isLevel = (way: Way | undefined): way is LevelWay => way !== undefined && way !== 'up' && way !== 'down';

/** Opposed screws: the one on the side the part moves away from is driven, unless this machine was seen to do it the other way. */
export function screwsDrawing(
  { way, rule, spread }: JobFacts,
  { layout, thirdScrew = false }: { layout?: string; thirdScrew?: boolean },
): JobDrawing | undefined {
  // What is turned by its screws does not go straight: an arrow across it would be wrong.
  if (!isLevel(way) || spread === 'wedge') return undefined;
  const drive = rule === 'drive-near' ? way : OPPOSITE[way];
  return { shows: 'screws', way, pair: layout === 'single-screw' ? null : { drive, slack: OPPOSITE[drive] }, third: thirdScrew };
}

/** A head that turns; undefined where no way is known that can be drawn. */
export const headDrawing = ({ way }: JobFacts): JobDrawing | undefined => (isLevel(way) ? { shows: 'head', way } : undefined);

/** A joint that comes up on one side; undefined where nobody says which. */
export const jointDrawing = ({ raise, lower }: JobFacts, metal: boolean): JobDrawing | undefined =>
  raise === undefined || lower === undefined ? undefined : { shows: 'joint', raise, lower, metal };

/** Places of screws in a row, in the order in which they are set: from the middle outward. */
export const middleOutward = (count: number): number[] =>
  Array.from({ length: count }, (_, i) => i).sort((one, other) => Math.abs(one - (count - 1) / 2) - Math.abs(other - (count - 1) / 2));
