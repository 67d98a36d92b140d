import { CONDITIONS, type Condition, type Need, type NeedState, type Part } from '@isometra/contract';
import { daysBetween } from '../notebook/dates.js';

/** Which states a part goes through, by what has to be done to it. Only what somebody else supplies is ordered. */
export const STATES_OF: Readonly<Record<Exclude<Condition, 'good'>, readonly NeedState[]>> = {
  clean: ['needed', 'done'],
  mend: ['needed', 'ordered', 'here', 'done'],
  make: ['needed', 'ordered', 'here', 'done'],
  order: ['needed', 'ordered', 'here', 'done'],
};

/** What has to be done to a part: undefined for one that is good as it is, removed, or not looked at. */
export function conditionOf({ details, removed }: Pick<Part, 'details' | 'removed'>): Exclude<Condition, 'good'> | undefined {
  const condition = details['condition'] as Condition | undefined;
  return removed || condition === undefined || condition === 'good' ? undefined : condition;
}

/** What has to be done to a part, in words; empty where nothing has. */
export const conditionWords = (part: Pick<Part, 'details' | 'removed'>): string =>
  CONDITIONS.find(({ value }) => value === conditionOf(part))?.label ?? '';

/** How far the work on a part has come; undefined where there is none. What nobody told is still needed. */
export function needOf(part: Pick<Part, 'details' | 'removed' | 'need'>): Need | undefined {
  return conditionOf(part) === undefined ? undefined : (part.need ?? { state: 'needed' });
}

/** Days by which something that was expected is overdue; 0 where it is not. @param today as 2026-11-29. */
export function daysOverdue({ state, expected }: Need, today: string): number {
  if (expected === undefined || state === 'here' || state === 'done') return 0;
  return Math.max(0, daysBetween(expected, today));
}

const ORDER: Readonly<Record<NeedState, number>> = { needed: 0, ordered: 1, here: 2, done: 3 };

/** Rows of the list of what is needed: what is overdue first, then what nobody has begun, then by the day it is expected; what is done last. */
export function inNeed<Row extends { readonly part: Part }>(rows: readonly Row[], today: string): readonly Row[] {
  const rank = ({ part }: Row): readonly [number, string, number] => {
    const need = needOf(part) ?? { state: 'done' };
    return [daysOverdue(need, today) > 0 ? -1 : ORDER[need.state], need.expected ?? '9999', part.number];
  };
  return rows
    .filter(({ part }) => needOf(part))
    .map((row) => ({ row, rank: rank(row) }))
    .sort(({ rank: one }, { rank: other }) => one[0] - other[0] || one[1].localeCompare(other[1]) || one[2] - other[2])
    .map(({ row }) => row);
}
