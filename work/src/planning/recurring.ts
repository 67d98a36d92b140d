import type { OwnItem } from '@isometra/contract';
import { daysAfter } from '../notebook/dates.js';

/** Whether something that comes round again has its turn on a day or had it before; what is done once always has. */
export const hasItsTurn = ({ every, notBefore }: Pick<OwnItem, 'every' | 'notBefore'>, today: string): boolean =>
  every === undefined || notBefore === null || notBefore <= today;

/**
 * Something of one's own that was done: once for all, or until it comes round again, counted from the day on which it was done.
 *
 * @param now ISO time. @param today the day of the shop, as 2026-11-29.
 */
export function ownDone(item: OwnItem, now: string, today: string): OwnItem {
  if (item.every === undefined) return { ...item, doneAt: now };
  return { ...item, lastAt: now, notBefore: daysAfter(today, item.every) };
}

/** Days in each unit that a turn is told in. */
const UNITS = { day: 1, week: 7, month: 30, year: 365 } as const;
const TYPED = /^(?:every\s+)?(\d{1,4})?\s*(d|days?|w|weeks?|m|months?|y|years?)$/i;

/** Days that a turn takes, as it is typed: "30 days", "6 weeks", "6 months", "a year" without the "a"; undefined where that is none. */
export function everyTyped(typed: string): number | undefined {
  const found = TYPED.exec(typed.trim());
  if (!found) return undefined;
  const unit = (['day', 'week', 'month', 'year'] as const).find((one) => one.startsWith(found[2].toLowerCase().slice(0, 1)));
  const days = Number(found[1] ?? 1) * (unit ? UNITS[unit] : 1);
  return days >= 1 && days <= 3660 ? days : undefined;
}

/** A turn in words: "every 6 months", "every week". */
export function everyWords(days: number): string {
  const unit = (['year', 'month', 'week'] as const).find((one) => days % UNITS[one] === 0) ?? 'day';
  const many = days / UNITS[unit];
  return many === 1 ? `every ${unit}` : `every ${many} ${unit}s`;
}
