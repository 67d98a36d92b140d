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
