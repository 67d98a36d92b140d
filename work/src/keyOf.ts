import type { CheckDefinition } from '@isometra/core';

const names = new WeakMap<object, string>();

/** One text for one set of keys, whatever their order. */
export function keyOf(keys: Readonly<Record<string, unknown>>): string {
  const known = names.get(keys) ?? JSON.stringify(Object.entries(keys).sort());
  names.set(keys, known);
  return known;
}

const places = new WeakMap<object, Map<string, string>>();

/** One text for one place of a check: facts of a reading that stand beside its figure tell no place from another. */
export function placeOf(check: Pick<CheckDefinition, 'id' | 'slotKeys' | 'beside'>, keys: Readonly<Record<string, unknown>>): string {
  const known = places.get(keys) ?? new Map<string, string>();
  places.set(keys, known);
  const beside = check.beside?.map(({ key }) => key) ?? [];
  const name =
    known.get(check.id) ??
    keyOf(Object.fromEntries(Object.entries(keys).filter(([key]) => check.slotKeys.includes(key) && !beside.includes(key))));
  known.set(check.id, name);
  return name;
}
