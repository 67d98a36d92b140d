import type { QuantityInfo } from './define.js';
import { AXIS, AXIS_HEIGHT } from './words.js';

/** A quantity told for its own sake: nothing limits it. */
export const unlimited = (
  label: string,
  dimension: QuantityInfo['dimension'],
  unit: string,
  more: Partial<QuantityInfo> = {},
): QuantityInfo => ({
  label,
  dimension,
  unit,
  ...more,
});

/** A size in µm with the most it may be. */
export const sizeUpTo = (label: string, high: number, more: Partial<QuantityInfo> = {}): QuantityInfo => ({
  label,
  dimension: 'deviation',
  unit: 'um',
  limit: [null, high],
  magnitude: true,
  ...more,
});

/** Where the spindle axis points to the carriage, sideways and in height. */
export const AXIS_SIDEWAYS: QuantityInfo = {
  label: 'Spindle axis sideways',
  subject: 'The axis',
  dimension: 'slope',
  unit: 'um/m',
  limit: [0, 50],
  spokenOver: 300,
  work: { perUnit: 0.2, what: (size) => `taper on diameter over ${size(100, 'length')}` },
  words: AXIS,
};
/** The same before the roll of a twisted bed is taken out: a tail centre rolls with the bed as the carriage does. */
export const APPARENT_SLOPE = unlimited('Spindle axis sideways, as the carriage sees it', 'slope', 'um/m', {
  subject: 'The axis',
  spokenOver: 300,
  words: AXIS,
});
export const AXIS_IN_HEIGHT: QuantityInfo = {
  label: 'Spindle axis in height',
  subject: 'The axis',
  dimension: 'slope',
  unit: 'um/m',
  limit: [0, 67],
  spokenOver: 300,
  follows: { slopeV: 1 },
  words: AXIS_HEIGHT,
};
