import type { CheckDefinition } from './define.js';

/** Whether a check stands before another: the other depends on it (and not it on the other), or says that it comes after it. */
function before(check: CheckDefinition, other: CheckDefinition): boolean {
  const mutual = check.hangsOn.includes(other.id);
  return (other.hangsOn.includes(check.id) && !mutual) || (other.after ?? []).includes(check.id);
}

/**
 * Some checks in working order: each after those it depends on and those it says it follows; of several that may
 * come next, the one that was listed first.
 *
 * @throws RangeError when two checks each have to stand before the other.
 */
export function workingOrder(checks: readonly CheckDefinition[]): CheckDefinition[] {
  const waiting = new Set(checks);
  const done: CheckDefinition[] = [];
  while (waiting.size) {
    const next = [...waiting].find((check) => ![...waiting].some((other) => other !== check && before(other, check)));
    if (!next) throw new RangeError(`no working order: ${[...waiting].map(({ id }) => id).join(', ')} stand before one another`);
    waiting.delete(next);
    done.push(next);
  }
  return done;
}
