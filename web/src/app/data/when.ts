import { signal } from '@angular/core';
import { shopClock, shopDate, shopDay, shopShortDate, shopTime } from '@isometra/work/dates';
import { nowText } from './clock';

/** The time zone of this browser. */
export const OWN_ZONE = new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The time zone of the shop, in which everything is dated: this browser's own as long as the server has not told it. */
export const shopZone = signal(OWN_ZONE);

/** A date in the shop's own time: "29 Nov 2026". */
export const dateWords = (at: string): string => shopDate(at, shopZone());

/** The same without the year: "29 Nov". */
export const shortDateWords = (at: string): string => shopShortDate(at, shopZone());

/** A date and the time of day: "29 Nov 2026, 18:40". */
export const timeWords = (at: string): string => shopTime(at, shopZone());

/** The time of day alone: "18:40". */
export const clockWords = (at: string): string => shopClock(at, shopZone());

/** A day of the calendar, as a certificate writes it: 2026-11-29 is "29 Nov 2026" wherever one is. */
export const dayWords = (day: string): string => shopDate(day, null);

/** The same without the year: "29 Nov". */
export const shortDayWords = (day: string): string => shopShortDate(day, null);

/** Today as a certificate writes it. */
export const today = (): string => shopDay(nowText(), shopZone());
