import { readNumber, type Instrument, type UnitSystem, type ValueKind } from '@isometra/core';

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
