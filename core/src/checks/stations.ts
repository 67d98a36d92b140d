import * as z from 'zod';
import { count, placeList } from '../input/fields.js';
import type { Said } from '../units/said.js';
import type { PlannedSlot } from './define.js';

/** A plan with nothing but places: so many of them evenly, or the user's own. */
export const stationPlan = (label: string, usual: number, most = 60) =>
  z.strictObject({
    stations: count({ label, min: 2, max: most, example: String(usual) }),
    places: placeList({ label: 'Their places', example: '20, 120 mm', min: 2 }),
  });

/** Places a step apart, from 0. */
export function stepped(stations: number, step: number): number[] {
  return Array.from({ length: stations }, (_, i) => Math.round(i * step));
}

/** So many places from one end to the other, rounded to whole mm. */
export function evenly(from: number, to: number, stations: number): number[] {
  return Array.from({ length: stations }, (_, i) => Math.round(from + ((to - from) * i) / Math.max(1, stations - 1)));
}

/** Places along something with one label each. */
export function plannedPlaces(places: readonly number[], label: (at: number, index: number) => Said): PlannedSlot[] {
  return places.map((at, i) => ({ keys: { at }, label: label(at, i), movable: 'places' }));
}

/** Places spread between the ends of something, 5 % clear of each. */
export function spread(length: number, stations: number): number[] {
  return evenly(length * 0.05, length * 0.95, stations);
}

/**
 * A plan that comes back to its first place, because without that a dial that slipped half way makes a wrong move. Where the dial is
 * moved to another mounting on the way, each mounting comes back to its own first place.
 *
 * @param mounting what stays the same as long as the dial hangs where it hangs.
 */
export function closed(slots: readonly PlannedSlot[], mounting: (keys: PlannedSlot['keys']) => string = () => ''): PlannedSlot[] {
  const groups: PlannedSlot[][] = [];
  let hangs: string | undefined;
  for (const slot of slots) {
    const here = mounting(slot.keys);
    if (here === hangs) groups[groups.length - 1].push(slot);
    else groups.push([slot]);
    hangs = here;
  }
  return groups.flatMap((group) =>
    group.length < 2 ? group : [...group, { ...group[0], ask: 'Go back to the first place and read it again.', closing: true }],
  );
}
