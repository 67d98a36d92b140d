import { FEATURE_NAMES, FEATURES, type Feature } from '../checks/features.js';
import type { Values } from '../instruments/slots.js';
import type { SizeWriter } from '../units/said.js';

const isFeature = (value: unknown): value is Feature => FEATURES.some((feature) => feature === value);
const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const number = (value: unknown): string => String(Number(Number(value).toFixed(2)));

/** How each reading key is said; keys without words here are left out. */
const SAID: Readonly<Record<string, (value: unknown, size: SizeWriter) => string>> = {
  plane: (value) => (value === 'h' ? 'side' : 'top'),
  axis: (value) => `along ${String(value)}`,
  leg: (value) => `${String(value)} leg`,
  feature: (value) => (isFeature(value) ? lowerFirst(FEATURE_NAMES[value]) : String(value)),
  corner: (value) => `corner ${String(value)}`,
  at: (value, size) => size(Number(value), 'length'),
  across: (value, size) => `${size(Number(value), 'length')} across`,
  angle: (value) => `${number(value)}°`,
  extreme: (value) => (value === 'high' ? 'highest' : 'lowest'),
  turn: (value) => (value === 180 ? 'turned half round' : value === 0 ? '' : `turned to ${number(value)}°`),
  bush: (value) => (value === 180 ? 'bush turned half round' : ''),
  swapped: (value) => (value === true ? 'ends swapped' : ''),
  flip: (value) => (value === true ? 'square flipped' : ''),
  end: (value) => (value === 'reversed' ? 'level turned end for end' : ''),
  edge: (value) => (value === 'away' ? 'edge turned over' : ''),
  zero: (value) => (value === 1 ? '' : `zero ${number(value)}`),
  pin: (value, size) => `pin ${size(Number(value), 'length')}`,
};

/** The keys of a reading that tell its place from the others. */
export const placeOf = (keys: Values, slotKeys: readonly string[]): Readonly<Record<string, unknown>> =>
  Object.fromEntries(slotKeys.flatMap((key) => (keys[key] === undefined ? [] : [[key, keys[key]]])));

/** Whether `placeWords` says all that tells a place from the others. */
export const saysWhole = (keys: Values, slotKeys: readonly string[]): boolean =>
  Object.keys(placeOf(keys, slotKeys)).every((key) => SAID[key] !== undefined);

/** A place in words: "side, 400 mm, turned half round". */
export function placeWords(keys: Values, slotKeys: readonly string[], size: SizeWriter): string {
  const parts = Object.entries(placeOf(keys, slotKeys)).map(([key, value]) => SAID[key]?.(value, size) ?? '');
  const set = Number(keys['set'] ?? 1);
  return [...parts, set > 1 ? `set-up ${set}` : ''].filter((part) => part !== '').join(', ') || 'this place';
}
