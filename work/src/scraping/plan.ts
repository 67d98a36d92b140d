import {
  planeToScrape,
  cyclesAnEvening,
  joinBites,
  pricesOf,
  stripPlan,
  zonePasses,
  type BitePlace,
  FILE_SIZES,
  type SizeWriter,
} from '@isometra/core';
import type { DeskEntry, Surface, Zone } from '@isometra/contract';
import { middleOf } from './entries.js';

type Plan = Extract<DeskEntry, { kind: 'plan' }>['content'];

/** The end of a face that stands high, as it lies in its own drawing. */
export type HighEnd = 'left' | 'right' | 'near' | 'far';

const bearing = ({ zones }: Surface): Zone[] => zones.filter(({ use }) => use === 'bear');

/** A slope of a face: higher by so many µm over all of it, at one of its ends or edges. */
export interface Slope {
  readonly wedge: number;
  readonly high: HighEnd;
}

/**
 * Depths for a wedge, or for two at once as one print: 0 at the lowest zone, each other one by its middle.
 *
 * What all of it would come down by tilts nothing: the lowest zone is left alone.
 */
export function wedgePlan(surface: Surface, ...slopes: readonly Slope[]): Plan {
  const part = ({ x, y }: { readonly x: number; readonly y: number }, high: HighEnd): number => {
    if (high === 'right') return x / surface.width;
    if (high === 'left') return 1 - x / surface.width;
    return high === 'near' ? y / surface.height : 1 - y / surface.height;
  };
  const raw = bearing(surface).map((zone) => ({
    zone: zone.id,
    depth: slopes.reduce((sum, { wedge, high }) => sum + wedge * part(middleOf(zone), high), 0),
  }));
  const least = Math.min(...raw.map(({ depth }) => depth));
  const depths = raw.map(({ zone, depth }) => ({ zone, depth: depth - least }));
  return { depths, from: 'wedge', why: wedgeWords(slopes, 0, FILE_SIZES) };
}

/** "0.050 mm high at the left, all of it by 0.010 mm". @param down µm off all of it. */
export function wedgeWords(slopes: readonly Slope[], down: number, size: SizeWriter): string {
  const tilts = slopes.map(({ wedge, high }) => `${size(wedge, 'deviation')} high at the ${high}`).join(' and ');
  return [tilts, down > 0 ? `all of it by ${size(down, 'deviation')}` : ''].filter((part) => part !== '').join(', ');
}

/** A plan with all of its zones brought down by so much more, µm. */
export const withAll = (plan: Plan, down: number): Plan =>
  down > 0
    ? {
        ...plan,
        depths: plan.depths.map(({ zone, depth }) => ({ zone, depth: depth + down })),
      }
    : plan;

/** Passes over zones, cycles and evenings. */
export type Price = ReturnType<typeof priceOf>;

/**
 * Two schools of a face that is to be tilted and brought down: tilted first, its finish is made once; brought down and finished
 * first, the tilt scrapes that finish off again and it is made twice.
 *
 * @param down µm off all of it. @param pass depths, µm.
 */
export function schoolsOf(
  surface: Surface,
  slopes: readonly Slope[],
  down: number,
  pass: { readonly rough: number; readonly fine: number },
): { readonly tiltFirst: Price; readonly downFirst: Price } {
  const tilt = wedgePlan(surface, ...slopes);
  const tiltFirst = priceOf(surface, withAll(tilt, down), pass);
  const flat = priceOf(surface, withAll(wedgePlan(surface), down), pass);
  const after = priceOf(surface, tilt, pass);
  const again = surface.passes.keepFine;
  const { session, setUp, cycle } = surface.evening;
  const cycles = flat.cycles + after.cycles + again;
  const zonePasses = flat.zonePasses + after.zonePasses + again * bearing(surface).length;
  return { tiltFirst, downFirst: { zonePasses, cycles, evenings: Math.ceil(cycles / cyclesAnEvening(session, setUp, cycle)) } };
}

/** What a plan asks for in all: passes over the zones, cycles of its deepest one, and evenings. */
export function priceOf({ passes, evening }: Surface, { depths }: Plan, pass: { readonly rough: number; readonly fine: number } = passes) {
  const each = depths.map(({ depth }) => {
    const { rough, fine } = zonePasses(depth, pass.rough, pass.fine, passes.keepFine);
    return rough + fine;
  });
  const cycles = Math.max(0, ...each);
  const anEvening = cyclesAnEvening(evening.session, evening.setUp, evening.cycle);
  return { zonePasses: each.reduce((sum, count) => sum + count, 0), cycles, evenings: Math.ceil(cycles / anEvening) };
}

/**
 * A wedge as strips marked on the iron from its high end: how far each pass reaches, in working order, and what is left alone.
 *
 * @returns mm from the high end, and µm that it tilts the face by; no marks where the wedge is less than half a pass.
 */
export function stripMarks(
  { width, height }: Surface,
  { wedge, high }: Slope,
  passDepth: number,
  blade = 0,
): { readonly marks: readonly number[]; readonly tilt: number } {
  const length = high === 'left' || high === 'right' ? width : height;
  const { passes, tilt } = stripPlan({ wedge, passDepth, length, blade });
  return { marks: passes.map(({ from }) => length - from), tilt };
}

export interface PlanePlan {
  readonly plan: Plan;
  /** µm in total that leaving a zone out would save, by zone: only those that the plane rests on. */
  readonly prices: readonly { readonly zone: string; readonly saves: number }[];
}

/**
 * Depths down to the best plane under heights read in the middle of each zone: only removal, the least of it.
 *
 * @param heights µm, + high. @param doubt µm of one, or of each by zone. @param slope what alignment asks the face to be left at: then only its
 *   height is free; `none` for as it was read, without tilt. @returns undefined where fewer than three were read, or none with a slope.
 */
export function planePlan(
  surface: Surface,
  heights: Readonly<Record<string, number>>,
  doubt: number | Readonly<Record<string, number>>,
  slope?: Slope | 'none',
): PlanePlan | undefined {
  const read = bearing(surface).filter(({ id }) => heights[id] !== undefined);
  if (read.length < (slope ? 1 : 3)) return undefined;
  const tilt = tiltAsked(surface, slope);
  const points = read.map((zone) => ({
    ...middleOf(zone),
    height: heights[zone.id],
    doubt: typeof doubt === 'number' ? doubt : (doubt[zone.id] ?? 0),
    bear: true,
  }));
  const best = planeToScrape(points, tilt);
  if (!best) return undefined;
  const prices = pricesOf(points, best, tilt);
  return {
    plan: {
      depths: read.map(({ id }, i) => ({ zone: id, depth: best.depths[i] })),
      from: 'plane',
      why: `down to the plane under ${read.length} heights`,
    },
    prices: read.flatMap(({ id }, i) => (prices[i] > 0.5 ? [{ zone: id, saves: prices[i] }] : [])),
  };
}

/**
 * Heights of two bites of a straightedge as one profile along the face, each zone at its middle.
 *
 * @param first µm by zone; it keeps its zero. @param second at two zones or more that the first has too. @param doubt µm of one.
 * @returns undefined where they do not overlap enough.
 */
export function joinHeights(
  surface: Surface,
  first: Readonly<Record<string, number>>,
  second: Readonly<Record<string, number>>,
  doubt: number,
): { readonly heights: Readonly<Record<string, number>>; readonly doubts: Readonly<Record<string, number>> } | undefined {
  const zones = bearing(surface).map((zone) => ({ id: zone.id, at: middleOf(zone).x }));
  const places = (heights: Readonly<Record<string, number>>): BitePlace[] =>
    zones.flatMap(({ id, at }) => (heights[id] === undefined ? [] : [{ at, height: heights[id], doubt }]));
  const joined = joinBites(places(first), places(second));
  const of = (value: (place: BitePlace) => number) =>
    Object.fromEntries(
      (joined ?? []).flatMap((place) => zones.filter(({ at }) => at === place.at).map(({ id }) => [id, value(place)] as const)),
    );
  return joined && { heights: of(({ height }) => height), doubts: of((place) => place.doubt) };
}

/** What alignment asks for as a tilt of the face, µm/m along and across; nothing where it is free. */
export function tiltAsked({ width, height }: Surface, slope?: Slope | 'none'): { readonly x: number; readonly y: number } | undefined {
  if (slope === undefined || slope === 'none') return slope && { x: 0, y: 0 };
  const { wedge, high } = slope;
  const along = high === 'left' || high === 'right';
  const up = (1000 * wedge) / (along ? width : height);
  const signed = high === 'left' || high === 'far' ? -up : up;
  return along ? { x: signed, y: 0 } : { x: 0, y: signed };
}

/** A zone that bears, by its two opposite corners. */
const box = (number: number, [x, y]: readonly [number, number], [u, v]: readonly [number, number]): Zone => ({
  id: String(number),
  use: 'bear',
  outline: [
    { x, y },
    { x: u, y },
    { x: u, y: v },
    { x, y: v },
  ],
});

/** A grid of zones over a face, numbered row by row as they are read, all to bear. */
export function gridZones(width: number, height: number, columns: number, rows: number): Zone[] {
  const [w, h] = [width / columns, height / rows];
  return Array.from({ length: columns * rows }, (_, i) => {
    const [x, y] = [(i % columns) * w, Math.floor(i / columns) * h];
    return box(i + 1, [x, y], [x + w, y + h]);
  });
}

/** Zones one inside the other, as the pen goes round on the iron: the outermost first, each of the next lying on it. */
export function nestedZones(width: number, height: number, count: number): Zone[] {
  return Array.from({ length: count }, (_, i) => {
    const [x, y] = [(i * width) / (2 * count), (i * height) / (2 * count)];
    return box(i + 1, [x, y], [width - x, height - y]);
  });
}
