import { DIMENSIONS, type Dimension } from './dimensions.js';
import { degreesAndMinutes, feetAndInches, slopeOver, twistOver } from './compound.js';
import { eitherNumber, LONGEST, readNumber, workable, type NumberText } from './number.js';

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
  const { base, noun, example } = DIMENSIONS[dimension];
  const bare = defaultUnit ?? base;
  if (isMissing(raw)) return { ok: false, message: `is missing: give ${noun}`, example };
  if (typeof raw === 'number') return parseNumber(raw, dimension, bare);
  if (typeof raw !== 'string') return { ok: false, message: `must be ${noun}: a number or a text with a unit`, example };
  return parseText(raw, dimension, bare);
}

const isMissing = (raw: unknown): raw is undefined | null | '' =>
  raw === undefined || raw === null || (typeof raw === 'string' && raw.length < LONGEST && raw.trim() === '');

function parseNumber(raw: number, dimension: Dimension, unit: string): Parsed {
  const { noun, example, factors } = DIMENSIONS[dimension];
  if (!Number.isFinite(raw)) return { ok: false, message: `must be ${noun}, a finite number`, example };
  const value = workable(raw * factors[unit.toLowerCase()]);
  return value === undefined ? { ok: false, message: 'is too large', example } : { ok: true, value, unit, bare: true };
}

/** What a table holds under a name that somebody typed. */
const ownOf = (table: Readonly<Record<string, number>>, name: string): number | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;

function parseText(raw: string, dimension: Dimension, bare: string): Parsed {
  const { noun, example, factors, offsets } = DIMENSIONS[dimension];
  const shown = raw.length > SHOWN ? `${raw.slice(0, SHOWN)}…` : raw;
  if (raw.length > LONGEST) return { ok: false, message: `"${shown}" is too long: give ${noun}`, example };
  const either = eitherNumber(raw);
  if (either) {
    const message = `"${shown}" may be ${either[0]} or ${either[1]}: write it without the comma, or with a point`;
    return { ok: false, message, example: either[0] };
  }
  // Two whole numbers with a large one below are no fraction of a slope, but a slope: 2/1000.
  const read = dimension === 'slope' && RATIO.test(raw) ? undefined : readNumber(raw);
  if (!read) return parseOther(raw, shown, dimension, undefined);
  const unit = read.unit === '' ? bare.toLowerCase() : read.unit;
  const factor = ownOf(factors, unit);
  if (factor === undefined) return parseOther(raw, shown, dimension, { ...read, in: unit });
  const from = read.unit === '' ? 0 : (ownOf(offsets ?? {}, unit) ?? 0);
  return inRange((read.value - from) * factor, unit, shown, example, read.unit === '');
}

/** What is no number with a unit of its own: one over a unit, several parts, or nothing that can be read. */
function parseOther(raw: string, shown: string, dimension: Dimension, read: (NumberText & { readonly in: string }) | undefined): Parsed {
  const { noun, example, reciprocal } = DIMENSIONS[dimension];
  const each = read && reciprocal && Object.hasOwn(reciprocal, read.in) ? reciprocal[read.in] : undefined;
  if (read && each !== undefined && read.value > 0) return { ok: true, value: each / read.value, unit: read.in };
  const together = compound(raw, dimension);
  if (together !== undefined) return inRange(together.value, together.unit, shown, example);
  if (!read || each !== undefined) return { ok: false, message: `"${shown}" is not ${noun}`, example };
  return { ok: false, message: `"${shown}" is not ${noun}: the unit "${read.unit}" is not one of ${unitList(dimension)}`, example };
}

const RATIO = /^\s*[+\-−–]?\s*\d+\s*\/\s*\d{3,}\s*$/;

/** How much of a text is repeated in an error. */
const SHOWN = 40;

function inRange(worked: number, unit: string, shown: string, example: string, bare = false): Parsed {
  const value = workable(worked);
  return value === undefined
    ? { ok: false, message: `"${shown}" is too large`, example }
    : { ok: true, value, unit, ...(bare && { bare }) };
}

/** A part of a compound quantity, in base units. */
function part(text: string, dimension: Dimension, unit?: string): number | undefined {
  const parsed = parseQuantity(text, dimension, unit);
  return parsed.ok ? parsed.value : undefined;
}

/** Quantities of several parts: feet and inches, degrees and minutes, an amount over a length. */
function compound(text: string, dimension: Dimension): { readonly value: number; readonly unit: string } | undefined {
  const told = (value: number | undefined, unit: string) => (value === undefined ? undefined : { value, unit });
  if (dimension === 'slope') return told(slopeOver(text, part), 'over a length');
  if (dimension === 'twist') return told(twistOver(text, part), 'over a length');
  if (dimension === 'angle') return told(degreesAndMinutes(text), 'deg');
  if (dimension === 'length') return told(feetAndInches(text, part), 'in');
  return undefined;
}

function unitList(dimension: Dimension): string {
  const { factors, reciprocal = {}, named } = DIMENSIONS[dimension];
  return (named ?? [...Object.keys(factors), ...Object.keys(reciprocal)]).join(', ');
}
