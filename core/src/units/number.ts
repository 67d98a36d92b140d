/** A number as people write it, and what follows it. */
export interface NumberText {
  readonly value: number;
  /** The unit as typed: trimmed, lower case, single spaces, µ written u. Empty for a bare number. */
  readonly unit: string;
}

const FRACTIONS: Readonly<Record<string, string>> = { '½': '1/2', '¼': '1/4', '¾': '3/4', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8' };
const WORDS: Readonly<Record<string, string>> = { half: '1/2', quarter: '1/4' };

const PATTERN =
  /^([+\-−]?)\s*(?:(\d+)(?:\s+|\s*[-–]\s*)(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE]([+\-−]?\d+))?)(?![\d.,/])\s*(.*)$/s;

/** Fractions written as one sign or in words, as digits: `5½` → `5 1/2`, `half a thou` → `1/2 thou`. */
function plainFractions(text: string): string {
  return text
    .replace(/\s*([½¼¾⅛⅜⅝⅞])/g, (_, sign: string) => ` ${FRACTIONS[sign]}`)
    .replace(/^([+\-−]?\s*)(half|quarter)(?: an?| of an?)?\s+/i, (_, sign: string, word: string) => `${sign}${WORDS[word.toLowerCase()]} `)
    .replace(/^([+\-−]?)\s+/, '$1');
}

/** Less than this has a square that is nothing to a computer. */
const LEAST = 1e-60;

/** A number that can be worked with: what is too small for that is nothing, what is not finite is undefined. */
export function workable(value: number): number | undefined {
  if (!Number.isFinite(value)) return undefined;
  return Math.abs(value) < LEAST ? 0 : value;
}

/**
 * Read a number with an optional unit: `12 um`, `−0,5 thou`, `1/2 thou`, `5 ½ div`, `13-1/2 in`, `half thou`.
 * A point or a comma is the decimal sign; `+`, `-` and `−` are signs.
 *
 * @returns the number and its unit, or undefined when the text is no number.
 * @example readNumber('5 1/2 div') // { value: 5.5, unit: 'div' }
 */
export function readNumber(text: string): NumberText | undefined {
  const found = PATTERN.exec(plainFractions(text.trim()));
  if (!found) return undefined;
  const [, sign, whole, wholeTop, wholeBottom, top, bottom, decimal, exponent, unit] = found;
  let value: number;
  if (whole !== undefined) value = Number(whole) + Number(wholeTop) / Number(wholeBottom);
  else if (top !== undefined) value = Number(top) / Number(bottom);
  else value = Number(`${decimal.replace(',', '.')}e${(exponent ?? '0').replace('−', '-')}`);
  if (!Number.isFinite(value)) return undefined;
  if (sign === '-' || sign === '−') value = value === 0 ? 0 : -value;
  return { value, unit: tidyUnit(unit) };
}

const DIVISION = /^div(?:s|ision|isions)?$/;

function tidyUnit(unit: string): string {
  const tidy = unit.trim().replace(/[µμ]/g, 'u').replace(/\s+/g, ' ').replace(/\.$/, '').toLowerCase();
  return DIVISION.test(tidy) ? 'div' : tidy;
}
