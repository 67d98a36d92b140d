import type { ValueKind } from '@isometra/core';
import { keyLabel } from '../sheets/door.js';
import { unitsOf, type InField } from './fields.js';
import { infoOf, isFelt, keysOf, wordsOf, type ReadingsAbout } from './readingPlaces.js';

const VALUE_UNITS: Readonly<Record<ValueKind, readonly string[]>> = {
  indicator: ['div', 'um', 'mm', 'thou', 'tenths', 'in'],
  level: ['div', 'um/m', 'mm/m', 'thou/ft', 'arcsec'],
  size: ['mm', 'in'],
  gap: ['mm', 'um', 'thou', 'in'],
  none: [],
};
const KEY_NAMES: Readonly<Record<string, readonly string[]>> = {
  at: ['place', 'position', 'station', 'where', 'x', 'along'],
  side: ['way', 'edge'],
  plane: ['direction'],
  angle: ['angle', 'turn'],
};
const BESIDE_NAMES: Readonly<Record<string, readonly string[]>> = {
  go: ['enters', 'goes in', 'go', 'thickest that enters'],
  noGo: ['does not enter', 'no go', 'not go', 'nogo', 'thinnest that does not'],
  drag: ['feel', 'felt', 'drag'],
};

/** What may stand beside the readings of a round: which leaf entered, how warm the part was. */
function besideFields({ check, slots }: Pick<ReadingsAbout, 'check' | 'slots'>): InField[] {
  const asked = (check.beside ?? []).filter(({ when }) => slots.some(({ keys }) => when?.(keys) ?? true));
  return asked.map(({ key }): InField => {
    const info = infoOf(check, key);
    const names = [key, ...(BESIDE_NAMES[key] ?? [])].map((name) => name.toLowerCase());
    return {
      ...{ key: `beside.${key}`, label: keyLabel(check, key), names },
      ...(info?.choices ? { choices: info.choices.map(({ value, label }) => ({ value: String(value), label })) } : {}),
      ...(info?.dimension && !info.choices && { units: unitsOf(info.dimension) }),
    };
  });
}

/** What a table may tell of the readings of a round: where each belongs, what the dial showed or a leaf found, and what stands beside it. */
export function readingFields(about: Pick<ReadingsAbout, 'check' | 'slots' | 'kindOf' | 'instrument'>): InField[] {
  const { check, slots } = about;
  const places = keysOf(about).map((key): InField => {
    const info = infoOf(check, key);
    const values = [...new Set(slots.map(({ keys }) => keys[key]))].filter((value) => value !== undefined);
    const numeric = values.every((value) => typeof value === 'number');
    const known = info?.choices?.filter(({ value }) => values.includes(value));
    return {
      ...{ key: `keys.${key}`, label: keyLabel(check, key), names: [key, ...(KEY_NAMES[key] ?? [])] },
      ...(numeric && { units: unitsOf(info?.dimension ?? 'number') }),
      ...(!numeric && { choices: known?.length ? known : values.map((value) => ({ value: String(value), label: wordsOf(value) })) }),
    };
  });
  const scaled = slots.find(({ keys }) => !isFelt(check, keys));
  const beside = besideFields(about);
  if (!scaled && slots.length > 0) return [...places, ...beside];
  const kind = about.kindOf(scaled?.keys ?? {});
  const required = slots.every(({ keys }) => !isFelt(check, keys));
  const units = VALUE_UNITS[kind].filter((unit) => unit !== 'div' || about.instrument);
  const names = ['value', 'reading', 'reads', 'dial', 'indicator', 'level', 'size', 'diameter', 'readings'];
  return [
    ...places,
    { key: 'value', label: 'Reading', required, names, units, ...((kind === 'indicator' || kind === 'level') && { signed: true }) },
    ...beside,
  ];
}
