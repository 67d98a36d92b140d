import { insideZone, type Zone } from '../checks/zone.js';

/** What stands at one place along the bed: mm, and the error there with its expanded uncertainty, µm. */
export interface PlaceRead {
  readonly at: number;
  readonly value: number;
  readonly expanded: number | null;
}

export interface AlongBed {
  /** The places in order along the bed. */
  readonly places: readonly PlaceRead[];
  /** Largest less smallest, µm. */
  readonly spread: number;
  /** The spread is more than the doubts of the two can make: the bed is worn, whatever the tailstock does. */
  readonly worn: boolean;
  /** The one movement that suits all places best, signed like the quantity, µm. */
  readonly best: number;
  /** After it every place is in its zone. */
  readonly fits: boolean;
  /** The place that is farthest out after it, and by how much, µm; null where it fits. */
  readonly worst: { readonly at: number; readonly by: number } | null;
  /** Some place is out beyond its doubt as it stands: reason enough to take metal. */
  readonly anyOut: boolean;
}

const outBy = (value: number, [low, high]: Zone): number => Math.max(0, low === null ? 0 : low - value, high === null ? 0 : value - high);

/**
 * One curve out of what was read at several places along the bed: whether it is wear, and what one movement of the
 * tailstock can do for all of them. A move shifts every place alike, so it can only put the middle right. Where they
 * all fit into the zone the one nearest to the aim is taken, or none at all where they are in already; where they do
 * not fit, the ends overhang alike (least of the largest error).
 *
 * @param aim where a move steers, µm. @throws RangeError with fewer than two places.
 */
export function alongBed(read: readonly PlaceRead[], zone: Zone, aim: number): AlongBed {
  if (read.length < 2) throw new RangeError('a curve along the bed needs two places');
  const places = [...read].sort((a, b) => a.at - b.at);
  const least = places.reduce((one, other) => (other.value < one.value ? other : one));
  const most = places.reduce((one, other) => (other.value > one.value ? other : one));
  const spread = most.value - least.value;
  const doubt = Math.hypot(least.expanded ?? 0, most.expanded ?? 0);
  const best = bestShift(least.value, most.value, zone, aim);
  const after = places.map(({ at, value }) => ({ at, by: outBy(value + best, zone) }));
  const worst = after.reduce((one, other) => (other.by > one.by ? other : one));
  const fits = worst.by < 1e-9;
  const anyOut = places.some(({ value, expanded }) => outBy(value, zone) > (expanded ?? 0));
  return { places, spread, worn: spread > doubt, best, fits, worst: fits ? null : worst, anyOut };
}

function bestShift(least: number, most: number, zone: Zone, aim: number): number {
  const [low, high] = zone;
  if (insideZone(least, zone) && insideZone(most, zone)) return 0;
  // Shifts that keep the lowest above the lower bound, and the highest below the upper one.
  const [from, to] = [low === null ? -Infinity : low - least, high === null ? Infinity : high - most];
  if (from > to) return (from + to) / 2;
  const wanted = aim - (least + most) / 2;
  return Math.min(to, Math.max(from, wanted)) + 0;
}
