import type { QuantityInfo } from '../checks/define.js';
import { insideZone, type Zone } from '../checks/zone.js';

export type { Zone };
export type Verdict = 'in' | 'out' | 'unsure';

/** What rounding leaves of a value that is exactly nothing: far finer than anything that is read. */
const ROUNDING = 1e-3;

/**
 * Judge a value with its expanded uncertainty against a zone: in when it lies inside by at least U,
 * out when outside by more than U, otherwise unsure. A bound at exactly zero of a signed quantity is a direction: as long as U is at
 * most a quarter of the zone, a value on the good side meets it without guard, and one on the forbidden side is never in.
 *
 * @example verdictOf(0, 3, [0, 20]) // 'in'
 * @example verdictOf(-1, 3, [0, 20]) // 'unsure': it may be on the forbidden side
 * @example verdictOf(0, 30, [0, 20]) // 'unsure': the dial is too coarse to tell
 */
export function verdictOf(value: number, expanded: number, zone: Zone): Verdict {
  const [low, high] = zone;
  if (low !== null && value < low - expanded) return 'out';
  if (high !== null && value > high + expanded) return 'out';
  const free = expanded <= zoneWidth(zone) / 4;
  const guard = (bound: number): number => (bound === 0 && free ? -ROUNDING : expanded);
  const meetsLow = low === null || value >= low + guard(low);
  const meetsHigh = high === null || value <= high - guard(high);
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

/**
 * Where a move steers for a catalogue quantity: its own aim at the same part of another zone (a quarter of the zone up stays a quarter
 * up), else the middle; a size aims at nothing.
 */
export function usualAim({ aim, magnitude, limit }: Pick<QuantityInfo, 'aim' | 'magnitude' | 'limit'>, zone: Zone): number {
  if (magnitude) return 0;
  if (aim === undefined) return defaultAim(zone);
  const [[low, high], [from, to]] = [zone, limit ?? zone];
  if (low !== null && high !== null && from !== null && to !== null) return low + ((aim - from) / (to - from)) * (high - low);
  return insideZone(aim, zone) ? aim : defaultAim(zone);
}
