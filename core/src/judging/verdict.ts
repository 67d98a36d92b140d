import type { QuantityInfo } from '../checks/define.js';
import { insideZone, type Zone } from '../checks/zone.js';

export type { Zone };
export type Verdict = 'in' | 'out' | 'unsure';

/**
 * Judge a value with its expanded uncertainty against a zone: in when it lies inside by at least U,
 * out when outside by more than U, otherwise unsure. A bound at exactly zero is not guarded as long as U is at
 * most a quarter of the zone: a value that cannot be told from zero meets it.
 *
 * @example verdictOf(0, 3, [0, 20]) // 'in'
 * @example verdictOf(0, 30, [0, 20]) // 'unsure': the dial is too coarse to tell
 */
export function verdictOf(value: number, expanded: number, zone: Zone): Verdict {
  const [low, high] = zone;
  if (low !== null && value < low - expanded) return 'out';
  if (high !== null && value > high + expanded) return 'out';
  const free = expanded <= zoneWidth(zone) / 4;
  const meetsLow = low === null || (low === 0 && free ? value >= -expanded : value >= low + expanded);
  const meetsHigh = high === null || (high === 0 && free ? value <= expanded : value <= high - expanded);
  return meetsLow && meetsHigh ? 'in' : 'unsure';
}

/** Width of a zone; a size's zone is as wide as its upper bound, one without an upper bound has no end. */
export function zoneWidth([low, high]: Zone): number {
  if (high === null) return Infinity;
  return high - (low ?? 0);
}

/** Where a move steers when nothing else is said: the middle, or 0 for a size. */
export function defaultAim([low, high]: Zone): number {
  return low === null || high === null ? 0 : (low + high) / 2;
}

/** The aim of a catalogue quantity where it lies in the zone, else the zone's own; a size aims at nothing. */
export function usualAim({ aim, magnitude }: Pick<QuantityInfo, 'aim' | 'magnitude'>, zone: Zone): number {
  if (magnitude) return 0;
  return aim !== undefined && insideZone(aim, zone) ? aim : defaultAim(zone);
}
