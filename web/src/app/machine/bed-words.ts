import { type QuantityInfo, toYou } from '@isometra/core';
import type { Curve } from '@isometra/work';
import { bothUnits, inWords, isZero, sideOf, wayOfMove, type Shown } from '../ui/say';

/** Where it stands at each place along the bed: "Tailstock height: 0.012 mm high at 200 mm, 0.004 mm low at 900 mm." */
export const bedStands = (entry: Curve, info: QuantityInfo, shown: Shown): string =>
  `${info.label}: ${placesWords(entry.curve.places, 0, info, shown)}.`;

/** Each place with what it reads once everything has been moved by so much, µm. */
function placesWords(places: Curve['curve']['places'], moved: number, info: QuantityInfo, shown: Shown): string {
  return places
    .map(({ at, value, expanded }) => {
      const then = value + moved;
      const words = inWords({ value: then, direction: sideOf(then, info), expanded }, info, shown);
      return `${words} at ${bothUnits(at, 'length', shown).large}`;
    })
    .join(', ');
}

/** What a curve along the bed says: where it stands, whether that is wear, and what one movement can do for all places. */
export function bedWords({ curve }: Curve, info: QuantityInfo, shown: Shown): string {
  const where = (at: number) => bothUnits(at, 'length', shown).large;
  const size = (um: number) => bothUnits(um, info.dimension, shown, 1).large;
  const stands = placesWords(curve.places, 0, info, shown);
  if (!curve.worn) return `${info.label}, along the bed: ${stands}. The same within the doubts: no wear is to be seen.`;
  return `${info.label}, along the bed: ${stands}. That is wear of what it slides on, not the tailstock. ${compromise()}`;

  function compromise(): string {
    if (isZero(size(curve.best))) {
      return curve.worst
        ? `No movement is better for all places: ${size(curve.worst.by)} out at ${where(curve.worst.at)}, and only the ways put that right.`
        : 'Every place is in: leave it.';
    }
    const move = `Best for the places used: ${size(curve.best)} ${toYou(wayOfMove(curve.best, info))}, which leaves ${placesWords(curve.places, curve.best, info, shown)}`;
    return curve.worst
      ? `${move}. At ${where(curve.worst.at)} that is still ${size(curve.worst.by)} out, and only the ways put that right.`
      : `${move}. Then every place is in.`;
  }
}
