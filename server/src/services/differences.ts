const isGroup = (value: unknown): value is Readonly<Record<string, unknown>> => typeof value === 'object' && value !== null;

/** Every leaf of a value with its path: `setup.bar.diameter` → "25 mm". What is null or left out has no leaf. */
function leavesOf(value: unknown, path = ''): [path: string, leaf: string][] {
  if (value === null || value === undefined) return [];
  if (!isGroup(value)) return [[path, String(value)]];
  const dot = path && '.';
  return Object.entries(value).flatMap(([key, part]) => leavesOf(part, `${path}${dot}${key}`));
}

/**
 * What differs between two values, a line for each leaf, for the logbook: "Bar, bar diameter 25 mm → 28 mm".
 * The order of keys does not matter; equal values give no line.
 *
 * @param name what a person calls a path like `setup.bar.diameter`; the path itself when left out.
 */
export function differencesOf(before: unknown, after: unknown, name: (path: string) => string = (path) => path): string[] {
  const [old, now] = [new Map(leavesOf(before)), new Map(leavesOf(after))];
  return [...new Set([...old.keys(), ...now.keys()])]
    .filter((path) => old.get(path) !== now.get(path))
    .map((path) => `${name(path)} ${old.get(path) ?? 'not given'} → ${now.get(path) ?? 'not given'}`);
}
