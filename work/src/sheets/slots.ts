import { CHECKS, type PlannedSlot } from '@isometra/core';
import type { ReadingWrite, RoundWrite, StoredReading } from '@isometra/contract';
import { keyOf, placeOf } from '../notebook/keyOf.js';
import { standingReadings } from './sheet.js';

/** A place on the bench: what was planned and what was read there in the set-up in hand. */
export interface BenchSlot<R = StoredReading> extends PlannedSlot {
  readonly index: number;
  readonly readings: readonly R[];
  readonly done: boolean;
}

/**
 * Lay readings on the planned places. The closing place is the first one come back to: only a
 * reading taken after another place counts for it. Places that were read but not planned follow; when
 * nothing was read where it was planned, they are the plan.
 */
export function withReadings<R extends Pick<StoredReading, 'keys'>>(
  planned: readonly PlannedSlot[],
  readings: readonly R[],
  nameOf: (keys: R['keys']) => string = keyOf,
): BenchSlot<R>[] {
  // Runs of readings at one place without another between them, by place.
  const runs = new Map<string, R[][]>();
  let before = '';
  for (const reading of readings) {
    const key = nameOf(reading.keys);
    const own = runs.get(key) ?? [];
    if (key === before) own[own.length - 1].push(reading);
    else own.push([reading]);
    if (own.length === 1) runs.set(key, own);
    before = key;
  }
  const plannedKeys = new Set(planned.map((slot) => nameOf(slot.keys)));
  const strays: PlannedSlot[] = [];
  for (const [key, [[{ keys }]]] of runs) if (!plannedKeys.has(key)) strays.push({ keys, label: placeName(keys) });
  const met = strays.length < runs.size;
  const slots = [...(strays.length && !met ? [] : planned), ...strays];
  return slots.map(({ keys, label, ask, closing, movable }, index) => {
    const own = runs.get(nameOf(keys)) ?? NONE;
    const taken: readonly R[] = own.length > (closing ? 1 : 0) ? own[closing ? own.length - 1 : 0] : NONE;
    return { keys, label, ask, closing, movable, index, readings: taken, done: taken.length > 0 };
  });
}

const NONE: readonly never[] = [];

/** A place that nobody planned, by its keys. */
function placeName(keys: Readonly<Record<string, unknown>>): string {
  const words = Object.entries(keys)
    .filter(([key]) => key !== 'at')
    .map(([, value]) => String(value));
  return words.length ? words.join(', ') : 'Place';
}

/** The places that a round plans, in working order; none where its set-up says too little. */
export function plannedSlots({ check, setup, plan }: Pick<RoundWrite, 'check' | 'setup' | 'plan'>): readonly PlannedSlot[] {
  const definition = CHECKS.get(check);
  const told = definition?.setup.safeParse(setup);
  if (!definition || !told?.success) return [];
  const planned = definition.plan.safeParse(plan);
  return definition.slots(told.data, planned.success ? planned.data : definition.plan.parse({}));
}

/** A reading as far as its place is asked. */
export type Taken = Pick<ReadingWrite, 'id' | 'supersedes' | 'value' | 'keys' | 'set'>;

/**
 * How many planned places of a round were not read in its last set-up, where some were: it was left half way. A closing place that
 * was not come back to is none, and who read at places of their own went by another plan.
 */
export function placesLeft(round: Pick<RoundWrite, 'check' | 'setup' | 'plan'>, readings: readonly Taken[]): number {
  const check = CHECKS.get(round.check);
  const standing = standingReadings(readings);
  const slots = plannedSlots(round);
  if (!check || slots.length === 0 || standing.length === 0) return 0;
  const last = standing.reduce((most, { set }) => Math.max(most, set), 1);
  const here = standing.filter(({ set }) => set === last);
  const shown = withReadings(slots, here, (keys) => placeOf(check, keys));
  // Who read at places of their own had another plan than the one written down.
  if (shown.length > slots.length) return 0;
  return shown.filter(({ done, closing }) => !done && !closing).length;
}
