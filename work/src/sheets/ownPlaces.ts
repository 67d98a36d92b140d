import type { CheckDefinition, PlannedSlot, Values } from '@isometra/core';
import type { ReadingWrite } from '@isometra/contract';
import { placeOf } from '../notebook/keyOf.js';

type Row = Pick<ReadingWrite, 'keys'>;

/** A plan with its places, and what has been read. */
export interface PlannedPlaces<R extends Row> {
  readonly setup: Values;
  readonly plan: Readonly<Record<string, unknown>>;
  readonly slots: readonly PlannedSlot[];
  /** Those that stand. */
  readonly readings: readonly R[];
}

/** What changing the places comes to: the plan with the change in it, and the readings it touches; or why it cannot be. */
export type Moved<R> =
  | { readonly ok: true; readonly plan: Readonly<Record<string, unknown>>; readonly readings: readonly R[] }
  | { readonly ok: false; readonly message: string };

const refused = (message: string) => ({ ok: false, message }) as const;

/** The places of a list of the plan as they are now, mm, in working order; with the slots that stand on them. */
function listed(slots: readonly PlannedSlot[], list: string) {
  const own = slots.filter(({ movable, keys }) => movable === list && typeof keys['at'] === 'number');
  return { own, places: [...new Set(own.map(({ keys }) => keys['at'] as number))] };
}

/** The plan with these places in a list; where the check can read them all. */
function planWith<R extends Row>(
  check: CheckDefinition,
  { setup, plan }: PlannedPlaces<R>,
  list: string,
  places: readonly number[],
): Moved<never> {
  const next = { ...plan, [list]: places.map((place) => `${place} mm`) };
  const parsed = check.plan.safeParse(next);
  if (!parsed.success) return refused(`The place ${parsed.error.issues[0].message}`);
  const planned = check.slots(setup, parsed.data);
  const lost = places.find((place) => !planned.some(({ keys }) => keys['at'] === place));
  return lost === undefined ? { ok: true, plan: next, readings: [] } : refused(`Nothing can be read at ${lost} mm here`);
}

/** Readings taken at a place of a list. */
function readThere<R extends Row>(check: CheckDefinition, { readings }: PlannedPlaces<R>, own: readonly PlannedSlot[], at: unknown): R[] {
  const there = new Set(own.filter(({ keys }) => keys['at'] === at).map(({ keys }) => placeOf(check, keys)));
  return readings.filter(({ keys }) => there.has(placeOf(check, keys)));
}

/**
 * Put a place of the plan where the stylus really goes, mm: all slots of its list that stand there move together (both
 * planes, the bar turned, the closing reading), and what was read there was read at the new place.
 *
 * @param slot the one that is moved.
 */
export function movePlace<R extends Row>(check: CheckDefinition, about: PlannedPlaces<R>, slot: PlannedSlot, at: number): Moved<R> {
  const [list, from] = [slot.movable, slot.keys['at']];
  if (!list || typeof from !== 'number') return refused('This place cannot be moved: it is part of the method');
  if (!Number.isFinite(at)) return refused('The place must be a length. Example: 380 mm');
  const { own, places } = listed(about.slots, list);
  if (at === from) return { ok: true, plan: about.plan, readings: [] };
  if (places.includes(at)) return refused(`There is a place at ${at} mm already`);
  const next = planWith(
    check,
    about,
    list,
    places.map((place) => (place === from ? at : place)),
  );
  return next.ok ? { ...next, readings: readThere(check, about, own, from) } : next;
}

/** One place more: half-way from a place to the next one along, or to the one before where it is the last. */
export function addPlace<R extends Row>(check: CheckDefinition, about: PlannedPlaces<R>, slot: PlannedSlot): Moved<R> {
  const [list, from] = [slot.movable, slot.keys['at']];
  if (!list || typeof from !== 'number') return refused('No place can be added here: the places are part of the method');
  const { places } = listed(about.slots, list);
  const here = places.indexOf(from);
  const [one, other] = here + 1 < places.length ? [here, here + 1] : [here - 1, here];
  const between = Math.round(((places[one] ?? from) + (places[other] ?? from)) * 50) / 100;
  if (places.includes(between)) return refused('There is no room for a place between these two: put one of them further off first');
  return planWith(check, about, list, places.toSpliced(other, 0, between));
}

/** One place fewer: what was read there no longer counts. */
export function dropPlace<R extends Row>(check: CheckDefinition, about: PlannedPlaces<R>, slot: PlannedSlot): Moved<R> {
  const [list, from] = [slot.movable, slot.keys['at']];
  if (!list || typeof from !== 'number') return refused('This place cannot be taken out: it is part of the method');
  const { own, places } = listed(about.slots, list);
  const next = planWith(
    check,
    about,
    list,
    places.filter((place) => place !== from),
  );
  if (!next.ok) return refused('So few places say nothing: put this one elsewhere instead');
  return { ...next, readings: readThere(check, about, own, from) };
}
