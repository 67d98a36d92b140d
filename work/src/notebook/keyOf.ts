import type { CheckDefinition } from '@isometra/core';

const names = new WeakMap<object, string>();

/** One text for one set of keys, whatever their order. */
export function keyOf(keys: Readonly<Record<string, unknown>>): string {
  const known = names.get(keys) ?? JSON.stringify(Object.entries(keys).sort());
  names.set(keys, known);
  return known;
}

const placeKeys = new WeakMap<object, ReadonlySet<string>>();

/** The keys that tell one place of a check from another. */
export function placeKeysOf(check: Pick<CheckDefinition, 'slotKeys' | 'beside'>): ReadonlySet<string> {
  const known = placeKeys.get(check);
  if (known) return known;
  const beside = new Set(check.beside?.map(({ key }) => key));
  const own = new Set(check.slotKeys.filter((key) => !beside.has(key)));
  placeKeys.set(check, own);
  return own;
}

/** Names of places by the keys of a reading: a row is one of one check. */
const places = new WeakMap<object, string>();

/** One text for one place of a check: facts of a reading that stand beside its figure tell no place from another. */
export function placeOf(check: Pick<CheckDefinition, 'slotKeys' | 'beside'>, keys: Readonly<Record<string, unknown>>): string {
  const known = places.get(keys);
  if (known !== undefined) return known;
  const own = placeKeysOf(check);
  const name = JSON.stringify(
    Object.entries(keys)
      .filter(([key]) => own.has(key))
      .sort(),
  );
  places.set(keys, name);
  return name;
}
