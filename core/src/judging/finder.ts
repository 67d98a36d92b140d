import type { Dimension } from '../units/dimensions.js';
import type { Instrument } from '../instruments/instrument.js';

/** What one instrument can be trusted to tell. */
export interface Fineness95 {
  /** ± in the unit of the zone, 95 %. */
  readonly expanded: number;
  /** Of the width of the zone. */
  readonly share: number;
  readonly fineEnough: boolean;
  /** Readings of each place that would make it fine enough; null when none up to eight would. */
  readonly repeats: number | null;
}

/**
 * Doubt of the difference of two readings: 0.29·readTo·graduation and scatter for each, accuracy once.
 * A level turned end for end has half the difference.
 *
 * @param repeats readings of each place. @returns ± µm (µm/m for a level), 95 %.
 */
export function doubtOfDifference(instrument: Instrument, repeats = 1): number {
  const { kind, graduation, readTo, accuracy } = instrument;
  const scatter = Math.max(graduation / 4 / Math.sqrt(repeats), graduation / 8);
  const random = 2 * ((0.29 * readTo * graduation) ** 2 + scatter ** 2);
  const whole = 2 * Math.sqrt(random + accuracy ** 2 / 3);
  return kind === 'level' ? whole / 2 : whole;
}

const MOST_REPEATS = 8;

/**
 * Whether an instrument is fine enough for a zone: its doubt takes no more than a quarter of it.
 *
 * @param width of the zone in its quantity's unit. @param base mm between the two places, for a slope
 *   that is not read on a level.
 */
export function finenessFor(instrument: Instrument, dimension: Dimension, width: number, base = 300): Fineness95 {
  const perUnit = instrument.kind !== 'level' && (dimension === 'slope' || dimension === 'twist') ? 1000 / base : 1;
  const at = (repeats: number) => doubtOfDifference(instrument, repeats) * perUnit;
  const enough = Array.from({ length: MOST_REPEATS }, (_, i) => i + 1).find((repeats) => at(repeats) <= width / 4);
  return { expanded: at(1), share: at(1) / width, fineEnough: at(1) <= width / 4, repeats: enough ?? null };
}
