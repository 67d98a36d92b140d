import type { PlannedSlot } from '@isometra/core';
import type { StoredReading } from '@isometra/contract';
import { keyOf } from '@isometra/work';

/** A place on the bench: what was planned and what was read there in the set-up in hand. */
export interface BenchSlot extends PlannedSlot {
  readonly index: number;
  readonly readings: readonly StoredReading[];
  readonly done: boolean;
}

/**
 * Lay readings on the planned places. The closing place is the first one come back to: only a
 * reading taken after another place counts for it. Places that were read but not planned follow; when
 * nothing was read where it was planned, they are the plan.
 */
export function withReadings(
  planned: readonly PlannedSlot[],
  readings: readonly StoredReading[],
  nameOf: (keys: StoredReading['keys']) => string = keyOf,
): BenchSlot[] {
  // Runs of readings at one place without another between them, by place.
  const runs = new Map<string, StoredReading[][]>();
  let before = '';
  for (const reading of readings) {
    const key = nameOf(reading.keys);
    const own = runs.get(key) ?? [];
    if (key === before) own.at(-1)?.push(reading);
    else own.push([reading]);
    runs.set(key, own);
    before = key;
  }
  const plannedKeys = new Set(planned.map((slot) => nameOf(slot.keys)));
  const strays = [...runs]
    .filter(([key]) => !plannedKeys.has(key))
    .map(([, [[{ keys }]]]): PlannedSlot => ({ keys, label: placeName(keys) }));
  const met = strays.length < runs.size;
  const slots = [...(strays.length && !met ? [] : planned), ...strays];
  return slots.map(({ keys, label, ask, closing, movable }, index) => {
    const own = runs.get(nameOf(keys)) ?? [];
    const taken = (closing ? own.slice(1).at(-1) : own[0]) ?? [];
    return { keys, label, ask, closing, movable, index, readings: taken, done: taken.length > 0 };
  });
}

/** A place that nobody planned, by its keys. */
function placeName(keys: Readonly<Record<string, unknown>>): string {
  const words = Object.entries(keys)
    .filter(([key]) => key !== 'at')
    .map(([, value]) => String(value));
  return words.length ? words.join(', ') : 'Place';
}
