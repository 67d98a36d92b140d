import { median } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { betweenMeasures, NEWEST, ofKind, placeIn } from './entries.js';

/** What finishing for contact does to the alignment, in the unit of the aim, signed; how surely; from how many measurements. */
export interface ContactShift {
  readonly shift: number;
  readonly doubt: number;
  readonly learned: number;
  /** What the alignment is to read when it is stopped, so that finishing ends at the aim; null where the shift is within its doubt. */
  readonly stopAt: number | null;
}

/**
 * What passes for contact shifted: between two measurements with no pass but finishing ones, made while contact was being
 * brought in. They go where it is blue, not where it is high, and that moves what the face is true by.
 */
export function contactShiftOf({ aim }: Surface, entries: readonly DeskEntry[]): ContactShift | null {
  if (!aim) return null;
  const states = ofKind(entries, 'state');
  const stateAt = (entry: DeskEntry) => states.findLast((state) => placeIn(entries, state) < placeIn(entries, entry))?.content.state;
  const shifts = betweenMeasures(entries).flatMap(({ before, after, passes }) => {
    const contact = passes.length > 0 && passes.every((pass) => pass.content.grade === 'fine' && stateAt(pass) === 'contact');
    if (!contact) return [];
    return [{ shift: after.content.value - before.content.value, doubt: Math.hypot(before.content.doubt, after.content.doubt) }];
  });
  if (shifts.length === 0) return null;
  const last = shifts.slice(-NEWEST);
  const doubt = median(last.map((entry) => entry.doubt)) / Math.sqrt(last.length);
  const shift = median(last.map((entry) => entry.shift));
  return { shift, doubt, learned: shifts.length, stopAt: Math.abs(shift) > doubt ? aim.wanted - shift : null };
}
