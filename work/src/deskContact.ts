import { median } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { ofKind, placeIn } from './deskEntries.js';

/** What finishing for contact does to the alignment, in the unit of the aim, signed; how surely; from how many measurements. */
export interface ContactShift {
  readonly shift: number;
  readonly doubt: number;
  readonly learned: number;
}

const OF_NOW = 5;

/**
 * What passes for contact shifted: between two measurements with no pass but finishing ones, made while contact was being
 * brought in. They go where it is blue, not where it is high, and that moves what the face is true by.
 */
export function contactShiftOf({ aim }: Surface, entries: readonly DeskEntry[]): ContactShift | null {
  if (!aim) return null;
  const states = ofKind(entries, 'state');
  const stateAt = (entry: DeskEntry) => states.findLast((state) => placeIn(entries, state) < placeIn(entries, entry))?.content.state;
  const measures = ofKind(entries, 'measure');
  const shifts = measures.slice(1).flatMap((now, i) => {
    const passes = ofKind(entries.slice(placeIn(entries, measures[i]), placeIn(entries, now)), 'pass');
    const contact = passes.length > 0 && passes.every((pass) => pass.content.grade === 'fine' && stateAt(pass) === 'contact');
    if (!contact) return [];
    return [{ shift: now.content.value - measures[i].content.value, doubt: Math.hypot(measures[i].content.doubt, now.content.doubt) }];
  });
  if (shifts.length === 0) return null;
  const last = shifts.slice(-OF_NOW);
  const doubt = median(last.map((entry) => entry.doubt)) / Math.sqrt(last.length);
  return { shift: median(last.map(({ shift }) => shift)), doubt, learned: shifts.length };
}

/** What the alignment is to read when it is stopped, so that finishing for contact ends at the aim. */
export const stopAt = ({ aim }: Surface, contact: ContactShift | null): number | null =>
  aim && contact && Math.abs(contact.shift) > contact.doubt ? aim.wanted - contact.shift : null;
