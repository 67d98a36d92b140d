import { DIMENSIONS, type Dimension } from './dimensions.js';

/** How a shop reads its dials. */
export type UnitSystem = 'mm' | 'inch';

/** Fineness of the figures: coarse shows hundredths and thou, fine shows µm and tenths. */
export type Fineness = 'coarse' | 'fine';

interface Shown {
  readonly unit: string;
  readonly decimals: number;
}

const SHOWN: Readonly<Record<UnitSystem, Readonly<Record<Dimension, Readonly<Record<Fineness, Shown>>>>>> = {
  mm: {
    length: { coarse: { unit: 'mm', decimals: 0 }, fine: { unit: 'mm', decimals: 3 } },
    pitch: { coarse: { unit: 'mm', decimals: 2 }, fine: { unit: 'mm', decimals: 3 } },
    number: { coarse: { unit: '1', decimals: 2 }, fine: { unit: '1', decimals: 3 } },
    deviation: { coarse: { unit: 'mm', decimals: 3 }, fine: { unit: 'um', decimals: 1 } },
    slope: { coarse: { unit: 'um/m', decimals: 0 }, fine: { unit: 'um/m', decimals: 1 } },
    twist: { coarse: { unit: 'um/m per m', decimals: 0 }, fine: { unit: 'um/m per m', decimals: 1 } },
    angle: { coarse: { unit: 'deg', decimals: 0 }, fine: { unit: 'deg', decimals: 1 } },
    temperature: { coarse: { unit: 'C', decimals: 0 }, fine: { unit: 'C', decimals: 1 } },
    warming: { coarse: { unit: 'C', decimals: 0 }, fine: { unit: 'C', decimals: 1 } },
    force: { coarse: { unit: 'N', decimals: 2 }, fine: { unit: 'N', decimals: 2 } },
  },
  inch: {
    length: { coarse: { unit: 'in', decimals: 2 }, fine: { unit: 'in', decimals: 4 } },
    pitch: { coarse: { unit: 'in', decimals: 3 }, fine: { unit: 'in', decimals: 4 } },
    number: { coarse: { unit: '1', decimals: 2 }, fine: { unit: '1', decimals: 3 } },
    deviation: { coarse: { unit: 'thou', decimals: 1 }, fine: { unit: 'tenths', decimals: 1 } },
    slope: { coarse: { unit: 'thou/ft', decimals: 2 }, fine: { unit: 'thou/ft', decimals: 3 } },
    twist: { coarse: { unit: 'thou/ft per ft', decimals: 3 }, fine: { unit: 'thou/ft per ft', decimals: 4 } },
    angle: { coarse: { unit: 'deg', decimals: 0 }, fine: { unit: 'deg', decimals: 1 } },
    temperature: { coarse: { unit: 'C', decimals: 0 }, fine: { unit: 'C', decimals: 1 } },
    warming: { coarse: { unit: 'C', decimals: 0 }, fine: { unit: 'C', decimals: 1 } },
    force: { coarse: { unit: 'lbf', decimals: 1 }, fine: { unit: 'lbf', decimals: 2 } },
  },
};

/**
 * Unit and decimals in which a dimension is shown.
 *
 * @param expanded expanded uncertainty in base units: digits it does not earn are dropped,
 *   so that the last digit shown is not finer than a tenth of it.
 */
export function shownIn(dimension: Dimension, system: UnitSystem, fineness: Fineness, expanded?: number | null): Shown {
  const shown = SHOWN[system][dimension][fineness];
  if (!expanded || !(expanded > 0)) return shown;
  const inUnit = expanded / DIMENSIONS[dimension].factors[shown.unit.toLowerCase()];
  const earned = Math.max(0, Math.ceil(1 - Math.log10(inUnit * 3)));
  return { unit: shown.unit, decimals: Math.min(shown.decimals, earned) };
}

/**
 * Write a value in a chosen unit. The text is taken again by `parseQuantity` and gives
 * the value back to half a unit of the last decimal.
 *
 * @param value in base units of the dimension.
 * @param unit one of the dimension's units.
 * @example formatQuantity(12.7, 'deviation', 'thou', 1) // '0.5 thou'
 */
export function formatQuantity(value: number, dimension: Dimension, unit: string, decimals: number): string {
  const figure = formatFigure(value, dimension, unit, decimals);
  return unit === '1' ? figure : `${figure} ${prettyUnit(unit)}`;
}

function formatFigure(value: number, dimension: Dimension, unit: string, decimals: number): string {
  const { factors, offsets } = DIMENSIONS[dimension];
  const factor = factors[unit.toLowerCase()];
  if (factor === undefined) throw new RangeError(`${unit} is not a unit of ${DIMENSIONS[dimension].noun}`);
  return unit === '1' ? fixed(value, decimals) : fixed(value / factor + (offsets?.[unit.toLowerCase()] ?? 0), decimals);
}

/** A number with so many decimals and no negative zero; a half is rounded as by hand, whatever the last bit of a sum says. */
export function fixed(value: number, decimals: number): string {
  const text = Number(value.toPrecision(12)).toFixed(decimals);
  return Number(text) === 0 ? text.replace('-', '') : text;
}

/** A unit as a person reads it: `um` becomes `µm`, `C` becomes `°C`. */
export function prettyUnit(unit: string): string {
  return unit.replace(/\bum/g, 'µm').replace(/^C$/, '°C').replace(/^uin$/, 'µin');
}

/** A size shown in the chosen system: `0.021 mm` or `0.8 thou`. The sign is dropped: say it in words. */
export function showSize(value: number, dimension: Dimension, system: UnitSystem, fineness: Fineness, expanded?: number | null): string {
  const { figure, unit } = sizeParts(value, dimension, system, fineness, expanded);
  return unit === '' ? figure : `${figure} ${unit}`;
}

/** The same with its figure apart from its unit; the unit of a bare number is ''. */
export function sizeParts(
  value: number,
  dimension: Dimension,
  system: UnitSystem,
  fineness: Fineness,
  expanded?: number | null,
): { readonly figure: string; readonly unit: string } {
  const { unit, decimals } = shownIn(dimension, system, fineness, expanded);
  return { figure: formatFigure(Math.abs(value), dimension, unit, decimals), unit: unit === '1' ? '' : prettyUnit(unit) };
}
