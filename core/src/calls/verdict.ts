/** The zone a quantity must lie in, in its own unit. A null bound is no bound. */
export type Zone = readonly [number | null, number | null];

export type Verdict = 'in' | 'out' | 'unsure';

/**
 * Judge a value with its expanded uncertainty against a zone: in when it lies inside by at least U,
 * out when outside by more than U, otherwise unsure. A bound at exactly zero is not guarded:
 * a value that cannot be told from zero meets it.
 *
 * @example verdictOf(0, 3, [0, 20]) // 'in'
 */
export function verdictOf(value: number, expanded: number, [low, high]: Zone): Verdict {
  if (low !== null && value < low - expanded) return 'out';
  if (high !== null && value > high + expanded) return 'out';
  const meetsLow = low === null || (low === 0 ? value >= -expanded : value >= low + expanded);
  const meetsHigh = high === null || (high === 0 ? value <= expanded : value <= high - expanded);
  return meetsLow && meetsHigh ? 'in' : 'unsure';
}

/** Distance to the nearest guarded bound; Infinity without one. */
export function distanceToBound(value: number, [low, high]: Zone): number {
  return Math.min(low === null ? Infinity : Math.abs(value - low), high === null ? Infinity : Math.abs(value - high));
}

/** Width of a zone; a size's zone is as wide as its upper bound. */
export function zoneWidth([low, high]: Zone): number {
  if (high === null) return Infinity;
  return high - (low ?? 0);
}

/** Where a move steers when nothing else is said: the middle, or 0 for a size. */
export function defaultAim([low, high]: Zone): number {
  return low === null || high === null ? 0 : (low + high) / 2;
}

/** The aim of a catalogue quantity where it lies in the zone, else the zone's own. */
export function usualAim({ aim }: { readonly aim?: number }, zone: Zone): number {
  const [low, high] = zone;
  const inside = aim !== undefined && (low === null || aim >= low) && (high === null || aim <= high);
  return inside ? aim : defaultAim(zone);
}
