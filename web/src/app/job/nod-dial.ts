import { dialDivisions, nodOf, nodTarget, nodTravel, type Instrument, type Sides } from '@isometra/core';
import type { Made } from '@isometra/contract';
import { pivotFrom } from '@isometra/work';
import { rounded, type OwnDial } from './screw-target';

type Strokes = NonNullable<Made['nod']>;

/** What the pin of a nodding head is known by, and what is wanted of it. */
export interface NodKnown {
  /** What both sides read in the round, µm. */
  readonly before: Sides;
  /** mm. */
  readonly radius: number;
  readonly instrument: Instrument;
  /** µm/m. */
  readonly limit: number;
  readonly aim: number;
  /** mm behind the spindle, from the set-up; and what strokes on this machine have taught. */
  readonly pivot: number | null;
  readonly learned: { readonly pivot: number; readonly doubt: number } | null;
}

/** Where the pin lies, by the surest word there is: strokes that were made on this card, those before, the card of the machine. */
export function pinOf(
  { pivot, learned }: Pick<NodKnown, 'pivot' | 'learned'>,
  strokes: Strokes,
): { readonly pivot: number; readonly doubt: number; readonly from: string } | null {
  const found = pivotFrom(strokes);
  if (found && !found.tooSmall && found.pivot > 0) return { ...found, from: 'from these strokes' };
  if (learned) return { ...learned, from: 'learned on this machine' };
  return pivot === null ? null : { pivot, doubt: 0, from: 'from the set-up' };
}

/** Part of the range of a dial that it is sure to follow over. */
const FOLLOWS = 0.9;

/** Which sides the dial can follow to their targets. */
export function canFollow(instrument: Instrument, travel: Sides): { readonly operator: boolean; readonly column: boolean } {
  const room = instrument.range === undefined ? Infinity : FOLLOWS * instrument.range;
  const far = (um: number): boolean => Math.abs(dialDivisions(um, instrument)) <= room;
  return { operator: far(travel.operator), column: far(travel.column) };
}

/**
 * The dial of the round on a head that was nodded in strokes, nothing tightened: where it stands now and where one move stops, on
 * your side or, where the dial cannot go so far, on the column side.
 *
 * @returns `amount`: what is left to do, µm/m, signed like the nod; null before a stroke, without a pin, or where no side can follow.
 */
export function nodDial(known: NodKnown, strokes: Strokes | undefined): { readonly own: OwnDial; readonly amount: number } | null {
  const { instrument, radius, limit, aim } = known;
  const now = strokes?.sides.at(-1);
  const pin = strokes && pinOf(known, strokes);
  if (!now || !pin || strokes.sides.length < 2 || (instrument.sense !== 1 && instrument.sense !== -1)) return null;
  const facts = { radius, pivot: pin.pivot, now, limit, aim };
  const [stop, can] = [nodTarget(facts), canFollow(instrument, nodTravel(facts))];
  const side = can.operator ? 'operator' : can.column ? 'column' : undefined;
  if (!side) return null;
  const div = (um: number): number => rounded(dialDivisions(um, instrument), instrument.readTo);
  const where = side === 'operator' ? 'on the table, your side, the table left alone' : 'on the table, column side, the table left alone';
  return {
    own: { now: div(now[side]), target: div(stop[side]), where, step: instrument.readTo, pressed: instrument.sense },
    amount: aim - nodOf(now, radius),
  };
}
