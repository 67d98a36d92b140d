import type { Slot } from '../instruments/slots.js';

/** A level read at one place: slope there as weights on the slots, and what is known of its own zero. */
export interface LevelStation {
  readonly at: number;
  readonly weights: readonly number[];
  /** µm/m that was taken off because the level was not reversed here. */
  readonly constant: number;
  readonly zeroWeights: readonly number[] | undefined;
}

/**
 * Slopes at the places of a level. Turned end for end, a then b on its own scale: slope (a − b)/2 and
 * its zero error (a + b)/2. Read one way only, the known zero is taken off.
 *
 * @param use which slots. @param levelZero µm/m; 0 when it is not known.
 * @returns stations by place, smallest first; weights are over all slots.
 */
export function levelStations(slots: readonly Slot[], levelZero: number, use: (slot: Slot) => boolean = () => true): LevelStation[] {
  const places = new Map<number, { forward?: number; reversed?: number }>();
  slots.forEach((slot, i) => {
    if (!use(slot)) return;
    const at = (slot.keys['at'] as number | undefined) ?? 0;
    const here = places.get(at) ?? {};
    places.set(at, slot.keys['end'] === 'reversed' ? { ...here, reversed: i } : { ...here, forward: i });
  });
  const form = (entries: readonly [number, number][]): number[] => {
    const weights = new Array<number>(slots.length).fill(0);
    for (const [index, weight] of entries) weights[index] = weight;
    return weights;
  };
  return [...places]
    .sort(([a], [b]) => a - b)
    .map(([at, { forward, reversed }]) => {
      if (forward !== undefined && reversed !== undefined) {
        return {
          at,
          constant: 0,
          weights: form([
            [forward, 0.5],
            [reversed, -0.5],
          ]),
          zeroWeights: form([
            [forward, 0.5],
            [reversed, 0.5],
          ]),
        };
      }
      const sign = forward !== undefined ? 1 : -1;
      return { at, constant: -sign * levelZero, weights: form([[forward ?? reversed ?? 0, sign]]), zeroWeights: undefined };
    });
}

/** Mean of several forms. */
export function meanForm(forms: readonly (readonly number[])[]): number[] {
  return forms[0].map((_, i) => forms.reduce((sum, form) => sum + form[i], 0) / forms.length);
}

/** a·factor + b·other, entry by entry. */
export function addForms(a: readonly number[], b: readonly number[], factor = 1, other = 1): number[] {
  return a.map((weight, i) => weight * factor + b[i] * other);
}
