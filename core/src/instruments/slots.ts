/** Anything under names: setups, plans and keys before a check has said what they are. */
export type Values = Readonly<Record<string, unknown>>;

/** What a reading was taken under. */
export type Conditions = Readonly<Record<string, string | number | boolean>>;

/** A reading as a check sees it: its place, and its value in µm (µm/m on a level). */
export type Reading<Keys = Values> = Keys & {
  readonly value: number;
  readonly set: number;
  readonly conditions?: Conditions;
};

/** All readings of one place taken in one set-up. */
export interface Slot<Keys = Values> {
  /** The first reading, for its keys. */
  readonly keys: Reading<Keys>;
  /** Mean of the readings taken running, µm. */
  readonly value: number;
  readonly repeats: readonly number[];
  readonly set: number;
}

/** A place read again after another: how far it has wandered. */
export interface Return {
  readonly slot: number;
  /** Whether it is the first place of its set-up. */
  readonly first: boolean;
  /** Later minus earlier, µm. */
  readonly difference: number;
}

export interface Grouped<Keys = Values> {
  readonly slots: readonly Slot<Keys>[];
  readonly returns: readonly Return[];
}

/**
 * Group readings into places. The same place read twice running is a repeat; read again later it
 * closes the round and is kept apart: it tells whether something moved, and is not averaged in.
 *
 * @param slotKeys names of the reading keys that tell one place from another.
 * @example three readings at A, A, B, A give slots A (2 repeats), B and one return to A.
 */
export function groupReadings<Keys = Values>(readings: readonly Reading<Keys>[], slotKeys: readonly string[]): Grouped<Keys> {
  const slots: { keys: Reading<Keys>; repeats: number[]; set: number }[] = [];
  const known = new Map<string, number>();
  const firstOfSet = new Map<number, number>();
  const closings: { slot: number; values: number[] }[] = [];
  let previous = '';
  for (const reading of readings) {
    const key = placeKey(reading, slotKeys);
    const at = known.get(key);
    if (at === undefined) {
      known.set(key, slots.length);
      if (!firstOfSet.has(reading.set)) firstOfSet.set(reading.set, slots.length);
      slots.push({ keys: reading, repeats: [reading.value], set: reading.set });
    } else if (key === previous) {
      const closing = closings[closings.length - 1];
      (closing?.slot === at ? closing.values : slots[at].repeats).push(reading.value);
    } else {
      closings.push({ slot: at, values: [reading.value] });
    }
    previous = key;
  }
  const done = slots.map(({ keys, repeats, set }) => ({ keys, repeats, set, value: mean(repeats) }));
  // Of a place that was read again more than once the last time counts.
  const last = new Map(closings.map(({ slot, values }) => [slot, values]));
  return {
    slots: done,
    returns: [...last].map(([slot, values]) => ({
      slot,
      first: firstOfSet.get(done[slot].set) === slot,
      difference: mean(values) - done[slot].value,
    })),
  };
}

const placeKeys = new WeakMap<object, { readonly slotKeys: readonly string[]; readonly key: string }>();

/** What tells the place of a reading from the others; made once for each reading, whatever the round grows to. */
function placeKey(reading: Reading<unknown>, slotKeys: readonly string[]): string {
  const known = placeKeys.get(reading);
  if (known?.slotKeys === slotKeys) return known.key;
  let key = String(reading.set);
  for (const name of slotKeys) key += `|${String((reading as Values)[name] ?? '')}`;
  placeKeys.set(reading, { slotKeys, key });
  return key;
}

/** Indices of the slots that a test picks. */
export function slotsWhere<S>(slots: readonly S[], use: (slot: S) => boolean): number[] {
  const indices: number[] = [];
  for (let i = 0; i < slots.length; i++) if (use(slots[i])) indices.push(i);
  return indices;
}

/** Arithmetic mean; NaN of nothing. */
export function mean(values: readonly number[]): number {
  let sum = 0;
  for (const value of values) sum += value;
  return sum / values.length;
}

/** Places (`at`, mm) at which the slots of a round were read. */
export function placesOf(slots: readonly { readonly keys: object }[]): number[] {
  return slots.map((slot) => (slot.keys as { readonly at?: unknown }).at).filter((at) => typeof at === 'number');
}
