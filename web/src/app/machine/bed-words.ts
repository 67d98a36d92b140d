import { type QuantityInfo, toYou } from '@isometra/core';
import type { Curve } from '@isometra/work';
import { bothUnits, inWords, isZero, sideOf, wayOfMove, type Shown } from '../ui/say';

/** What a curve along the bed says: where it stands, whether that is wear, and what one movement can do for all places. */
export function bedWords({ curve }: Curve, info: QuantityInfo, shown: Shown): string {
  const where = (at: number) => bothUnits(at, 'length', shown).large;
  const size = (um: number) => bothUnits(um, info.dimension, shown, 1).large;
  const stands = curve.places
    .map(({ at, value, expanded }) => {
      return `${inWords({ value, direction: sideOf(value, info), expanded }, info, shown)} at ${where(at)}`;
    })
    .join(', ');
  if (!curve.worn) return `${info.label}, along the bed: ${stands}. The same within the doubts: no wear is to be seen.`;
  return `${info.label}, along the bed: ${stands}. That is wear of what it slides on, not the tailstock. ${compromise()}`;

  function compromise(): string {
    if (isZero(size(curve.best))) {
      return curve.worst
        ? `No movement is better for all places: ${size(curve.worst.by)} out at ${where(curve.worst.at)}, and only the ways put that right.`
        : 'Every place is in: leave it.';
    }
    const move = `Best for the places used: ${size(curve.best)} ${toYou(wayOfMove(curve.best, info))}`;
    return curve.worst
      ? `${move}; then it is still ${size(curve.worst.by)} out at ${where(curve.worst.at)}, and only the ways put that right.`
      : `${move}; then every place is in.`;
  }
}
