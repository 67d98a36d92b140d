import * as z from 'zod';
import { choice, fieldRegistry, optionalMeasure } from '../input/fields.js';
import { sentence, type SizeWriter } from '../units/said.js';
import type { PlannedSlot } from './define.js';
import { slideAngles } from './slideLines.js';
import { closed } from './stations.js';

const PLACES = [
  { value: '4', label: '4 places: front, top, rear, bottom' },
  { value: 'pairs', label: 'front and rear, then top and bottom on a new zero' },
  { value: '3', label: '3 places: front, top, rear' },
  { value: '8', label: '8 places' },
  { value: '12', label: '12 places' },
] as const;
/** Places on the lines of a slide that leans: its two ends, and square to it. */
const ON_SLIDE = [
  { value: 'slide', label: 'both ends of the slide' },
  { value: 'slide-4', label: 'both ends of the slide, and square to it' },
] as const;

export const sweepPlan = z.strictObject({
  angles: choice({ label: 'Read at', choices: PLACES }),
  depth: optionalMeasure('length', {
    label: 'Sweep again so much deeper',
    above: 0,
    example: '40 mm',
    help: 'Two depths give the slope as well.',
    rare: true,
  }),
});
/** What a slide carries may be read on the lines of that slide. */
export const slideSweepPlan = sweepPlan.extend({ angles: choice({ label: 'Read at', choices: [...PLACES, ...ON_SLIDE] }) });

const NAMES: Readonly<Record<number, string>> = { 0: 'Operator’s side', 90: 'Top', 180: 'Rear', 270: 'Bottom' };

/** Places of a sweep round, in the order in which they are read. */
function anglesOf(
  angles: z.output<typeof slideSweepPlan>['angles'] = '4',
  slant: number,
): { readonly angle: number; readonly name: string; readonly zero?: number }[] {
  if (angles === 'slide' || angles === 'slide-4') {
    const { operator, rear, above, below } = slideAngles(slant);
    const ends = [
      { angle: operator, name: 'Operator’s end of the slide' },
      { angle: above, name: 'Square to the slide, above' },
      { angle: rear, name: 'Rear end of the slide' },
      { angle: below, name: 'Square to the slide, below' },
    ];
    return angles === 'slide' ? [ends[0], ends[2]] : ends;
  }
  if (angles === 'pairs') return [0, 180, 90, 270].map((angle, i) => ({ angle, name: NAMES[angle], zero: i < 2 ? 1 : 2 }));
  const number = Number(angles);
  const degrees = number === 3 ? [0, 90, 180] : Array.from({ length: number }, (_, i) => (360 * i) / number);
  return degrees.map((angle) => ({ angle, name: NAMES[angle] ?? `${angle}° round from the operator’s side` }));
}

export function sweepSlots(
  setup: { readonly slant?: number | undefined; readonly feature?: unknown },
  { angles, depth }: z.output<typeof slideSweepPlan>,
): PlannedSlot[] {
  const places = anglesOf(angles, setup.slant ?? 0);
  const round = (at?: number): PlannedSlot[] =>
    places.map(({ angle, name, zero }, i) => ({
      keys: { angle, ...(at !== undefined && { at }), ...(zero !== undefined && { zero }) },
      label: (size) => `${name}${at ? `, ${size(at, 'length')} deeper` : ''}`,
      ...(zero === 2 && places[i - 1].zero === 1 && { ask: 'Zero the dial again: these two are for the height.' }),
    }));
  const mouth = round(depth === undefined ? undefined : 0);
  const closing = { ...mouth[0], ask: 'Turn on to the first place and read it again.', closing: true };
  const first = angles === 'pairs' ? closed(mouth, ({ zero }) => String(zero)) : [...mouth, closing];
  return [...first, ...(depth === undefined ? [] : round(depth))];
}

/** A sweep of a bush that can be turned in its housing. */
export const bushPlan = sweepPlan.extend({
  bush: z.boolean().optional().register(fieldRegistry, {
    label: 'Turn the bush half round in its housing and sweep again',
    help: 'Parts the housing, which bolts move, from the bush, which its bearings must answer for.',
  }),
});

export function bushSlots(
  setup: { readonly slant?: number | undefined; readonly feature?: unknown },
  { bush = false, ...plan }: z.output<typeof slideSweepPlan> & { readonly bush?: boolean },
): PlannedSlot[] {
  const once = sweepSlots(setup, plan);
  if (!bush) return once;
  return ([0, 180] as const).flatMap((turn) =>
    once.map((slot, i) => ({
      ...slot,
      keys: { ...slot.keys, bush: turn },
      label: turn ? (size: SizeWriter) => `${sentence(slot.label, size)}, the bush turned half round` : slot.label,
      ...(turn === 180 && i === 0 && { ask: 'Turn the bush half round in its housing; the spindle and the indicator stay as they are.' }),
    })),
  );
}
