import type { Doubt } from './estimate.js';

/** A reading of a bar: at which place of the bar, mm from one of its ends, and how much it counts in the result. */
export interface BarPlace {
  readonly place: number;
  readonly weight: number;
}

/** Places of a bar nearer to each other than this, mm, are one place. */
const SAME_PLACE = 1;

/**
 * What an uneven bar brings into a result. The diameter at each place of the bar is one error, however often it is read: turning the bar
 * half round does not make it smaller, but where the ends are swapped a place that counts + at one end and − at the other drops out.
 *
 * @param read readings that count. @param half half width of the error on radius at each place, evenly likely, in the unit of the readings.
 * Source: docs/methods/uncertainty.md, "Diameters of a bar".
 */
export function diameterDoubt(read: readonly BarPlace[], half: number): Doubt {
  const places: { readonly place: number; weight: number }[] = [];
  // By whole millimetres, so that of hundreds of places only the neighbours are looked at.
  const near = new Map<number, number[]>();
  for (const { place, weight } of read) {
    if (weight === 0) continue;
    const cell = Math.floor(place / SAME_PLACE);
    let known = Infinity;
    for (let at = cell - 1; at <= cell + 1; at++)
      for (const i of near.get(at) ?? []) if (i < known && Math.abs(places[i].place - place) <= SAME_PLACE) known = i;
    if (known < Infinity) places[known].weight += weight;
    else {
      const beside = near.get(cell);
      if (beside) beside.push(places.length);
      else near.set(cell, [places.length]);
      places.push({ place, weight });
    }
  }
  return { source: 'bar-diameter', u: (half / Math.sqrt(3)) * Math.hypot(...places.map(({ weight }) => weight)) };
}
