import { TZDate } from '@date-fns/tz';

const LOOKS = {
  day: { year: 'numeric', month: '2-digit', day: '2-digit' },
  date: { year: 'numeric', month: 'short', day: 'numeric' },
  short: { month: 'short', day: 'numeric' },
  clock: { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
  time: { year: 'numeric', month: 'short', day: 'numeric', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
} satisfies Record<string, Intl.DateTimeFormatOptions>;
type Look = keyof typeof LOOKS;

const formats = new Map<string, Intl.DateTimeFormat>();

/** One format for each look and zone: making one is slow. */
function formatOf(look: Look, timeZone: string): Intl.DateTimeFormat {
  const key = `${look} ${timeZone}`;
  let format = formats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat(look === 'day' ? 'en-CA' : 'en-GB', { ...LOOKS[look], timeZone });
    formats.set(key, format);
  }
  return format;
}

const written =
  (look: Look) =>
  (at: string, timeZone: string | null): string =>
    formatOf(look, timeZone ?? 'UTC').format(new Date(at));

/**
 * The calendar day of a time where the shop is: `2026-11-29`.
 *
 * @param at ISO time.
 * @param timeZone name of a zone as browsers tell it ("Europe/Lisbon"); UTC where nobody has told it yet.
 */
export const shopDay = written('day');

/** A date as people read it: "29 Nov 2026". */
export const shopDate = written('date');

/** A date without its year: "29 Nov". */
export const shopShortDate = written('short');

/** The time of day alone: "18:40". */
export const shopClock = written('clock');

const HOUR = 3_600_000;

/**
 * A date and the time of day: "29 Nov 2026, 18:40". Where the clock on the wall shows an hour twice, because summer time ends,
 * it says which of the two: "25 Oct 2026, 02:30 summer time".
 */
export function shopTime(at: string, timeZone: string | null): string {
  const time = written('time');
  const [shown, now] = [time(at, timeZone), Date.parse(at)];
  const alsoAt = (by: number): boolean => time(new Date(now + by).toISOString(), timeZone) === shown;
  if (alsoAt(HOUR)) return `${shown} summer time`;
  return alsoAt(-HOUR) ? `${shown} standard time` : shown;
}

/** The instant at which a day of the calendar begins where the shop is. @param after days later than that day. */
export function dayBegins(day: string, timeZone: string | null, after = 0): Date {
  const [year, month, date] = day.split('-').map(Number);
  return new Date(new TZDate(year, month - 1, date + after, timeZone ?? 'UTC').getTime());
}

/** Whole days from one day of the calendar to another: `2026-11-28` to `2026-11-30` is 2. */
export const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / (24 * HOUR));

/** The day so many days after another: two after `2026-11-29` is `2026-12-01`. */
export const daysAfter = (day: string, days: number): string => new Date(Date.parse(day) + days * 24 * HOUR).toISOString().slice(0, 10);

/** The place of a day in its week: 0 for a Monday, 6 for a Sunday. */
export const weekdayOf = (day: string): number => (new Date(day).getUTCDay() + 6) % 7;

/** When the clock on the wall of the shop shows so many minutes after midnight, also on a day on which it is put forward or back. */
export function clockOn(day: string, minutes: number, timeZone: string | null): Date {
  const [year, month, date] = day.split('-').map(Number);
  return new Date(new TZDate(year, month - 1, date, 0, Math.floor(minutes), (minutes % 1) * 60, timeZone ?? 'UTC').getTime());
}

/**
 * The time that a clock in the shop showed, as ISO time.
 *
 * @param day `2026-11-29`.
 * @param clock `18:40`.
 * @returns undefined where that is no day or no time of day; in an hour that the clock shows twice, the first.
 */
export function timeInShop(day: string, clock: string, timeZone: string): string | undefined {
  const [date, time] = [/^(\d{4})-(\d{2})-(\d{2})$/.exec(day.trim()), /^(\d{1,2})[:.](\d{2})$/.exec(clock.trim())];
  if (!date || !time) return undefined;
  const [year, month, dayOfMonth, hours, minutes] = [...date.slice(1), ...time.slice(1)].map(Number);
  if (month > 12 || hours > 23 || minutes > 59) return undefined;
  const found = new TZDate(year, month - 1, dayOfMonth, hours, minutes, timeZone);
  const shows = (time: TZDate): boolean => time.getDate() === dayOfMonth && time.getHours() === hours && time.getMinutes() === minutes;
  // 31 June is 1 July; and there is no half past two in the night in which the clocks go forward.
  if (!shows(found)) return undefined;
  const before = new TZDate(found.getTime() - HOUR, timeZone);
  return new Date((shows(before) ? before : found).getTime()).toISOString();
}
