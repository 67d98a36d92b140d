import { readNumber, workable } from '../units/number.js';
import { DIMENSIONS } from '../units/dimensions.js';
import { parseQuantity, type Parsed } from '../units/parse.js';
import { dialFactor, type Instrument, type ValueKind } from './instrument.js';

const BARE_NEEDS_INSTRUMENT = 'is in divisions, and the sheet has no instrument to say what a division is: give the instrument, or a unit';

/** A size that others are spoken over: digits alone are so many thou, or hundredths, more. mm. */
export interface SpokenBase {
  readonly size: number;
  /** mm for each digit: a thou over a base in inch, a hundredth over one in mm. */
  readonly step: number;
}

/** The divisions that a bare number or "3.5 div" names; undefined for what has a unit of its own. */
function divisionsOf(raw: unknown): number | undefined {
  if (typeof raw === 'number') return raw;
  const read = typeof raw === 'string' ? readNumber(raw) : undefined;
  return read && ['', 'div'].includes(read.unit) ? read.value : undefined;
}

/**
 * Turn the value of a reading into a deviation.
 *
 * indicator: `deviation = sense · cos(leverAngle) · graduation · divisions` in µm, + toward the
 * instrument; a text with a unit is what the dial shows and is multiplied likewise. Without an
 * instrument a text with a unit is the deviation itself and a bare number is refused.
 * level: slope in µm/m. size: in µm (a bare number is mm, or spoken over `base`).
 *
 * Source: docs/methods/instruments.md.
 */
export function readingValue(raw: unknown, kind: ValueKind, instrument: Instrument | undefined, base?: SpokenBase): Parsed {
  if (kind === 'size') return sizeValue(raw, base);
  const dimension = kind === 'level' ? 'slope' : 'deviation';
  const example = instrument ? '3.5 div' : DIMENSIONS[dimension].example;
  if (raw === undefined || raw === null || raw === '') return { ok: false, message: 'is missing: give what the dial reads', example };
  const factor = instrument && kind === 'indicator' ? dialFactor(instrument) : 1;
  const divisions = divisionsOf(raw);
  if (divisions === undefined) {
    const parsed = parseQuantity(raw, dimension);
    if (!parsed.ok) return { ...parsed, message: parsed.message.replace('not one of', 'not one of div,'), example };
    return { ...parsed, value: parsed.value * factor };
  }
  if (!Number.isFinite(divisions)) return { ok: false, message: 'must be a finite number', example };
  if (!instrument) return { ok: false, message: BARE_NEEDS_INSTRUMENT, example };
  const value = workable(divisions * instrument.graduation * factor);
  return value === undefined ? { ok: false, message: 'is too large', example } : { ok: true, value, unit: 'div' };
}

/** A diameter or a reading over pins, µm. */
function sizeValue(raw: unknown, base: SpokenBase | undefined): Parsed {
  const parsed = parseQuantity(raw, 'length');
  if (!parsed.ok) return parsed;
  const mm = base && parsed.bare ? base.size + parsed.value * base.step : parsed.value;
  return { ...parsed, value: mm * 1000 };
}

/** What the dial shows, in divisions, for a deviation in µm. The inverse of `readingValue`. */
export function dialDivisions(deviation: number, instrument: Instrument): number {
  return deviation / (dialFactor(instrument) * instrument.graduation);
}
