import { heldSag, type RoundBar } from './bars.js';
import type { Said } from '../units/said.js';

/** What another bar would droop over the same share of its length. */
export interface OtherBar {
  readonly what: Said;
  readonly bar: RoundBar & { readonly freeLength: number };
  /** Apparent slope from its droop, µm/m. */
  readonly slope: number;
}

/** Slope that the droop of a held bar makes between two places, µm/m: what is taken out of a height. */
export function sagSlope(bar: RoundBar & { readonly freeLength: number }, near: number, far: number): number {
  const sag = (at: number) => heldSag(bar, bar.freeLength, Math.min(at, bar.freeLength));
  return (1000 * (sag(far) - sag(near))) / (far - near);
}

/** Millimetres as a bar is asked for: whole ones, of a thin rod two digits. Only for the words: a thin tube rounded is no tube. */
const round = (value: number): number => (value >= 10 ? Math.round(value) : Number(value.toPrecision(2)));

/**
 * How a shorter, a thicker and a hollow bar would do in the place of this one: read at the same places,
 * the far one drawn in with the length.
 *
 * @param near and far, places read, mm from the grip.
 */
export function otherBars(bar: RoundBar & { readonly freeLength: number }, near: number, far: number): OtherBar[] {
  const { diameter, freeLength } = bar;
  const shorter = { ...bar, freeLength: 0.7 * freeLength };
  const thicker = { ...bar, diameter: 1.5 * diameter, bore: bar.bore && 1.5 * bar.bore };
  const hollow = { ...bar, bore: 0.75 * diameter };
  const of = (what: Said, other: OtherBar['bar'], to: number): OtherBar => ({ what, bar: other, slope: sagSlope(other, near, to) });
  return [
    of(
      (size) => `${size(round(shorter.freeLength), 'length')} long instead of ${size(round(freeLength), 'length')}`,
      shorter,
      Math.max(near + 1, 0.7 * far),
    ),
    of((size) => `${size(round(thicker.diameter), 'length')} thick instead of ${size(round(diameter), 'length')}`, thicker, far),
    of((size) => `hollow, with a bore of ${size(round(hollow.bore), 'length')}, if its diameter is even`, hollow, far),
  ];
}
