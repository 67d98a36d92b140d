import { KIT_SCHEMAS, type Care, type KitItem } from '@isometra/contract';
import { faultsOf, readInstrument, type Fault } from '@isometra/core';
import { daysBetween } from '../notebook/dates.js';

/** What is wrong with the data of a kit item, with paths that begin at `data`. */
export function kitFaults(item: Pick<KitItem, 'kind' | 'data'>): Fault[] {
  if (item.kind === 'instrument') {
    return readInstrument(item.data).faults.map((fault) => ({ ...fault, path: fault.path.replace(/^instrument/, 'data') }));
  }
  const schema = KIT_SCHEMAS[item.kind];
  const parsed = schema.safeParse(item.data);
  return parsed.success ? [] : faultsOf(parsed.error, ['data'], Object.keys(schema.shape));
}

/** Days until a piece of kit is due again: negative when overdue, undefined when it has no date. `today` as 2026-01-31. */
export function daysUntilDue(care: Care, today: string): number | undefined {
  if (!care.due) return undefined;
  return daysBetween(today, care.due);
}

/** What a field of a set-up takes from a piece of kit; undefined when the kit does not know it. */
export function fromKit(item: Pick<KitItem, 'kind' | 'data'>, shape: Readonly<Record<string, unknown>> | undefined): unknown {
  const { data } = item;
  if (item.kind === 'square') return data['error'];
  if (item.kind === 'pins') return data['diameter'];
  if (item.kind === 'holder') return data['sag'];
  if (!shape) return undefined;
  return Object.fromEntries(Object.entries(data).filter(([key]) => key in shape));
}
