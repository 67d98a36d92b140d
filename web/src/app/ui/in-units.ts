import { showSize, type Dimension } from '@isometra/core';
import type { Shown } from './say';

const DIMENSION: Readonly<Record<string, Dimension>> = { 'µm/m per m': 'twist', 'µm/m': 'slope', µm: 'deviation', mm: 'length' };
const MEASURES = /(\d+(?:\.\d+)?)(?: (to|and|or) (\d+(?:\.\d+)?))? (µm\/m per m|µm\/m|µm|mm)(?![\w²/])/g;

/** mm below which a size in mm is an error, not a length; a bare 0 mm is a place. */
const ERROR_BELOW = 1;

/**
 * A sentence of the core in the reader's units: the core speaks of µm and mm, a screen as it is set. Sizes keep their
 * place in the sentence; ranges keep both ends.
 */
export function inUnits(text: string, { system, fineness }: Shown): string {
  // Most of what is said has no size in it, and a bench has hundreds of places to name at every key.
  if (!text.includes(' mm') && !text.includes(' µm')) return text;
  const show = (figure: string, unit: string): string => {
    const small = unit === 'mm' && figure !== '0' && Number(figure) < ERROR_BELOW;
    if (unit === 'mm' && !small && system === 'mm') return `${figure} mm`;
    return showSize(small ? 1000 * Number(figure) : Number(figure), small ? 'deviation' : DIMENSION[unit], system, fineness);
  };
  return text.replace(MEASURES, (_, one: string, join: string | undefined, other: string | undefined, unit: string) =>
    join && other ? `${show(one, unit)} ${join} ${show(other, unit)}` : show(one, unit),
  );
}
