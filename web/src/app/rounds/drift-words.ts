import { YEAR, type QuantityInfo } from '@isometra/core';
import type { Drift } from '@isometra/work';
import { sizeOf, type Shown } from '../ui/say';

/** Sizes as the screen shows them; finer where one of them would be rounded to nothing. */
function sizesOf(values: readonly number[], info: QuantityInfo, shown: Shown): (value: number) => string {
  const at = (fine: Shown) => (value: number) => sizeOf(Math.abs(value), info, fine, 1);
  const gone = values.some((value) => value !== 0 && Number(at(shown)(value).figure) === 0);
  return (value) => at(gone ? { ...shown, fineness: 'fine' } : shown)(value).large;
}

/** What a quantity does over the years, in words: how much a year, when it will be out, when to read again; or that nothing can be said. */
export function driftWords(
  { trend, rounds, after }: Pick<Drift, 'trend' | 'rounds' | 'after'>,
  info: QuantityInfo,
  shown: Shown,
  date: (at: number) => string,
): string {
  const name = info.label;
  const since = after === null ? '' : ' since it was last moved';
  if (trend.kind === 'nothing') return `${name}: nothing can be said yet of how it drifts. One round has been read${since}.`;
  if (trend.kind === 'two') {
    const size = sizesOf([trend.difference, trend.expanded], info, shown);
    return `${name}: two rounds make no trend. They differ by ${size(trend.difference)}, ${trend.differ ? 'more' : 'no more'} than the ± ${size(trend.expanded)} of both.`;
  }
  const { slope, expanded, leaves, bends, readAgainAfter } = trend;
  const size = sizesOf([slope, expanded], info, shown);
  const over = `by ${rounds} rounds${since}`;
  if (!trend.drifts) return `${name}: no drift is told, ${over}: ${size(slope)} a year is within its doubt of ± ${size(expanded)}.`;
  const bend = bends === 'settling' ? ', and slows down: it settles' : bends === 'growing' ? ', and gets faster' : '';
  const rate = `${name} drifts by ${size(slope)} ± ${size(expanded)} a year, ${over}${bend}.`;
  if (!leaves) return `${rate} No limit lies ahead of it.`;
  const to = leaves.to === null || leaves.to - leaves.from > 50 * YEAR ? 'or later' : `to ${date(leaves.to)}`;
  return `${rate} It leaves its limits about ${date(leaves.at)} (${date(leaves.from)} ${to}).${readAgainAfter === null ? '' : ` Read it again after ${readAgainAfter} days.`}`;
}
