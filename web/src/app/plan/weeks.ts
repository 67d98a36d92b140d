import type { DueItem } from '@isometra/contract';
import { dayWords } from '../data/when';
import { daysFrom } from './plan-words';

/** What is due in one week, with what it is called. */
export interface Week {
  readonly name: string;
  readonly late: boolean;
  readonly items: readonly DueItem[];
}

/** The Monday of the week of a date. @param date as 2026-11-29. */
export function mondayOf(date: string): string {
  const day = (new Date(`${date}T12:00:00Z`).getUTCDay() + 6) % 7;
  return new Date(Date.parse(`${date}T12:00:00Z`) - day * 86_400_000).toISOString().slice(0, 10);
}

function nameOf(monday: string, today: string): string {
  const weeks = Math.round(daysFrom(mondayOf(today), monday) / 7);
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
