/** What a number can be a measure of. Each has one base unit in which the core computes. */
export type Dimension = 'length' | 'pitch' | 'deviation' | 'slope' | 'twist' | 'angle' | 'temperature' | 'warming' | 'force' | 'number';

interface DimensionFacts {
  /** Unit the core computes in, as written in files. */
  readonly base: string;
  /** What a person would call it in an error. */
  readonly noun: string;
  /** A text that would be taken, by the system of units on the screen. */
  readonly example: string;
  readonly inchExample: string;
  /** Unit as typed (lower case, µ written u) to base units. */
  readonly factors: Readonly<Record<string, number>>;
  /** What is taken off before the factor: degrees that do not begin at the same zero. */
  readonly offsets?: Readonly<Record<string, number>>;
  /** Units that count the other way round: so many to the inch. As typed to the numerator in base units. */
  readonly reciprocal?: Readonly<Record<string, number>>;
  /** Units worth naming in an error, in place of all of them. */
  readonly named?: readonly string[];
}

const MM_PER_INCH = 25.4;

const metricFactors = (perMillimetre: number): Readonly<Record<string, number>> => {
  const [micron, hundredth] = [perMillimetre / 1000, perMillimetre / 100];
  return {
    mm: perMillimetre,
    millimetre: perMillimetre,
    millimetres: perMillimetre,
    cm: 10 * perMillimetre,
    m: 1000 * perMillimetre,
    um: micron,
    u: micron,
    mic: micron,
    mics: micron,
    micron,
    microns: micron,
    hundredth,
    hundredths: hundredth,
  };
};

const inchFactors = (perMillimetre: number): Readonly<Record<string, number>> => {
  const [inch, thou] = [perMillimetre * MM_PER_INCH, (perMillimetre * MM_PER_INCH) / 1000];
  return {
    in: inch,
    inch,
    inches: inch,
    '"': inch,
    ft: 12 * inch,
    foot: 12 * inch,
    feet: 12 * inch,
    thou,
    thous: thou,
    mil: thou,
    mils: thou,
    thousandth: thou,
    thousandths: thou,
    tenth: thou / 10,
    tenths: thou / 10,
    uin: thou / 1000,
  };
};

const lengthFactors = (perMillimetre: number): Readonly<Record<string, number>> => ({
  ...metricFactors(perMillimetre),
  ...inchFactors(perMillimetre),
});

const INCHES = new Set(Object.keys(inchFactors(1)));

/** Whether a unit of a length, as `readNumber` tells it, is an inch or a part or a multiple of one. */
export const isInchUnit = (unit: string): boolean => INCHES.has(unit);

const LENGTHS = ['mm', 'um', 'in', 'thou', 'tenths', 'uin'] as const;

/** Weight of a gram and of a pound, N. */
const GRAM = 0.00980665;
const POUND = 4.4482216152605;

/** One second of arc in µm/m: π/648 000 rad. */
export const ARCSEC_IN_UM_PER_M = (Math.PI / 648_000) * 1e6;

/**
 * Every dimension with its base unit and the units that are taken for it.
 * Source: docs/methods/units.md.
 */
export const DIMENSIONS: Readonly<Record<Dimension, DimensionFacts>> = {
  length: { base: 'mm', noun: 'a length', example: '120.5 mm', inchExample: '4 3/4 in', factors: lengthFactors(1), named: LENGTHS },
  pitch: {
    base: 'mm',
    noun: 'a pitch',
    example: '1.5 mm',
    inchExample: '20 tpi',
    factors: lengthFactors(1),
    reciprocal: { tpi: MM_PER_INCH },
    named: ['mm', 'in', 'tpi'],
  },
  deviation: {
    base: 'um',
    noun: 'a small distance',
    example: '0.012 mm',
    inchExample: '0.5 thou',
    factors: lengthFactors(1000),
    named: LENGTHS,
  },
  slope: {
    base: 'um/m',
    noun: 'a slope',
    example: '20 um/m',
    inchExample: '0.5 thou/ft',
    factors: {
      'um/m': 1,
      'mm/m': 1000,
      'thou/ft': 1000 / 12,
      'in/ft': 1e6 / 12,
      'um/300mm': 1 / 0.3,
      arcsec: ARCSEC_IN_UM_PER_M,
      arcmin: 60 * ARCSEC_IN_UM_PER_M,
      deg: 3600 * ARCSEC_IN_UM_PER_M,
      '°': 3600 * ARCSEC_IN_UM_PER_M,
    },
    named: ['um/m', 'mm/m', 'thou/ft', 'mm in 300 mm', 'arcsec'],
  },
  twist: {
    base: 'um/m per m',
    noun: 'a twist',
    example: '20 um/m per m',
    inchExample: '0.1 thou/ft per ft',
    factors: { 'um/m per m': 1, 'mm/m per m': 1000, 'thou/ft per ft': 25.4 / 0.3048 / 0.3048 },
  },
  angle: {
    base: 'deg',
    noun: 'an angle',
    example: '20 deg',
    inchExample: '20 deg',
    factors: { deg: 1, degree: 1, degrees: 1, '°': 1 },
    named: ['deg'],
  },
  temperature: {
    base: 'C',
    noun: 'a temperature',
    example: '20 C',
    inchExample: '68 F',
    factors: { c: 1, '°c': 1, f: 5 / 9, '°f': 5 / 9 },
    offsets: { f: 32, '°f': 32 },
    named: ['C', 'F'],
  },
  warming: {
    base: 'C',
    noun: 'a difference of temperature',
    example: '10 C',
    inchExample: '18 F',
    factors: { c: 1, '°c': 1, k: 1, f: 5 / 9, '°f': 5 / 9 },
    named: ['C', 'F'],
  },
  force: {
    base: 'N',
    noun: 'a force',
    example: '0.15 N',
    inchExample: '0.5 oz',
    factors: {
      ...{ n: 1, kn: 1000, g: GRAM, gf: GRAM, kg: 1000 * GRAM, kgf: 1000 * GRAM },
      ...{ lb: POUND, lbs: POUND, lbf: POUND, oz: POUND / 16, ozf: POUND / 16 },
    },
    named: ['N', 'g', 'kg', 'oz', 'lbf'],
  },
  number: { base: '1', noun: 'a number', example: '0.4', inchExample: '0.4', factors: { '1': 1 } },
};
