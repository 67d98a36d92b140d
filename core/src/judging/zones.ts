import type { Zone } from './verdict.js';
import type { CheckDefinition, Over, QuantityInfo, Variant } from '../checks/define.js';

/** A zone, the length it is stated for and where a move steers in it: numbers in the quantity's own unit. */
export interface LimitRule {
  readonly zone: Zone;
  readonly over?: Over;
  readonly aim?: number;
}

type Setup = Readonly<Record<string, unknown>>;

/** The zone of a kind of set-up, when the set-up is of that kind. */
export function variantOf(info: QuantityInfo, setup: Setup): Variant | undefined {
  return info.variants?.find((variant) => variant.applies(setup));
}

/**
 * A zone stated for a length, over another length: in proportion, and never narrower than its least.
 *
 * @param length mm; undefined leaves the zone as it is stated.
 * @example zoneOver([null, 15], { length: 1000, least: 5 }, 200) // [null, 5]
 */
export function zoneOver([low, high]: Zone, over: Over | undefined, length: number | undefined): Zone {
  if (!over || length === undefined || !Number.isFinite(length)) return [low, high];
  const share = Math.max(length, 1) / over.length;
  const bound = (value: number | null): number | null =>
    value === null || value === 0 ? value : Math.sign(value) * Math.max(Math.abs(value) * share, over.least ?? 0);
  return [bound(low), bound(high)];
}

/** Length that a round of a check covers, mm; undefined where the zones of the check are not stated over a length. */
export function lengthRead(check: CheckDefinition, setup: Setup, places: readonly number[]): number | undefined {
  const length = check.lengthOf?.(setup, places);
  return length !== undefined && Number.isFinite(length) ? length : undefined;
}

/** The catalogue's own zone of a quantity for a set-up and what was read. */
export function startingZone(check: CheckDefinition, quantity: string, setup: Setup, places: readonly number[]): Zone | undefined {
  const info = check.quantities[quantity];
  const variant = variantOf(info, setup);
  if (variant) return variant.limit;
  return info.limit && zoneOver(info.limit, info.over, lengthRead(check, setup, places));
}
