/** A reading this many times the largest of its neighbours is asked about: a decimal place is a factor of ten. */
const TIMES = 8;
/** Below so many divisions a reading is small on its dial. */
export const TEN_DIVISIONS = 10;

/** Made once for each reading, whatever the round grows to. */
const lines = new WeakMap<object, string>();

/** What places of one line have in common: everything but where on it they lie. */
export function lineOf(keys: Readonly<Record<string, unknown>>): string {
  const known = lines.get(keys);
  if (known !== undefined) return known;
  const { at: _at, angle: _angle, ...rest } = keys;
  const line = JSON.stringify(rest);
  lines.set(keys, line);
  return line;
}

/** Whether two readings of one place, in the unit of the division, are farther apart than two divisions: a slip, or something moved. */
export const liesApart = (one: number, other: number, graduation: number): boolean => Math.abs(one - other) > 2 * graduation + 1e-9;

/**
 * Whether a reading is about ten times what the other places of its line read, as one with a slipped decimal place is. Nothing is said
 * before two other places have been read, nor of readings that are small on their dial.
 *
 * @param others what the other places of its line read, divisions. @param value divisions.
 */
export function isTenTimes(others: readonly number[], value: number): boolean {
  if (others.length < 2) return false;
  const most = Math.max(...others.map(Math.abs));
  return most >= 0.5 && Math.abs(value) >= TIMES * most && Math.abs(value) <= 1.5 * 10 * most && Math.abs(value) >= TEN_DIVISIONS;
}
