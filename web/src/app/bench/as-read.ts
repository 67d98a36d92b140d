import { DIMENSIONS, readNumber, type Instrument, type UnitSystem, type ValueKind } from '@isometra/core';

/** Unit in which a bare reading is taken, as shown beside the field. */
export function readingUnit(kind: ValueKind, instrument: Instrument | undefined, system: UnitSystem): string {
  if (kind === 'size') return system === 'inch' ? 'in' : 'mm';
  if (kind === 'gap') return system === 'inch' ? 'thou' : 'mm';
  return instrument ? 'div' : system === 'inch' ? 'thou' : 'µm';
}

/** What was typed with the shown unit behind a bare number, so that it stays what it was. */
export function asRead(text: string, kind: ValueKind, instrument: Instrument | undefined, system: UnitSystem): string {
  const read = readNumber(text);
  return read && read.unit === '' ? `${text.trim()} ${readingUnit(kind, instrument, system)}` : text.trim();
}

/** Finer than this part of what a dial can be read to is no reading of it. */
const FAR_FINER = 0.2;
const UNITS = ['mm', 'in', 'µm', 'thou'] as const;

/**
 * A bare reading that the dial cannot have shown: far finer than it can be read, or beyond its travel. What it may be instead, each with
 * its unit, and as it stands; undefined where nothing is to be asked.
 *
 * @example on a dial of 0.5 thou, `.0015` → ['.0015 in', '.0015 div']
 */
export function askedReading(text: string, kind: ValueKind, instrument: Instrument | undefined): readonly string[] | undefined {
  const read = readNumber(text);
  if (kind !== 'indicator' || !instrument || !read || read.unit !== '' || read.value === 0) return undefined;
  const { graduation, readTo, range = Infinity } = instrument;
  const canShow = (divisions: number, least: number): boolean => divisions >= least * readTo && divisions <= range;
  const size = Math.abs(read.value);
  if (canShow(size, FAR_FINER)) return undefined;
  const others = UNITS.filter((unit) => canShow((size * DIMENSIONS.deviation.factors[unit.replace('µ', 'u')]) / graduation, 0.5));
  return [...others, 'div'].map((unit) => `${text.trim()} ${unit}`);
}

/** Pads of one cut lie within this part of each other; anything else is asked about. */
const LIKE = 0.05;

/** What pads of a round can be like, mm. */
export interface Pads {
  /** One that was read already. */
  readonly like?: number | undefined;
  /** The bar before it was turned. */
  readonly from?: number | undefined;
}

/**
 * A bare size unlike the pads of its round, or larger than the bar that they were turned from: what it may be, each with its unit, the
 * one beside the field last; undefined where nothing is to be asked.
 *
 * @example beside a pad of 38.24 mm, `1.505` → ['1.505 in', '1.505 mm']
 */
export function askedSize(text: string, { like, from }: Pads, system: UnitSystem): readonly string[] | undefined {
  const read = readNumber(text);
  if (!read || read.unit !== '') return undefined;
  const makesSense = (unit: 'mm' | 'in'): boolean => {
    const mm = read.value * DIMENSIONS.length.factors[unit];
    if (like !== undefined) return Math.abs(mm - like) <= LIKE * like;
    return from === undefined || (mm <= (1 + LIKE) * from && mm >= from / 4);
  };
  const shown = system === 'inch' ? 'in' : 'mm';
  if (makesSense(shown)) return undefined;
  const other = shown === 'mm' ? 'in' : 'mm';
  return [...(makesSense(other) ? [other] : []), shown].map((unit) => `${text.trim()} ${unit}`);
}

/** The typed number with its sign turned: `3.5 div` ↔ `-3.5 div`. */
export function flipSign(text: string): string {
  const trimmed = text.trimStart();
  if (/^[-−]/.test(trimmed)) return trimmed.slice(1).trimStart();
  return `-${trimmed.replace(/^\+/, '')}`;
}

/** The number moved by some steps of what can be read; an empty field counts as zero. */
export function nudged(text: string, steps: number, step: number): string {
  const read = text.trim() === '' ? { value: 0, unit: '' } : readNumber(text);
  if (!read || (read.unit !== '' && read.unit !== 'div')) return text;
  const next = Math.round((read.value + steps * step) / step) * step;
  return `${Number(next.toFixed(6))}${read.unit ? ` ${read.unit}` : ''}`;
}
