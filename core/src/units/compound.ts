import type { Dimension } from './dimensions.js';

/** Reads one part of a compound quantity in base units; undefined where it is none. */
export type ReadPart = (text: string, dimension: Dimension, bareUnit?: string) => number | undefined;

const SEPARATORS = /\s+in\s+|\s+per\s+|\s+over\s+|\s*\/\s*/gi;

/** Every way to cut a text in two at a word or a stroke that divides. */
function cuts(text: string): { readonly left: string; readonly right: string }[] {
  return [...text.matchAll(SEPARATORS)].map((found) => ({
    left: text.slice(0, found.index).trim(),
    right: text.slice(found.index + found[0].length).trim(),
  }));
}

const UNIT_ALONE = /^[a-z"'µμ]+$/i;
const NUMBER_ALONE = /^\d+(?:[.,]\d+)?$/;

/** A length as a divisor: `300 mm`, `ft` (one of them), `1000` (in the unit of the other part). */
const divisor = (text: string, read: ReadPart, unit: string): number | undefined =>
  read(UNIT_ALONE.test(text) ? `1 ${text}` : text, 'length', unit);

/** The unit at the end of a text; mm where there is none. */
const unitOf = (text: string): string => /([a-z"'µμ]+)\s*$/i.exec(text)?.[1] ?? 'mm';

/**
 * A slope as an amount over a length: `0.02 mm in 300 mm`, `5 thou in 9 in`, `0.5 thou/ft`, `thou per ft`, `0.02/1000` and
 * `0.02 mm/1000` (both in one unit). µm/m.
 */
export function slopeOver(text: string, read: ReadPart): number | undefined {
  for (const { left, right } of cuts(text)) {
    // A plain fraction is a number of the field's own unit: 1/2.
    if (/^[+\-−–]?\d+$/.test(left) && NUMBER_ALONE.test(right) && Number(right) < 100) continue;
    const [amount, over] = [read(left, 'length', 'mm'), divisor(right, read, unitOf(left))];
    if (amount !== undefined && over !== undefined && over > 0) return (amount / over) * 1e6;
  }
  return undefined;
}

/** A twist as a slope over a length: `0.02 mm/m per m`, `0.5 thou/ft per ft`. µm/m per m. */
export function twistOver(text: string, read: ReadPart): number | undefined {
  for (const { left, right } of cuts(text).reverse()) {
    const [slope, over] = [read(left, 'slope'), divisor(right, read, 'm')];
    if (slope !== undefined && over !== undefined && over > 0 && /[a-z"]/i.test(left)) return slope / (over / 1000);
  }
  return undefined;
}

const FEET_AND_INCHES = /^([+\-−–]?)\s*(\d+)\s*(?:ft|feet|foot|')\s*(\d[^a-z"]*)\s*(?:in|inch|inches|")\.?$/i;
const DEGREES = /^([+\-−–]?)\s*(\d+)\s*(?:°|deg)\s*(\d+(?:[.,]\d+)?)\s*(?:'|min)\s*(?:(\d+(?:[.,]\d+)?)\s*(?:"|s|sec))?$/i;

const signed = (sign: string, value: number): number => (sign === '' || sign === '+' ? value : -value);
const decimal = (text = '0'): number => Number(text.replace(',', '.'));

/** `4 ft 11 in`, in mm. */
export function feetAndInches(text: string, read: ReadPart): number | undefined {
  const found = FEET_AND_INCHES.exec(text.trim());
  const inches = found ? read(`${found[3].trim()} in`, 'length') : undefined;
  return found && inches !== undefined ? signed(found[1], Number(found[2]) * 304.8 + inches) : undefined;
}

/** `55°30'`, in degrees. */
export function degreesAndMinutes(text: string): number | undefined {
  const found = DEGREES.exec(text.trim().replace(/[′’]/g, "'").replace(/[″”]/g, '"'));
  return found ? signed(found[1], Number(found[2]) + decimal(found[3]) / 60 + decimal(found[4]) / 3600) : undefined;
}
