import type { Instrument } from '../instruments/instrument.js';
import type { Slot } from '../instruments/slots.js';
import { mean } from '../instruments/slots.js';
import { linearEstimate, type Estimate } from './estimate.js';
import { differenceForm } from './play.js';

/** Keys of a reading that is the highest or the lowest of a turn. */
export interface ExtremeKeys {
  readonly extreme: 'high' | 'low';
}

type Use<Keys> = (keys: Keys) => boolean;

const indicesOf = <Keys extends ExtremeKeys>(slots: readonly Slot<Keys>[], extreme: 'high' | 'low', use: Use<Keys>): number[] =>
  slots.flatMap((slot, i) => (slot.keys.extreme === extreme && use(slot.keys) ? [i] : []));

/** High minus low of one feature as weights: what the dial swings over a turn. */
export function swingForm<Keys extends ExtremeKeys>(slots: readonly Slot<Keys>[], use: Use<Keys>): number[] | undefined {
  return differenceForm(slots.length, indicesOf(slots, 'high', use), indicesOf(slots, 'low', use));
}

/** (High + low)/2 of one place: the axis of rotation, whatever the bar's own bend. */
export function meanFormOf<Keys extends ExtremeKeys>(slots: readonly Slot<Keys>[], use: Use<Keys>): number[] | undefined {
  const [high, low] = [indicesOf(slots, 'high', use), indicesOf(slots, 'low', use)];
  if (high.length === 0 || low.length === 0) return undefined;
  const form = new Array<number>(slots.length).fill(0);
  for (const i of high) form[i] += 0.5 / high.length;
  for (const i of low) form[i] += 0.5 / low.length;
  return form;
}

/** Faults of a low that stands above its high: they were swapped, or the dial was. */
export function swappedExtremes<Keys extends ExtremeKeys>(
  readings: readonly (Keys & { readonly value: number; readonly set: number })[],
  placeOf: (keys: Keys) => string,
  instrument: Instrument | undefined,
): { readonly path: string; readonly message: string; readonly example: string }[] {
  // Where hardly anything runs out, two readings of one dial may cross by a division.
  const room = (instrument?.graduation ?? 0) + 1e-9;
  const highs = new Map<string, number>();
  for (const reading of readings) if (reading.extreme === 'high') highs.set(`${reading.set}|${placeOf(reading)}`, reading.value);
  return readings.flatMap((reading, i) => {
    const high = highs.get(`${reading.set}|${placeOf(reading)}`);
    return reading.extreme === 'low' && high !== undefined && reading.value > high + room
      ? [
          {
            path: `readings[${i}].value`,
            message: `is above the high of the same place by ${(reading.value - high).toFixed(1)} µm: a low cannot be. Were the two swapped, or does this dial count backwards?`,
            example: 'the lowest of the turn',
          },
        ]
      : [];
  });
}

/** A runout as a vector: its length hi − lo toward `highAt`, degrees round the spindle from its mark. */
export interface RunoutVector {
  readonly length: number;
  readonly highAt: number;
}

const RADIAN = Math.PI / 180;
const xyOf = ({ length, highAt }: RunoutVector): [number, number] => [
  length * Math.cos(highAt * RADIAN),
  length * Math.sin(highAt * RADIAN),
];
const polar = (x: number, y: number): RunoutVector => ({ length: Math.hypot(x, y), highAt: (Math.atan2(y, x) / RADIAN + 360) % 360 });

/**
 * Part the spindle's runout from the bar's: the bar taken out, turned half round and put back. The
 * mean of the two vectors belongs to the spindle, half their difference to the bar.
 */
export function partRunout(first: RunoutVector, second: RunoutVector): { spindle: RunoutVector; bar: RunoutVector } {
  const [[x1, y1], [x2, y2]] = [xyOf(first), xyOf(second)];
  return { spindle: polar(mean([x1, x2]), mean([y1, y2])), bar: polar((x1 - x2) / 2, (y1 - y2) / 2) };
}

/** Where a high place was seen: ± 8°, evenly likely, unless stated. Radians. */
const HIGH_AT_DOUBT = (8 / Math.sqrt(3)) * RADIAN;

/**
 * The spindle's part and the bar's as sizes. Both lengths carry the doubt of their readings, and both directions
 * the doubt of where the high place was seen.
 *
 * @param forms swings of the two ways round, hi − lo as weights. @param highAts degrees, of both ways.
 */
export function partedRunouts(
  [name, barName]: readonly [string, string],
  forms: readonly [readonly number[], readonly number[]],
  highAts: readonly [number, number],
  values: readonly number[],
): Estimate[] {
  const [one, other] = forms.map((form) => linearEstimate('', form).evaluate);
  const vectors = (now: ArrayLike<number>) =>
    partRunout({ length: Math.abs(one(now)), highAt: highAts[0] }, { length: Math.abs(other(now)), highAt: highAts[1] });
  const angle = (HIGH_AT_DOUBT / 2) * Math.hypot(one(values), other(values));
  return (
    [
      [name, 'spindle'],
      [barName, 'bar'],
    ] as const
  ).map(([own, part]): Estimate => {
    const now = vectors(values)[part];
    // A length along the direction of the part adds half of itself.
    const share = highAts.map((at, i) => (Math.cos((at - now.highAt) * RADIAN) / 2) * (i === 1 && part === 'bar' ? -1 : 1));
    const signs = [one(values) < 0 ? -1 : 1, other(values) < 0 ? -1 : 1];
    return {
      name: own,
      weights: forms[0].map((weight, i) => share[0] * signs[0] * weight + share[1] * signs[1] * forms[1][i]),
      terms: {},
      doubts: [{ source: 'high-place', u: angle }],
      magnitude: true,
      detail: { highAt: now.highAt },
      evaluate: (later) => vectors(later)[part].length,
    };
  });
}
