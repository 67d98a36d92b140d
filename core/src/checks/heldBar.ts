import * as z from 'zod';
import { choice, fieldRegistry, measure, optionalMeasure } from '../input/fields.js';
import type { Fault } from '../input/faults.js';
import { heldPush, type RoundBar } from '../gravity/bars.js';
import { steppedSag } from '../gravity/stepped.js';
import { diameterDifference, diameters, material } from './setupFields.js';

/** A bar held at one end: what it is made of, how far it stands out, and how even it is. */
export const heldBar = () =>
  z
    .strictObject({
      diameter: measure('length', { label: 'Bar diameter', above: 0, example: '25 mm' }),
      bore: optionalMeasure('length', { label: 'Bore of the bar', min: 0, example: '0', rare: true }),
      material: material(),
      freeLength: measure('length', { label: 'Free length', above: 0, example: '300 mm', help: 'From where it is held to its end.' }),
      finish: choice({
        label: 'Bar finished',
        choices: [
          { value: 'drawn', label: 'drawn, or as it came' },
          { value: 'ground', label: 'ground' },
        ],
        help: 'A drawn rod is uneven by a few µm: that is a slope that is not there, unless its diameters are measured.',
      }),
      diameters: diameters(),
    })
    .refine((bar) => bar.bore === undefined || bar.bore < bar.diameter, {
      path: ['bore'],
      message: 'must be less than the diameter',
      params: { example: '0' },
    })
    .optional()
    .register(fieldRegistry, { label: 'Bar', group: true, kit: 'test-bar' });

export interface HeldBar extends RoundBar {
  readonly freeLength: number;
  readonly diameters?: readonly { readonly at: number; readonly diameter: number }[];
}

const saggings = new WeakMap<object, Map<number, number>>();

/** Droop of a held bar at a place, µm down: worked out once for each bar and place. */
export function barSag(bar: HeldBar, at: number): number {
  const known = saggings.get(bar) ?? new Map<number, number>();
  saggings.set(bar, known);
  const sag = known.get(at) ?? steppedSag(bar, bar.diameters, bar.freeLength, at);
  known.set(at, sag);
  return sag;
}

/** How far the stylus pushes a held bar away at a place, µm. */
export const barPush = (bar: HeldBar, force: number | undefined, at: number): number => (force ? heldPush(bar, force, at) : 0);

/** What an uneven bar adds to a reading at a place, µm: taken off by half of the difference in diameter. */
export const barRadius = (bar: HeldBar | undefined, at: number): number =>
  bar?.diameters?.length ? -500 * diameterDifference(bar.diameters, at) : 0;

/** Readings that lie beyond the free end of the bar. */
export function beyondBar(freeLength: number | undefined, readings: readonly { readonly at: number }[]): Fault[] {
  if (freeLength === undefined) return [];
  return readings.flatMap(({ at }, i) =>
    Math.abs(at) > freeLength + 1e-6
      ? [
          {
            path: `readings[${i}].at`,
            message: `is beyond the free end of the bar: it projects ${freeLength} mm, and nothing can be read past that`,
            example: `${Math.round(0.9 * freeLength)} mm`,
          },
        ]
      : [],
  );
}
