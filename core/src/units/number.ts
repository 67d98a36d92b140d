/** A number as people write it, and what follows it. */
export interface NumberText {
  readonly value: number;
  /** The unit as typed: trimmed, lower case, single spaces, µ written u. Empty for a bare number. */
  readonly unit: string;
}

/** No number that a person types is longer. Longer texts are not looked at: a pattern could take for ever over them. */
export const LONGEST = 80;

const FRACTIONS: Readonly<Record<string, string>> = {
  ...{ '½': '1/2', '⅓': '1/3', '⅔': '2/3', '¼': '1/4', '¾': '3/4', '⅕': '1/5', '⅖': '2/5', '⅗': '3/5', '⅘': '4/5' },
  ...{ '⅙': '1/6', '⅚': '5/6', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8' },
};
const PARTS: Readonly<Record<string, string>> = { half: '1/2', quarter: '1/4' };
const COUNTED: Readonly<Record<string, string>> = {
  ...{ a: '1', an: '1', one: '1', two: '2', three: '3', four: '4', five: '5', six: '6' },
  ...{ seven: '7', eight: '8', nine: '9', ten: '10', eleven: '11', twelve: '12' },
};

const PATTERN =
  /^([+\-−–]?)\s*(?:(\d+)(?:\s+|\s*[-–]\s*)(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE]([+\-−]?\d+))?)(?![\d.,/])\s*(.*)$/s;

/** One way of writing for what is written in many: fractions in one sign or in words, thin spaces, curled marks, groups of thousands. */
function plain(text: string): string {
  return text
    .replace(/[\u00a0\u2007\u2009\u202f]/g, ' ')
    .replace(/[″”“]/g, '"')
    .replace(/[′’]/g, "'")
    .replace(/⁄/g, '/')
    .replace(/\s*([½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])/g, (_, sign: string) => ` ${FRACTIONS[sign]}`)
    .replace(/^([+\-−–]?\s*)(half|quarter)(?: an?| of an?)?\s+/i, (_, sign: string, word: string) => `${sign}${PARTS[word.toLowerCase()]} `)
    .replace(/^([+\-−–]?\s*)([a-z]+)\s+(?=[a-z])/i, (all: string, sign: string, word: string) =>
      Object.hasOwn(COUNTED, word.toLowerCase()) ? `${sign}${COUNTED[word.toLowerCase()]} ` : all,
    )
    .replace(/^([+\-−–]?\s*\d{1,3})((?: \d{3})+)(?![\d/])/, (_, head: string, groups: string) => `${head}${groups.replace(/ /g, '')}`)
    .replace(/^([+\-−–]?)\s+/, '$1');
}

/** Less than this has a square that is nothing to a computer. */
const LEAST = 1e-60;

/** A number that can be worked with: what is too small for that is nothing, what is not finite is undefined. */
export function workable(value: number): number | undefined {
  if (!Number.isFinite(value)) return undefined;
  return Math.abs(value) < LEAST ? 0 : value;
}

const MAY_BE_EITHER = /^([+\-−–]?)\s*([1-9]\d{0,2}),(\d{3})(?![\d.,])/;

/**
 * Both numbers that a comma before exactly three figures may stand for: `1,500` is fifteen hundred or one and a half. Undefined where
 * there is no doubt.
 */
export function eitherNumber(text: string): readonly [thousands: string, decimal: string] | undefined {
  const found = text.length > LONGEST ? null : MAY_BE_EITHER.exec(text.trim());
  if (!found) return undefined;
  const [, mark, head, tail] = found;
  const sign = mark === '' || mark === '+' ? '' : '-';
  return [`${sign}${head}${tail}`, `${sign}${head}.${tail}`];
}

/**
 * Read a number with an optional unit: `12 um`, `−0,5 thou`, `1/2 thou`, `5 ½ div`, `13-1/2 in`, `half thou`, `two tenths`, `1 500 mm`.
 * A point or a comma is the decimal sign, a space groups thousands; `+`, `-`, `−` and `–` are signs; a hyphen between a whole number and
 * a fraction joins them.
 *
 * @returns the number and its unit, or undefined when the text is no number, or one that may be read two ways (`eitherNumber`).
 * @example readNumber('5 1/2 div') // { value: 5.5, unit: 'div' }
 */
export function readNumber(text: string): NumberText | undefined {
  if (text.length > LONGEST || eitherNumber(text)) return undefined;
  const found = PATTERN.exec(plain(text.trim()));
  if (!found) return undefined;
  const [, sign, whole, wholeTop, wholeBottom, top, bottom, decimal, exponent, unit] = found;
  let value: number;
  if (whole !== undefined) value = Number(whole) + Number(wholeTop) / Number(wholeBottom);
  else if (top !== undefined) value = Number(top) / Number(bottom);
  else value = Number(`${decimal.replace(',', '.')}e${(exponent ?? '0').replace('−', '-')}`);
  if (!Number.isFinite(value)) return undefined;
  if (sign !== '' && sign !== '+') value = value === 0 ? 0 : -value;
  return { value, unit: tidyUnit(unit) };
}

const DIVISION = /^div(?:s|ision|isions)?$/;

function tidyUnit(unit: string): string {
  const tidy = unit.trim().replace(/[µμ]/g, 'u').replace(/\s+/g, ' ').replace(/\.$/, '').toLowerCase();
  return DIVISION.test(tidy) ? 'div' : tidy;
}
