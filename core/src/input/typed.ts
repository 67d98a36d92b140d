import { DIMENSIONS, type Dimension } from '../units/dimensions.js';
import { prettyUnit, type UnitSystem } from '../units/format.js';
import { parseQuantity, type Parsed } from '../units/parse.js';
import type { FieldInfo } from './fields.js';
import { readPlaces } from './placeTexts.js';

/** What of a field says how its figures are read. */
export type Figures = Pick<FieldInfo, 'dimension' | 'unit' | 'engraved' | 'usual' | 'example' | 'places'>;

/** What a bare figure is in on a screen that speaks inches. */
const INCH_UNITS: Readonly<Partial<Record<Dimension, string>>> = {
  length: 'in',
  pitch: 'in',
  deviation: 'thou',
  slope: 'thou/ft',
  twist: 'thou/ft per ft',
  force: 'lbf',
};

/** The unit that things are engraved and spoken in, where it is not the one that errors are told in. */
const ENGRAVED: Readonly<Record<UnitSystem, Readonly<Partial<Record<Dimension, string>>>>> = {
  mm: { deviation: 'mm', slope: 'mm/m' },
  inch: { deviation: 'in', slope: 'in/ft', force: 'oz' },
};

/** Unit that a bare figure is taken in, as it stands beside the field; empty for a plain number. */
export function bareUnit({ dimension, unit, engraved }: Pick<Figures, 'dimension' | 'unit' | 'engraved'>, system: UnitSystem): string {
  if (!dimension) return '';
  const spoken = engraved ? ENGRAVED[system][dimension] : undefined;
  return spoken ?? (system === 'inch' ? INCH_UNITS[dimension] : undefined) ?? unit ?? DIMENSIONS[dimension].base;
}

/** What was typed into a field, in base units: a bare figure has the unit that stands beside it. */
export const readTyped = (text: string, field: Figures & { readonly dimension: Dimension }, system: UnitSystem): Parsed =>
  parseQuantity(text, field.dimension, bareUnit(field, system));

/** A round figure of about a size: what is engraved is 1, 2 or 5 with noughts; half inches where they are easily said. */
function roundFigure(value: number, unit: string, engraved: boolean): number {
  if (unit === 'in' && value >= 2) return Math.round(2 * value) / 2;
  const decade = 10 ** Math.floor(Math.log10(value));
  const steps = engraved
    ? [1, 2, 5, 10]
    : unit === 'in' && value >= 0.1
      ? [1, 1.25, 1.5, 2, 2.5, 3, 3.75, 4, 5, 6.25, 7.5, 10]
      : [1, 1.5, 2, 3, 4, 5, 6, 8, 10];
  const off = (step: number): number => Math.abs(Math.log((step * decade) / value));
  return Number((steps.reduce((best, step) => (off(step) < off(best) ? step : best)) * decade).toPrecision(3));
}

/**
 * What would do in a field, in the unit that stands beside it: `0.004 mm` becomes `4 µm`, on an inch screen `0.15 thou`.
 * What is no figure with a unit stays.
 */
export function exampleFor(field: Figures, system: UnitSystem): string {
  const { dimension, example = '', places } = field;
  if (places) return placesExample(example, system);
  const parsed = dimension ? parseQuantity(example, dimension) : undefined;
  if (!dimension || !parsed?.ok || parsed.bare || parsed.value === 0) return example;
  const unit = bareUnit(field, system);
  const factor = DIMENSIONS[dimension].factors[unit.toLowerCase()];
  const exact = Number((parsed.value / factor).toPrecision(6));
  const figure =
    system === 'inch' && unit !== DIMENSIONS[dimension].base
      ? Math.sign(exact) * roundFigure(Math.abs(exact), unit, field.engraved === true)
      : exact;
  return `${figure} ${prettyUnit(unit)}`;
}

/** Places in whole or half inches on an inch screen: they are an example. */
function placesExample(example: string, system: UnitSystem): string {
  const read = readPlaces(example);
  if (!read || system === 'mm') return example;
  const inches = read.places.map((place) => parseQuantity(place, 'length')).map((parsed) => (parsed.ok ? parsed.value / 25.4 : 0));
  return `${inches.map((inch) => (inch < 2 ? Math.round(4 * inch) / 4 : Math.round(inch))).join(', ')} in`;
}

/** How far from its example a length may lie before it is asked about: an inch is 25.4 times a millimetre. */
const FAR = 12;

/** What such a thing usually is, in base units; undefined where anything goes. */
function usualOf({ dimension, usual, example, engraved }: Figures): readonly [number, number] | undefined {
  if (usual !== undefined) return usual === 'anything' ? undefined : usual;
  if (!dimension || !(dimension === 'length' || dimension === 'pitch' || engraved)) return undefined;
  const parsed = example === undefined ? undefined : parseQuantity(example, dimension);
  const size = parsed?.ok && !parsed.bare ? Math.abs(parsed.value) : 0;
  return size > 0 ? [size / FAR, size * FAR] : undefined;
}

/** Units that are taken for one another. */
const MISTAKEN: Readonly<Partial<Record<Dimension, readonly string[]>>> = {
  length: ['mm', 'in', 'um', 'thou', 'm'],
  pitch: ['mm', 'in', 'tpi'],
  deviation: ['mm', 'in', 'um', 'thou'],
  slope: ['mm/m', 'um/m', 'in/ft', 'thou/ft'],
};

/**
 * What to ask where a bare figure is far from what such a thing is: the same figure with every unit that would make sense of it, and
 * as it stands. Undefined where nothing is to be asked: written with its unit it is taken as it is.
 *
 * @example askedBack('0.01', { dimension: 'deviation', usual: [0.5, 100] }, 'mm') // ['0.01 mm', '0.01 µm']
 */
export function askedBack(text: string, field: Figures, system: UnitSystem): readonly string[] | undefined {
  const { dimension } = field;
  const usual = usualOf(field);
  if (!dimension || !usual || field.places) return undefined;
  const unit = bareUnit(field, system);
  const makesSense = (parsed: Parsed): boolean => parsed.ok && Math.abs(parsed.value) >= usual[0] && Math.abs(parsed.value) <= usual[1];
  const parsed = parseQuantity(text, dimension, unit);
  if (!parsed.ok || !parsed.bare || parsed.value === 0 || makesSense(parsed)) return undefined;
  const others = (MISTAKEN[dimension] ?? []).filter((other) => other !== unit && makesSense(parseQuantity(`${text} ${other}`, dimension)));
  return [...others, unit].map((each) => `${text.trim()} ${prettyUnit(each)}`);
}
