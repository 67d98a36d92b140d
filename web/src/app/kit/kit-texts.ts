import { prettyUnit } from '@isometra/core';
import type { KitItem } from '@isometra/contract';
import { daysUntilDue } from '@isometra/work';
import type { ShimRow } from './shim-table';

const joined = (...parts: unknown[]): string => parts.filter(Boolean).map(String).join(', ');
const known = (label: string, value: unknown): string =>
  value === undefined || value === '' ? '' : `${label} ${prettyUnit(String(value))}`;

/** What a piece of kit is, in a line. */
export function shortOf({ kind, data }: Pick<KitItem, 'kind' | 'data'>): string {
  switch (kind) {
    case 'shim-stock':
      return ((data['stock'] ?? []) as readonly ShimRow[]).map((row) => `${row.count} × ${row.thickness}`).join(', ') || 'empty';
    case 'instrument':
      return joined(
        data['kind'],
        data['graduation'] && prettyUnit(String(data['graduation'])),
        data['range'] && `${String(data['range'])} divisions`,
        known('droop', data['holderSag']),
      );
    case 'holder':
      return data['sag'] ? `droops ${prettyUnit(String(data['sag'])).replace(/^[-−]/, '')} top to bottom` : 'droop not measured';
    case 'test-bar':
      return joined(`⌀ ${String(data['diameter'])}`, data['finish'] ?? 'ground', known('bend', data['bend']));
    case 'straightedge':
      return joined(data['length'], known('straight within', data['straightness']));
    case 'square':
      return joined(data['blade'], known('off by', data['error']) || 'error not known');
    case 'pins':
      return joined(`⌀ ${String(data['diameter'])}`, known('alike within', data['matched']));
    case 'sine-plate':
      return joined(`${String(data['rolls'])} between the rolls`);
    case 'blocks':
      return joined(data['height'], data['matched'] === true && 'matched pair');
  }
}

/** "overdue by 12 days", "due in 5 days"; nothing when it is far off or has no date. */
export function dueWords(item: Pick<KitItem, 'care'>, today: string): string {
  const days = daysUntilDue(item.care, today);
  if (days === undefined || days > 60) return '';
  const count = `${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`;
  if (days < 0) return `overdue by ${count}`;
  return days === 0 ? 'due today' : `due in ${count}`;
}
