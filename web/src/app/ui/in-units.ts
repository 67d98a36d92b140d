import { showSize, type Dimension, type UnitSystem } from '@isometra/core';
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

/** A round figure of about a size: half inches, or one or two digits that are easily said. */
function round(value: number, unit: string): number {
  if (unit === 'in' && value >= 2) return Math.round(2 * value) / 2;
  const step = 10 ** Math.floor(Math.log10(value)) * (unit === 'in' ? 0.25 : 0.5);
  return Number((Math.max(1, Math.round(value / step)) * step).toPrecision(3));
}

/** What would do in a field, in the units of the hand: 420 mm becomes 16.5 in, 0.01 mm becomes 0.4 thou. Anything else stays. */
export function exampleIn(example: string, system: UnitSystem): string {
  if (system === 'mm') return example;
  const [, sign, figure, unit] = /^([-−+]?)(\d+(?:\.\d+)?) ?(mm|um\/m|µm\/m|um|µm)$/.exec(example) ?? [];
  const value = Number(figure);
  if (!unit || !(value > 0)) return example;
  if (unit.endsWith('/m')) return `${sign}${round(value * 0.012, 'thou/ft')} thou/ft`;
  const mm = unit === 'mm' ? value : value / 1000;
  return mm < ERROR_BELOW ? `${sign}${round(mm / 0.0254, 'thou')} thou` : `${sign}${round(mm / 25.4, 'in')} in`;
}
