import { readNumber } from '../units/number.js';
import { DIMENSIONS } from '../units/dimensions.js';
import { parseQuantity, type Parsed } from '../units/parse.js';
import { dialFactor, type Instrument } from './instrument.js';

/** What the `value` of a reading is read on: a dial, a level's vial, or a micrometer over a size. */
export type ValueKind = 'indicator' | 'level' | 'size';

const BARE_NEEDS_INSTRUMENT = 'is in divisions, and the sheet has no instrument to say what a division is: give the instrument, or a unit';

/**
 * Turn the value of a reading into a deviation.
 *
 * indicator: `deviation = sense · cos(leverAngle) · graduation · divisions` in µm, + toward the
 * instrument; a text with a unit is what the dial shows and is multiplied likewise. Without an
 * instrument a text with a unit is the deviation itself and a bare number is refused.
 * level: slope in µm/m. size: in µm (a bare number is mm).
 *
 * Source: docs/methods/instruments.md.
 */
export function readingValue(raw: unknown, kind: ValueKind, instrument: Instrument | undefined): Parsed {
  if (kind === 'size') {
    const parsed = parseQuantity(raw, 'length');
    return parsed.ok ? { ...parsed, value: parsed.value * 1000 } : parsed;
  }
  const dimension = kind === 'level' ? 'slope' : 'deviation';
  const example = instrument ? '3.5 div' : DIMENSIONS[dimension].example;
  if (raw === undefined || raw === null || raw === '') return { ok: false, message: 'is missing: give what the dial reads', example };
  const read = typeof raw === 'string' ? readNumber(raw) : undefined;
  const divisions = typeof raw === 'number' ? raw : read && (read.unit === '' || read.unit === 'div') ? read.value : undefined;
  if (divisions === undefined) {
    const parsed = parseQuantity(raw, dimension);
    if (!parsed.ok) return { ...parsed, message: parsed.message.replace('not one of', 'not one of div,'), example };
    return { ...parsed, value: parsed.value * (instrument && kind === 'indicator' ? dialFactor(instrument) : 1) };
  }
  if (!Number.isFinite(divisions)) return { ok: false, message: 'must be a finite number', example };
  if (!instrument) return { ok: false, message: BARE_NEEDS_INSTRUMENT, example };
  const factor = kind === 'indicator' ? dialFactor(instrument) : 1;
  return { ok: true, value: divisions * instrument.graduation * factor, unit: 'div' };
}

/** What the dial shows, in divisions, for a deviation in µm. The inverse of `readingValue`. */
export function dialDivisions(deviation: number, instrument: Instrument): number {
  return deviation / (dialFactor(instrument) * instrument.graduation);
}
