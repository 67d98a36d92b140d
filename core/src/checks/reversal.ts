import { slotsWhere, type Slot, type Values } from '../instruments/slots.js';

/** The two halves of a reversal among some slots. */
export interface Halves {
  /** Whether any reading belongs to a reversal at all. */
  readonly reversed: boolean;
  /** Slots of the same place, read both ways: [first, second]. */
  readonly pairs: readonly (readonly [first: number, second: number])[];
  /** Slots whose other half is still to be read. */
  readonly alone: readonly number[];
}

/**
 * Pair the readings of a reversal (a bar turned, a square flipped, ends swapped, a level or an edge turned
 * round): the same place read both ways. A reading that does not say is of the first way, once any other says.
 *
 * @param key what is turned, with its two values. @param others the keys that make a place, beside it.
 */
export function halvesOf<Keys>(
  slots: readonly Slot<Keys>[],
  key: keyof Keys & string,
  [first, second]: readonly [unknown, unknown],
  others: readonly (keyof Keys & string)[],
  use: (slot: Slot<Keys>) => boolean = () => true,
): Halves {
  if (!slots.some((slot) => slot.keys[key] !== undefined && use(slot))) return { reversed: false, pairs: [], alone: [] };
  const used = slotsWhere(slots, use);
  const places = new Map<string, { first?: number; second?: number }>();
  for (const i of used) {
    const keys = slots[i].keys as Values;
    let name = String(slots[i].set);
    for (const other of others) name += `|${String(keys[other] ?? '')}`;
    let place = places.get(name);
    if (!place) places.set(name, (place = {}));
    place[(keys[key] ?? first) === second ? 'second' : 'first'] = i;
  }
  const pairs: (readonly [number, number])[] = [];
  const alone: number[] = [];
  for (const { first: one, second: other } of places.values()) {
    if (one !== undefined && other !== undefined) pairs.push([one, other]);
    else alone.push((one ?? other) as number);
  }
  return { reversed: true, pairs, alone };
}

/** What still has to be read of a reversal, in words; undefined when nothing has. */
export const openText = ({ alone }: Pick<Halves, 'alone'>, what: string): string | undefined =>
  alone.length ? `${alone.length === 1 ? 'one place has' : `${alone.length} places have`} been read one way only: ${what}` : undefined;
