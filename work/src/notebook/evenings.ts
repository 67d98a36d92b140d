import { TZDate } from '@date-fns/tz';
import { shopDay } from './dates.js';

/** Anything that was written down at some time. */
export interface Dated {
  /** ISO time. */
  readonly at: string;
}

/** A stretch of work in one go, from its first entry to its last. */
export type Evening<T extends Dated> = readonly T[];

/** Two entries further apart than this belong to two evenings, ms. */
export const EVENING_PAUSE = 3 * 3_600_000;
/** Who works on past midnight is still at the evening before: a day of the shop begins at this hour. */
const DAY_BEGINS = 4;

/**
 * Evenings of work: a new one begins after a long pause, and after somebody said that this one was done.
 *
 * @param entries oldest first.
 * @param done whether an entry ends its evening.
 */
export function eveningsOf<T extends Dated>(entries: readonly T[], done: (entry: T) => boolean = () => false): readonly Evening<T>[] {
  const evenings: T[][] = [];
  for (const entry of entries) {
    const evening = evenings.at(-1);
    const last = evening?.at(-1);
    if (!evening || !last || done(last) || Date.parse(entry.at) - Date.parse(last.at) > EVENING_PAUSE) evenings.push([entry]);
    else evening.push(entry);
  }
  return evenings;
}

/** From the first entry of an evening to its last, minutes. */
export const minutesOf = (evening: Evening<Dated>): number =>
  evening.length ? (Date.parse(evening[evening.length - 1].at) - Date.parse(evening[0].at)) / 60_000 : 0;

/** The day that an evening is called by: that of its beginning, where the hours after midnight still count as the day before. */
export function dayOfEvening([first]: Evening<Dated>, timeZone: string | null): string {
  const began = new TZDate(first.at, timeZone ?? 'UTC');
  // By the clock on the wall: in the night in which it is put forward, four in the morning is three hours after midnight.
  if (began.getHours() < DAY_BEGINS) began.setDate(began.getDate() - 1);
  return shopDay(new Date(began.getTime()).toISOString(), timeZone);
}

/** The evening that an entry belongs to, with what was written down in it up to that entry; empty where it is not among them. */
export function eveningUpTo<T extends Dated & { readonly id: string }>(
  entries: readonly T[],
  id: string,
  done?: (entry: T) => boolean,
): Evening<T> {
  const evening = eveningsOf(entries, done).find((evening) => evening.some((entry) => entry.id === id)) ?? [];
  return evening.slice(0, evening.findIndex((entry) => entry.id === id) + 1);
}
