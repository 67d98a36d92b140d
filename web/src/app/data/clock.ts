/** Less than this apart two clocks are the same, ms: a `Date` header is good to a second. */
const ROOM = 3000;

let ahead = 0;

/**
 * What the server says the time is. What is written down is ordered by when it was: on a telephone whose clock is behind, a pass
 * would otherwise come before the plan that it was made for.
 *
 * @param date the `Date` header of an answer.
 */
export function heardTime(date: string | null): void {
  const told = date === null ? NaN : Date.parse(date);
  if (Number.isNaN(told)) return;
  const apart = told - Date.now();
  // It is set anew only where it is off: what is heard trembles by a second, and what is written down must not change places.
  if (Math.abs(apart - ahead) > ROOM) ahead = Math.abs(apart) > ROOM ? apart : 0;
}

/** Now, by the server's clock as far as it was heard. */
export const nowText = (): string => new Date(Date.now() + ahead).toISOString();
