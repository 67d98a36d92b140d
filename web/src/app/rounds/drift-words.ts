import { YEAR, type QuantityInfo } from '@isometra/core';
import type { Drift } from '@isometra/work';
import { sizeOf, type Shown } from '../ui/say';

/** What a quantity does over the years, in words: how much a year, when it will be out, when to read again; or that nothing can be said. */
export function driftWords(
  { trend, rounds }: Pick<Drift, 'trend' | 'rounds'>,
  info: QuantityInfo,
  shown: Shown,
  date: (at: number) => string,
): string {
  const size = (value: number): string => sizeOf(Math.abs(value), info, shown, 1).large;
  const name = info.label;
  if (trend.kind === 'nothing')
    return `${name}: nothing can be said yet of how it drifts. One round has been read since it was last moved.`;
  if (trend.kind === 'two')
    return `${name}: two rounds make no trend. They differ by ${size(trend.difference)}, ${trend.differ ? 'more' : 'no more'} than the ± ${size(trend.expanded)} of both.`;
  const { slope, expanded, leaves, bends, readAgainAfter } = trend;
  const over = `by ${rounds} rounds since it was last moved`;
  if (!trend.drifts) return `${name}: no drift is told, ${over}: ${size(slope)} a year is within its doubt of ± ${size(expanded)}.`;
  const bend = bends === 'settling' ? ', and slows down: it settles' : bends === 'growing' ? ', and gets faster' : '';
  const rate = `${name} drifts by ${size(slope)} ± ${size(expanded)} a year, ${over}${bend}.`;
  if (!leaves) return `${rate} No limit lies ahead of it.`;
  const to = leaves.to === null || leaves.to - leaves.from > 50 * YEAR ? 'or later' : `to ${date(leaves.to)}`;
  return `${rate} It leaves its limits about ${date(leaves.at)} (${date(leaves.from)} ${to}).${readAgainAfter === null ? '' : ` Read it again after ${readAgainAfter} days.`}`;
}
