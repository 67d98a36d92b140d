/** Entries in groups, by a key each; groups and what is in them in the order in which they came. */
export function groupedBy<T>(entries: readonly T[], keyOf: (entry: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const entry of entries) {
    const own = groups.get(keyOf(entry));
    if (own) own.push(entry);
    else groups.set(keyOf(entry), [entry]);
  }
  return groups;
}
