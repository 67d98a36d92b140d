import type { DueItem } from '@isometra/contract';
import { daysAfter, daysBetween, weekdayOf } from '@isometra/work';
import { dayWords } from '../data/when';

/** What is due in one week, with what it is called. */
export interface Week {
  readonly name: string;
  readonly late: boolean;
  readonly items: readonly DueItem[];
}

/** The Monday of the week of a date. @param date as 2026-11-29. */
export const mondayOf = (date: string): string => daysAfter(date, -weekdayOf(date));

function nameOf(monday: string, today: string): string {
  const weeks = Math.round(daysBetween(mondayOf(today), monday) / 7);
  if (weeks === 0) return 'This week';
  return weeks === 1 ? 'Next week' : `Week of ${dayWords(monday)}`;
}

/** What is due by week; what was missed comes first, whenever that was. @param items in the order of their days. */
export function weeksOf(items: readonly DueItem[], today: string): readonly Week[] {
  const late = items.filter(({ day }) => day < today);
  const weeks = new Map<string, DueItem[]>();
  for (const item of items.filter(({ day }) => day >= today)) {
    const monday = mondayOf(item.day);
    weeks.set(monday, [...(weeks.get(monday) ?? []), item]);
  }
  return [
    ...(late.length ? [{ name: 'Overdue', late: true, items: late }] : []),
    ...[...weeks].map(([monday, own]) => ({ name: nameOf(monday, today), late: false, items: own })),
  ];
}
