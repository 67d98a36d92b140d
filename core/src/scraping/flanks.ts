import { planeToScrape } from './planeToScrape.js';

/** Metal that is proud at a place along a dovetail: mm from its end A, µm measured across. */
export interface ProudPlace {
  readonly at: number;
  readonly over: number;
}

/** How a straightedge turned on a flank: where it bears, mm from the same end A; what its grip says (`hinge-…`). */
export interface FlankTurn {
  readonly centre: number;
  readonly code: string;
}

/**
 * Which flank of a dovetail is off. `straight`: its width goes along a line within its doubt, which no straightedge sees.
 * `even`: both flanks bear evenly although the pins tell a bow. `untold`: a flank has not been tried, or one tells something else.
 */
export type FlankGuilt = 'here' | 'other' | 'both' | 'straight' | 'even' | 'untold';

export interface FlankCall {
  readonly guilt: FlankGuilt;
  /** Where the metal stands most proud of the line under the widths, mm; `ends` where it is hollow between them. */
  readonly at: number | 'ends';
  /** What bows above that line, µm across: at its most, and at every place that was read. */
  readonly bow: number;
  readonly proud: readonly ProudPlace[];
  /** What that line goes by from the first place to the last, µm across: a taper, which no straightedge tells of. */
  readonly taper: number;
}

const ROOM = 0.1;
const AT_ONE_PLACE = new Set(['hinge-high', 'hinge-crowned']);
const AT_ITS_ENDS = new Set(['hinge-light-middle', 'hinge-hollow']);

/** Where the widths bow: pins tell the sum of both flanks, and the highest line under them is a taper, not a crooked flank. */
function bowOf(places: readonly ProudPlace[]): Omit<FlankCall, 'guilt'> | undefined {
  const best = planeToScrape(places.map(({ at, over }) => ({ x: at, y: 0, height: over, doubt: 0, bear: true })));
  if (!best) return undefined;
  const proud = places.map(({ at }, i) => ({ at, over: best.depths[i] }));
  const highest = proud.reduce((most, { over }, i) => (over > proud[most].over + 1e-9 ? i : most), 0);
  const end = highest === 0 || highest === proud.length - 1;
  const taper = (best.plane.x * (places[places.length - 1].at - places[0].at)) / 1000;
  return { at: end ? 'ends' : proud[highest].at, bow: proud[highest].over, proud, taper };
}

/**
 * The guilty flank of a dovetail: pins over both tell where it is proud, a straightedge on each tells which of them is high
 * there. Rather no answer than a wrong one: where a flank has not been tried, or is high somewhere else, it is `untold`.
 *
 * @param places at least three, ascending. @param doubt µm of a width. @param length mm of the dovetail.
 * @returns undefined for fewer than three places. Source: docs/methods/scraping.md.
 */
export function flankCall(
  places: readonly ProudPlace[],
  doubt: number,
  length: number,
  here?: FlankTurn,
  other?: FlankTurn,
): FlankCall | undefined {
  if (places.length < 3) return undefined;
  const found = bowOf(places);
  if (!found) return undefined;
  const { at, bow } = found;
  if (bow <= doubt) return { ...found, guilt: 'straight' };
  const spacing = Math.max(...places.slice(1).map((place, i) => place.at - places[i].at));
  const room = Math.max(ROOM * length, spacing / 2);
  const tells = (turn?: FlankTurn): 'high' | 'even' | 'else' => {
    if (!turn) return 'else';
    if (turn.code === 'hinge-even') return 'even';
    if (at === 'ends') return AT_ITS_ENDS.has(turn.code) ? 'high' : 'else';
    return AT_ONE_PLACE.has(turn.code) && Math.abs(turn.centre - at) <= room ? 'high' : 'else';
  };
  const guilt = (
    {
      'high high': 'both',
      'high even': 'here',
      'even high': 'other',
      'even even': 'even',
    } as const satisfies Record<string, FlankGuilt>
  )[`${tells(here)} ${tells(other)}` as 'high high'];
  return { ...found, guilt: guilt ?? 'untold' };
}

/**
 * Depth to take off one flank at a place that was found `proud`, µm: measured across, removed square to the flank; from both flanks half each. Between
 * the places that were read by the line between them, beyond the last ones as they read.
 *
 * @param angle of the dovetail, degrees.
 */
export function flankDepth(proud: readonly ProudPlace[], at: number, angle: number, both: boolean): number {
  const next = proud.findIndex((place) => place.at >= at);
  const [before, after] = next < 0 ? [proud.at(-1), proud.at(-1)] : [proud[Math.max(0, next - 1)], proud[next]];
  if (!before || !after) return 0;
  const part = after.at > before.at ? Math.min(1, Math.max(0, (at - before.at) / (after.at - before.at))) : 1;
  const over = before.over + part * (after.over - before.over);
  return Math.max(0, over * Math.sin((angle * Math.PI) / 180) * (both ? 0.5 : 1));
}
