const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * What has become of `before` under two hands: where `mine` was touched it stays, down to single fields; everything
 * else is as `theirs` has it.
 */
export function laidOver<Value>(before: Value, mine: Value, theirs: Value): Value {
  if (JSON.stringify(mine) === JSON.stringify(before)) return theirs;
  if (!isRecord(mine) || !isRecord(theirs)) return mine;
  const was: Readonly<Record<string, unknown>> = isRecord(before) ? before : {};
  const keys = new Set([...Object.keys(mine), ...Object.keys(theirs)]);
  return Object.fromEntries([...keys].map((key) => [key, laidOver(was[key], mine[key], theirs[key])])) as Value;
}
