import * as z from 'zod';
import { choice, count } from '../fields.js';
import type { Note, PlannedSlot } from './define.js';

export const ISOLATE = 'Isolate and lock out the machine before hands go inside. Never power a spindle with an indicator or bar set up.';

/** Side from which a level or an indicator looks. */
export const sideField = () =>
  choice({
    label: 'Read from',
    choices: [
      { value: 'operator', label: "the operator's side" },
      { value: 'rear', label: 'the rear' },
    ],
  });

/** A plan with nothing but a number of places. */
export const stationPlan = (label: string, usual: number) =>
  z.strictObject({ stations: count({ label, min: 2, max: 60, example: String(usual) }) });

/** Places a step apart, from 0. */
export function stepped(stations: number, step: number): number[] {
  return Array.from({ length: stations }, (_, i) => Math.round(i * step));
}

/** Places along something with one label each. */
export function plannedPlaces(places: readonly number[], label: (at: number, index: number) => string): PlannedSlot[] {
  return places.map((at, i) => ({ keys: { at }, label: label(at, i) }));
}

export const tooFew = (text: string): Note => ({
  code: 'too-few-readings',
  severity: 'warning',
  text: `Not enough has been read yet: ${text}.`,
});

/** A slope over a short base says little. */
export function shortBase(length: number): Note[] {
  return length < 100
    ? [
        {
          code: 'short-base',
          severity: 'warning',
          text: `The base is only ${length.toFixed(0)} mm: a slope over less than 100 mm says little.`,
        },
      ]
    : [];
}

/** From the first to the last of some places, mm. */
export const spanOf = (places: readonly number[]): number => Math.max(...places) - Math.min(...places);
