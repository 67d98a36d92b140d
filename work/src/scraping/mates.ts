import { planeToScrape, flankCall, flankDepth, pricesOf, type FlankCall, type FlankTurn, type ProudPlace } from '@isometra/core';
import type { DeskEntry, Mate, StoredSurface, Surface } from '@isometra/contract';
import { middleOf, ofKind, placeIn, removes } from './entries.js';
import { standing } from './faults.js';
import { turnedOf } from './left.js';
import type { FlankSince } from './notes.js';

type Plan = Extract<DeskEntry, { kind: 'plan' }>['content'];
type As<Kind extends Mate['as']> = Extract<Mate, { as: Kind }>;

/** The face that another goes with, and how, as seen from that other one. */
export interface WithMate {
  readonly other: StoredSurface;
  readonly mate: Mate;
}

/** The mate of a face, whichever of the two tells it: its own word first. */
export function mateOf(surface: Surface, all: readonly StoredSurface[]): WithMate | null {
  const { mate } = surface;
  const own = mate && all.find(({ id, machineId }) => id === mate.surfaceId && machineId === surface.machineId);
  if (own) return { other: own, mate };
  const other = all.find((entry) => entry.id !== surface.id && entry.mate?.surfaceId === surface.id);
  if (!other?.mate) return null;
  const told = other.mate;
  return { other, mate: told.as === 'flank' ? { ...told, surfaceId: other.id } : { ...told, surfaceId: other.id, x: -told.x, y: -told.y } };
}

/** How a straightedge turned on a face as it is now; nothing where metal came off since, or where the tries rock. */
function turnNow(written: readonly DeskEntry[]): FlankTurn | undefined {
  const entries = standing(written);
  const turned = turnedOf(entries);
  const hinge = ofKind(entries, 'hinge').at(-1);
  const scraped = ofKind(entries, 'pass').filter(removes).at(-1);
  if (!turned || turned.code === 'hinge-rocks' || placeIn(entries, scraped) > placeIn(entries, hinge)) return undefined;
  return { centre: turned.centre, code: turned.code };
}

/** How the other flank turns, seen along this one. */
function thereOf(surface: Surface, other: StoredSurface, { apart }: As<'flank'>): FlankTurn | undefined {
  const seen = turnNow(other.entries);
  return seen && (apart ? { ...seen, centre: surface.width - seen.centre } : seen);
}

/** Places over pins along a face, ascending from its end A. */
const placesFrom = ({ width }: Surface, proud: readonly ProudPlace[], from: 'A' | 'B'): readonly ProudPlace[] =>
  proud.map(({ at, over }) => ({ at: from === 'A' ? at : width - at, over })).sort((one, two) => one.at - two.at);

/** What pins and straightedge tell of two flanks, seen from one of them. */
export interface FlankFound {
  /** Its places along this face, from its end A. */
  readonly call: FlankCall;
  /** Flanks that the straightedge has not told of as they are now. */
  readonly untried: readonly ('here' | 'other')[];
}

/**
 * Which of two flanks is off.
 *
 * @param proud places as they were read over the pins, µm across, + proud. @param doubt µm of one. @param from the end of this face
 *   that those places are counted from. @returns undefined for fewer than three places.
 */
export function flanksOf(
  surface: StoredSurface,
  { other, mate }: { readonly other: StoredSurface; readonly mate: As<'flank'> },
  proud: readonly ProudPlace[],
  doubt: number,
  from: 'A' | 'B',
): FlankFound | undefined {
  const here = turnNow(surface.entries);
  const there = thereOf(surface, other, mate);
  const call = flankCall(placesFrom(surface, proud, from), doubt, surface.width, here, there);
  return call && { call, untried: [...(here ? [] : (['here'] as const)), ...(there ? [] : (['other'] as const))] };
}

/**
 * What a round over pins and the other flank tell once this one was worked: whether the pins are wide where the other flank is
 * high, as it is now. The places may be counted from either end of this face: where they were wide, both flanks would tell.
 *
 * @param read proud places, µm across, how surely, and when they were read.
 */
export function flankSince(
  surface: StoredSurface,
  { other, mate }: { readonly other: StoredSurface; readonly mate: As<'flank'> },
  read: { readonly places: readonly ProudPlace[]; readonly doubt: number; readonly at: string },
): FlankSince {
  const there = thereOf(surface, other, mate);
  const even: FlankTurn = { centre: surface.width / 2, code: 'hinge-even' };
  const otherIsHigh = (['A', 'B'] as const).some((from) => {
    const call = flankCall(placesFrom(surface, read.places, from), read.doubt, surface.width, even, there);
    return call?.guilt === 'other';
  });
  return { readAt: read.at, otherIsHigh };
}

/** Depths off this flank by what the pins read: all of it where it is the guilty one, half where both are; none otherwise. */
export function pinsPlan(surface: Surface, { call }: FlankFound, angle: number): Plan | undefined {
  if (call.guilt !== 'here' && call.guilt !== 'both') return undefined;
  const depths = surface.zones
    .filter(({ use }) => use === 'bear')
    .map((zone) => ({ zone: zone.id, depth: flankDepth(call.proud, middleOf(zone).x, angle, call.guilt === 'both') }));
  const why = call.guilt === 'both' ? 'over pins, half off each flank' : 'over pins, all off this flank';
  return { depths, from: 'pins', why };
}

/** Depths of two faces down to one plane. */
export interface PlanesPlan {
  readonly own: Plan;
  readonly other: Plan;
  /** µm in total that leaving a zone out would save; of which face. */
  readonly prices: readonly { readonly face: 'own' | 'other'; readonly zone: string; readonly saves: number }[];
}

/**
 * Two faces that must be one plane are one fit: depths down to the best plane under the heights of both, from one and the same plate.
 *
 * @param heights µm, + high, by zone; both over one zero. @param tilt µm/m along and across that
 *   alignment asks for; left out, the one that costs least. @returns undefined where fewer than three were read, or none of one face.
 */
export function planesPlan(
  surface: Surface,
  { other, mate }: { readonly other: Surface; readonly mate: As<'plane'> },
  heights: { readonly own: Readonly<Record<string, number>>; readonly other: Readonly<Record<string, number>> },
  doubt: number,
  tilt?: { readonly x: number; readonly y: number },
): PlanesPlan | undefined {
  const read = (
    [
      ['own', surface],
      ['other', other],
    ] as const
  ).flatMap(([face, { zones }]) =>
    zones
      .filter(({ id, use }) => use === 'bear' && heights[face][id] !== undefined)
      .map((zone) => {
        const { x, y } = middleOf(zone);
        const at = face === 'own' ? { x, y } : { x: x + mate.x, y: y + mate.y };
        return { face, zone: zone.id, point: { ...at, height: heights[face][zone.id], doubt, bear: true } };
      }),
  );
  const faces = new Set(read.map(({ face }) => face));
  if (read.length < 3 || faces.size < 2) return undefined;
  const points = read.map(({ point }) => point);
  const best = planeToScrape(points, tilt);
  if (!best) return undefined;
  const prices = pricesOf(points, best, tilt);
  const plan = (which: 'own' | 'other'): Plan => ({
    depths: read.flatMap(({ face, zone }, i) => (face === which ? [{ zone, depth: best.depths[i] }] : [])),
    from: 'plane',
    why: `one plane with ${which === 'own' ? other.name : surface.name}, under ${read.length} heights`.slice(0, 200),
  });
  return {
    own: plan('own'),
    other: plan('other'),
    prices: read.flatMap(({ face, zone }, i) => (prices[i] > 0.5 ? [{ face, zone, saves: prices[i] }] : [])),
  };
}
