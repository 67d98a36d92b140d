/** Two entries further apart than this: what lies between them was not work, ms. */
export const WORK_PAUSE = 20 * 60_000;
/** A move from the opening of its card to its end is one evening at most, ms. */
const LONGEST_MOVE = 3 * 3_600_000;

/** Minutes that were worked between the first and the last of some entries, pauses left out. @param times ISO, in order. */
export function workedMinutes(times: readonly string[]): number {
  const at = times.map((time) => Date.parse(time));
  const gaps = at.slice(1).map((time, i) => time - at[i]);
  return gaps.filter((gap) => gap > 0 && gap <= WORK_PAUSE).reduce((total, gap) => total + gap, 0) / 60_000;
}

/** Minutes from when a round was begun to its first reading: its set-up; undefined where a pause lies between, or nothing does. */
export function setUpMinutes(begun: string, first: string): number | undefined {
  const gap = Date.parse(first) - Date.parse(begun);
  return gap > 0 && gap <= WORK_PAUSE ? gap / 60_000 : undefined;
}

/**
 * Minutes of a move, from the opening of its card to its end: both were written down, so that no entry between them is asked for.
 * Undefined where it was not finished in one evening.
 */
export function moveMinutes(begun: string, done: string): number | undefined {
  const span = Date.parse(done) - Date.parse(begun);
  return span > 0 && span <= LONGEST_MOVE ? span / 60_000 : undefined;
}
