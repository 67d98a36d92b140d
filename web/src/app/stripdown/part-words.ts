import { readPart, type NeedState, type Part } from '@isometra/contract';
import { conditionWords, daysOverdue, inOrder, needOf, type LengthWords } from '@isometra/work';
import { today } from '../data/when';
import { bothUnits, counted, type Shown } from '../ui/say';

/** A length in the unit of the day. */
export const lengthIn =
  (shown: Shown): LengthWords =>
  (millimetres) =>
    bothUnits(millimetres * 1000, 'deviation', shown).large;

export const STATE_LABELS: Readonly<Record<NeedState, string>> = { needed: 'needed', ordered: 'ordered', here: 'here', done: 'done' };

/** "overdue by 3 days"; empty where it is not. */
export function overdueWords(part: Part): string {
  const need = needOf(part);
  const days = need ? daysOverdue(need, today()) : 0;
  return days ? `overdue by ${counted(days, 'day')}` : '';
}

/** What of a part has to be known at a glance: its shims, left-hand threads, what is hidden, what it still needs, where it is kept. */
export function glanceOf(part: Part): string {
  const details = readPart(part);
  if (!details) return '';
  const { shims = [], fastenings = [], box, marks } = details;
  const need = needOf(part);
  return [
    shims.length && `${counted(shims.length, 'shim')}${shims.some(({ at }) => at === undefined) ? ', corner not known' : ''}`,
    fastenings.some(({ thread }) => thread === 'left') && 'left-hand thread',
    fastenings.some(({ hidden }) => hidden) && 'hidden screw',
    marks && 'marked',
    need && need.state !== 'done' && [conditionWords(part), need.state !== 'needed' && need.state].filter(Boolean).join(', '),
    box,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** "12 parts, 3 fitted". */
export function progressWords(all: readonly Part[]): string {
  const parts = inOrder(all);
  const fitted = parts.filter((part) => part.fitted).length;
  return `${counted(parts.length, 'part')}${fitted ? `, ${fitted} fitted` : ''}`;
}
