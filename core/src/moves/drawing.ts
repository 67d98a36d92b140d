import type { Way } from '../checks/define.js';
import type { JobFacts } from './jobSteps.js';

/**
 * What the job card draws: the part, what the hand works on, which way it goes. Sides and ways are the machine's, as the operator
 * sees it; how it is put on paper is for the screen.
 */
export type JobDrawing =
  /** From above: screws on the two sides that the part moves between. `drive` is the side of the screw that is driven. */
  | { readonly shows: 'screws'; readonly way: Way; readonly drive: Way | null; readonly slack: Way | null; readonly third: boolean }
  /** From above: what guides a slide, front at the bottom, with the shim between its end and its shoulder or seat. */
  | { readonly shows: 'guide'; readonly what: 'truck' | 'strip'; readonly end: 'front' | 'rear'; readonly side: 'left' | 'right' }
  /** From the front: shims under both ends of a base; the front end is that toward the headstock. */
  | { readonly shows: 'ends'; readonly front: boolean; readonly rear: boolean }
  /** A joint: one side comes up by shims, or the other goes down by metal. */
  | { readonly shows: 'joint'; readonly raise: string; readonly lower: string; readonly metal: boolean }
  /** A head that turns about its pin: from the front for left and right, from the machine's right side otherwise. */
  | { readonly shows: 'head'; readonly way: Way }
  /** From the tailstock's end: the throw of a sleeve, degrees, 0 up and 90 toward the operator. */
  | { readonly shows: 'sleeve'; readonly from: number; readonly to: number }
  /** A taper gib from its large end, or a straight one with its screws numbered in the order in which they are set. */
  | { readonly shows: 'gib'; readonly screws: readonly number[] };

const OPPOSITE: Readonly<Record<Way, Way>> = { toward: 'away', away: 'toward', left: 'right', right: 'left', up: 'down', down: 'up' };

/** Opposed screws: the one on the side the part moves away from is driven, unless this machine was seen to do it the other way. */
export function screwsDrawing(
  { way, rule, spread }: JobFacts,
  { layout, thirdScrew = false }: { layout?: string; thirdScrew?: boolean },
): JobDrawing | undefined {
  // What is turned by its screws does not go straight: an arrow across it would be wrong.
  if (way === undefined || way === 'up' || way === 'down' || spread === 'wedge') return undefined;
  const single = layout === 'single-screw';
  const drive = rule === 'drive-near' ? way : OPPOSITE[way];
  return { shows: 'screws', way, drive: single ? null : drive, slack: single ? null : OPPOSITE[drive], third: thirdScrew };
}

/** A joint that comes up on one side; undefined where nobody says which. */
export const jointDrawing = ({ raise, lower }: JobFacts, metal: boolean): JobDrawing | undefined =>
  raise === undefined || lower === undefined ? undefined : { shows: 'joint', raise, lower, metal };

/** Places of screws in a row, in the order in which they are set: from the middle outward. */
export const middleOutward = (count: number): number[] =>
  Array.from({ length: count }, (_, i) => i).sort((one, other) => Math.abs(one - (count - 1) / 2) - Math.abs(other - (count - 1) / 2));
