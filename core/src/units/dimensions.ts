/** What a number can be a measure of. Each has one base unit in which the core computes. */
export type Dimension = 'length' | 'deviation' | 'slope' | 'twist' | 'angle' | 'temperature' | 'force';

interface DimensionFacts {
  /** Unit the core computes in, as written in files. */
  readonly base: string;
  /** What a person would call it in an error. */
  readonly noun: string;
  /** A text that would be taken. */
  readonly example: string;
  /** Unit as typed (lower case, µ written u) to base units. */
  readonly factors: Readonly<Record<string, number>>;
}

const MM_PER_INCH = 25.4;

const lengthFactors = (perMillimetre: number): Readonly<Record<string, number>> => ({
  mm: perMillimetre,
  um: perMillimetre / 1000,
  in: perMillimetre * MM_PER_INCH,
  '"': perMillimetre * MM_PER_INCH,
  thou: (perMillimetre * MM_PER_INCH) / 1000,
  tenth: (perMillimetre * MM_PER_INCH) / 10_000,
  tenths: (perMillimetre * MM_PER_INCH) / 10_000,
  uin: (perMillimetre * MM_PER_INCH) / 1_000_000,
});

/** One second of arc in µm/m: π/648 000 rad. */
export const ARCSEC_IN_UM_PER_M = (Math.PI / 648_000) * 1e6;

/**
 * Every dimension with its base unit and the units that are taken for it.
 * Source: docs/methods/units.md.
 */
export const DIMENSIONS: Readonly<Record<Dimension, DimensionFacts>> = {
  length: { base: 'mm', noun: 'a length', example: '120.5 mm', factors: lengthFactors(1) },
  deviation: { base: 'um', noun: 'a small distance', example: '0.012 mm', factors: lengthFactors(1000) },
  slope: {
    base: 'um/m',
    noun: 'a slope',
    example: '20 um/m',
    factors: {
      'um/m': 1,
      'mm/m': 1000,
      'thou/ft': 1000 / 12,
      'um/300mm': 1 / 0.3,
      arcsec: ARCSEC_IN_UM_PER_M,
    },
  },
  twist: { base: 'um/m per m', noun: 'a twist', example: '20 um/m per m', factors: { 'um/m per m': 1, 'mm/m per m': 1000 } },
  angle: { base: 'deg', noun: 'an angle', example: '20 deg', factors: { deg: 1, '°': 1 } },
  temperature: { base: 'C', noun: 'a temperature', example: '20 C', factors: { c: 1, '°c': 1 } },
  force: { base: 'N', noun: 'a force', example: '0.15 N', factors: { n: 1 } },
};
