import type { CheckDefinition, PlannedSlot, Values } from '@isometra/core';
import type { ReadingWrite } from '@isometra/contract';
import { keyOf } from './keyOf.js';

/** What moving a place comes to: the plan with the place in it, and the readings that were taken there; or why it cannot be. */
export type Moved<R> =
  | { readonly ok: true; readonly plan: Readonly<Record<string, unknown>>; readonly readings: readonly R[] }
  | { readonly ok: false; readonly message: string };

/**
 * Put a place of the plan where the stylus really goes, mm: all slots of its list that stand there move together (both
 * planes, the bar turned, the closing reading), and what was read there was read at the new place.
 *
 * @param slots the slots of the plan as it is. @param slot the one that is moved. @param readings those that stand.
 */
export function movePlace<R extends Pick<ReadingWrite, 'keys'>>(
  check: CheckDefinition,
  {
    setup,
    plan,
    slots,
    readings,
  }: {
    readonly setup: Values;
    readonly plan: Readonly<Record<string, unknown>>;
    readonly slots: readonly PlannedSlot[];
    readonly readings: readonly R[];
  },
  slot: PlannedSlot,
  at: number,
): Moved<R> {
  const [list, from] = [slot.movable, slot.keys['at']];
  if (!list || typeof from !== 'number') return { ok: false, message: 'This place cannot be moved: it is part of the method' };
  if (!Number.isFinite(at)) return { ok: false, message: 'The place must be a length. Try: 380 mm' };
  const own = slots.filter(({ movable, keys }) => movable === list && typeof keys['at'] === 'number');
  const places = [...new Set(own.map(({ keys }) => keys['at'] as number))];
  if (at === from) return { ok: true, plan, readings: [] };
  if (places.includes(at)) return { ok: false, message: `There is a place at ${at} mm already` };
  const next = { ...plan, [list]: places.map((place) => `${place === from ? at : place} mm`) };
  const parsed = check.plan.safeParse(next);
  if (!parsed.success) return { ok: false, message: `The place ${parsed.error.issues[0].message}` };
  const planned = check.slots(setup, parsed.data);
  if (!planned.some(({ keys }) => keys['at'] === at)) return { ok: false, message: `Nothing can be read at ${at} mm here` };
  const there = new Set(own.filter(({ keys }) => keys['at'] === from).map(({ keys }) => keyOf(keys)));
  return { ok: true, plan: next, readings: readings.filter(({ keys }) => there.has(keyOf(keys))) };
}
