/** A number as people write it, and what follows it. */
export interface NumberText {
  readonly value: number;
  /** The unit as typed: trimmed, lower case, single spaces, µ written u. Empty for a bare number. */
  readonly unit: string;
}

const PATTERN =
  /^([+\-−]?)\s*(?:(\d+)\s+(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE]([+\-−]?\d+))?)(?![\d.,/])\s*(.*)$/s;

/**
 * Read a number with an optional unit: `12 um`, `−0,5 thou`, `1/2 thou`, `5 1/2 div`.
 * A point or a comma is the decimal sign; `+`, `-` and `−` are signs.
 *
 * @returns the number and its unit, or undefined when the text is no number.
 * @example readNumber('5 1/2 div') // { value: 5.5, unit: 'div' }
 */
export function readNumber(text: string): NumberText | undefined {
  const found = PATTERN.exec(text.trim());
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

function tidyUnit(unit: string): string {
  return unit.trim().replace(/[µμ]/g, 'u').replace(/\s+/g, ' ').toLowerCase();
}
