const names = new WeakMap<object, string>();

/** One text for one place, whatever the order of its keys. */
export function keyOf(keys: Readonly<Record<string, unknown>>): string {
  const known = names.get(keys) ?? JSON.stringify(Object.entries(keys).sort());
  names.set(keys, known);
  return known;
}
