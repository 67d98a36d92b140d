import { DIMENSIONS, type Dimension } from './dimensions.js';
import { readNumber, workable } from './number.js';

/** A value in base units, or a message that says what is wrong and shows what would be taken. */
export type Parsed =
  | { readonly ok: true; readonly value: number; readonly unit: string; readonly bare?: boolean }
  | { readonly ok: false; readonly message: string; readonly example: string };

/** Whether a text says which unit it means: `12 um`, `20 tpi`; not `12`. */
export function hasUnit(raw: unknown): boolean {
  return typeof raw === 'string' && (readNumber(raw)?.unit ?? '') !== '';
}

/**
 * Turn what a person or a file wrote into the base unit of a dimension
 * (mm, µm, µm/m, µm/m per m, deg, °C, N).
 *
 * @param raw a number (taken in `defaultUnit`) or a text, bare or with a unit.
 * @param dimension what it measures.
 * @param defaultUnit unit of a bare number; the base unit when left out.
 * @returns the value (`bare` when no unit was written), or the error text with an example. Never throws.
 * @example parseQuantity('1/2 thou', 'deviation') // { ok: true, value: 12.7, unit: 'thou' }
 * @see formatQuantity for the way back
 */
export function parseQuantity(raw: unknown, dimension: Dimension, defaultUnit?: string): Parsed {
  const { base, noun, example, factors, reciprocal } = DIMENSIONS[dimension];
  const bare = defaultUnit ?? base;
  if (raw === undefined || raw === null || raw === '') {
    return { ok: false, message: `is missing: give ${noun}`, example };
  }
  if (typeof raw === 'number') {
    if (!Number.isFinite(raw)) return { ok: false, message: `must be ${noun}, a finite number`, example };
    const value = workable(raw * factors[bare.toLowerCase()]);
    return value === undefined ? { ok: false, message: 'is too large', example } : { ok: true, value, unit: bare, bare: true };
  }
  if (typeof raw !== 'string') return { ok: false, message: `must be ${noun}: a number or a text with a unit`, example };
  const read = readNumber(raw);
  if (!read) return { ok: false, message: `"${raw}" is not ${noun}`, example };
  const unit = read.unit === '' ? bare.toLowerCase() : read.unit;
  const each = reciprocal && Object.hasOwn(reciprocal, unit) ? reciprocal[unit] : undefined;
  if (each !== undefined) {
    return read.value > 0 ? { ok: true, value: each / read.value, unit } : { ok: false, message: `"${raw}" is not ${noun}`, example };
  }
  const factor = Object.hasOwn(factors, unit) ? factors[unit] : undefined;
  if (factor === undefined) {
    return { ok: false, message: `"${raw}" is not ${noun}: the unit "${read.unit}" is not one of ${unitList(dimension)}`, example };
  }
  const value = workable(read.value * factor);
  return value === undefined
    ? { ok: false, message: `"${raw}" is too large`, example }
    : { ok: true, value, unit, ...(read.unit === '' && { bare: true }) };
}

function unitList(dimension: Dimension): string {
  const { factors, reciprocal = {}, named } = DIMENSIONS[dimension];
  return (named ?? [...Object.keys(factors), ...Object.keys(reciprocal)]).join(', ');
}
