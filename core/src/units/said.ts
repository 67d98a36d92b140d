import type { Dimension } from './dimensions.js';
import { fixed, formatQuantity, showSize, type Fineness, type UnitSystem } from './format.js';

/**
 * Writes a size with its unit.
 *
 * @param value in base units of the dimension; of a `size` mm. Only a length keeps its sign, which tells two places apart; an error has
 *   its way said in words.
 * @param dimension a `length` is a place or a base, a `size` a length that was measured to the µm.
 * @param expanded expanded uncertainty, also in base units: digits it does not earn are left out.
 */
export type SizeWriter = (value: number, dimension: Dimension | 'size', expanded?: number | null) => string;

/** A sentence, or one that waits to be told how its sizes are written. */
export type Said = string | ((size: SizeWriter) => string);

/** A length in mm with the digits it has: "300 mm", "12.7 mm". */
const inMm = (mm: number, decimals: number): string => `${Number(fixed(mm, decimals))} mm`;

/** As files and the command line write sizes: mm for lengths, µm for errors. */
export const FILE_SIZES: SizeWriter = (value, dimension, expanded) => {
  if (dimension === 'length') return inMm(value, 2);
  if (dimension === 'size') return inMm(value, 4);
  return showSize(value, dimension, 'mm', 'fine', expanded);
};

/** As a screen writes them. */
export const sizesIn =
  ({ system, fineness }: { readonly system: UnitSystem; readonly fineness: Fineness }): SizeWriter =>
  (value, dimension, expanded) => {
    if (dimension !== 'length' && dimension !== 'size') return showSize(value, dimension, system, fineness, expanded);
    if (system === 'mm') return FILE_SIZES(value, dimension);
    return formatQuantity(value, 'length', 'in', dimension === 'length' ? 2 : 5);
  };

/** The sentence with its sizes written. */
export const sentence = (said: Said, size: SizeWriter): string => (typeof said === 'string' ? said : said(size));
