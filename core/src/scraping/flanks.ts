import { fitLine } from '../fit/line.js';

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
  /** Where the metal stands proud of a line through the widths, mm; `ends` where it is hollow between them. */
  readonly at: number | 'ends';
  /** What bows beside that line, µm across. */
  readonly bow: number;
}

const ROOM = 0.1;
const AT_ONE_PLACE = new Set(['hinge-high', 'hinge-crowned']);
const AT_ITS_ENDS = new Set(['hinge-light-middle', 'hinge-hollow']);

/** Where the widths bow: pins tell the sum of both flanks, and a line in it is a taper, not a crooked flank. */
function bowOf(places: readonly ProudPlace[]): Pick<FlankCall, 'at' | 'bow'> {
  const { residuals } = fitLine(
    places.map(({ at }) => at),
    places.map(({ over }) => over),
  );
  const highest = residuals.reduce((best, value, i) => (value > residuals[best] ? i : best), 0);
  const bow = Math.max(...residuals) - Math.min(...residuals);
  // Proud at an end: beside the line it is the middle that is low.
  const end = highest === 0 || highest === places.length - 1;
  return { at: end ? 'ends' : places[highest].at, bow };
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
  const { at, bow } = bowOf(places);
  if (bow <= doubt) return { at, bow, guilt: 'straight' };
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
  return { at, bow, guilt: guilt ?? 'untold' };
}

/**
 * Depth to take off one flank at a place, µm: measured across, removed square to the flank; from both flanks half each. Between
 * the places that were read by the line between them, beyond the last ones as they read.
 *
 * @param angle of the dovetail, degrees.
 */
export function flankDepth(places: readonly ProudPlace[], at: number, angle: number, both: boolean): number {
  const next = places.findIndex((place) => place.at >= at);
  const [before, after] = next < 0 ? [places.at(-1), places.at(-1)] : [places[Math.max(0, next - 1)], places[next]];
  if (!before || !after) return 0;
  const part = after.at > before.at ? Math.min(1, Math.max(0, (at - before.at) / (after.at - before.at))) : 1;
  const over = before.over + part * (after.over - before.over);
  return Math.max(0, over * Math.sin((angle * Math.PI) / 180) * (both ? 0.5 : 1));
}
