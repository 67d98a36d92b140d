import type { Slot } from '../instruments/slots.js';
import { mean } from '../instruments/slots.js';
import { slotsWith, differenceForm } from './play.js';

/** High minus low of one feature as weights: what the dial swings over a turn. */
export function swingForm(slots: readonly Slot[], wanted: Readonly<Record<string, unknown>>): number[] | undefined {
  return differenceForm(slots, slotsWith(slots, { ...wanted, extreme: 'high' }), slotsWith(slots, { ...wanted, extreme: 'low' }));
}

/** (High + low)/2 of one place: the axis of rotation, whatever the bar's own bend. */
export function meanFormOf(slots: readonly Slot[], wanted: Readonly<Record<string, unknown>>): number[] | undefined {
  const [high, low] = [slotsWith(slots, { ...wanted, extreme: 'high' }), slotsWith(slots, { ...wanted, extreme: 'low' })];
  if (high.length === 0 || low.length === 0) return undefined;
  const form = new Array<number>(slots.length).fill(0);
  for (const i of high) form[i] += 0.5 / high.length;
  for (const i of low) form[i] += 0.5 / low.length;
  return form;
}

/** A runout as a vector: its length hi − lo toward `highAt`, degrees round the spindle from its mark. */
export interface RunoutVector {
  readonly length: number;
  readonly highAt: number;
}

/**
 * Part the spindle's runout from the bar's: the bar taken out, turned half round and put back. The
 * mean of the two vectors belongs to the spindle, half their difference to the bar.
 */
export function partRunout(first: RunoutVector, second: RunoutVector): { spindle: RunoutVector; bar: RunoutVector } {
  const xy = ({ length, highAt }: RunoutVector): [number, number] => [
    length * Math.cos((highAt * Math.PI) / 180),
    length * Math.sin((highAt * Math.PI) / 180),
  ];
  const polar = (x: number, y: number): RunoutVector => ({
    length: Math.hypot(x, y),
    highAt: ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360,
  });
  const [[x1, y1], [x2, y2]] = [xy(first), xy(second)];
  return { spindle: polar(mean([x1, x2]), mean([y1, y2])), bar: polar((x1 - x2) / 2, (y1 - y2) / 2) };
}
