import { dialFactor, divisionsPer, movedBy, readInstrument, stopAt, type Instrument, type NeedleTarget, type Way } from '@isometra/core';
import type { KitItem, Made } from '@isometra/contract';

/** The dial that the round was read on, where it sees the move: divisions, not rounded. */
export interface OwnDial {
  readonly now: number;
  readonly target: number;
  readonly where: string;
  /** Part of a division that is read. */
  readonly step: number;
  /** Which way it counts when pressed in, as it was tried. */
  readonly pressed: 1 | -1;
}

/** A dial of the kit, as far as a move needs it. */
export interface KitDial {
  readonly id: string;
  readonly name: string;
  /** µm. */
  readonly graduation: number;
  readonly readTo: number;
}

/** What is moved at the screw, and what sees it. */
export interface ScrewMove {
  /** Signed like the quantity, in its unit. */
  readonly amount: number;
  /** Whether it is an angle, seen at a distance. */
  readonly angle: boolean;
  /** Which way it goes for + and for −; null where no stylus side is known to see it. */
  readonly arrow: readonly [plus: Way, minus: Way] | null;
  readonly own: OwnDial | null;
}

/** Where the needle begins and stops, divisions; and how far it goes for each unit moved. */
export interface ScrewTarget {
  readonly now: number;
  readonly target: number;
  readonly per: number;
  readonly step: number;
}

export const rounded = (value: number, step: number): number => Number((Math.round(value / step) * step).toFixed(4)) + 0;

/** Where the needle must stop, by the dial that was chosen or else the one of the round; null where none sees the move. */
export function screwTarget({ amount, angle, arrow, own }: ScrewMove, made: Pick<Made, 'dial' | 'preset'> | undefined): ScrewTarget | null {
  const preset = made?.preset ?? 0;
  if (made?.dial && arrow) {
    const { readTo: step, over, ...dial } = made.dial;
    if (!arrow.includes(dial.side) || (angle && over === null)) return null;
    const per = divisionsPer({ ...dial, ...(over !== null && { over }) }, arrow, angle);
    return { now: 0, target: rounded(stopAt(amount, preset, per), step), per, step };
  }
  if (!own || amount === 0) return null;
  const per = (own.target - own.now) / amount;
  if (per === 0) return null;
  return { now: rounded(own.now, own.step), target: rounded(own.now + stopAt(amount, preset, per), own.step), per, step: own.step };
}

/** What it did on tightening, signed like the quantity, when the needle went from its target to what it reads now. */
export const tightenedBy = ({ target, per }: ScrewTarget, reads: number): number => movedBy(target, reads, per);

/** Where a stylus stands, in words. */
export const SIDE_WORDS: Readonly<Record<Way, string>> = {
  toward: 'on your side',
  away: 'on the rear',
  up: 'on top of it',
  down: 'under it',
  left: 'on its left',
  right: 'on its right',
};

/** The dial that the round was read on, for the screw; null where it does not see the move or nobody tried which way it counts. */
export function ownDial(indicator: NeedleTarget | undefined, instrument: Instrument | undefined): OwnDial | null {
  if (!indicator || !instrument || (instrument.kind !== 'lever' && instrument.kind !== 'plunger')) return null;
  const { sense, readTo: step } = instrument;
  if (indicator.unit !== 'div' || !indicator.where || (sense !== 1 && sense !== -1)) return null;
  return { now: indicator.now, target: indicator.target, where: indicator.where, step, pressed: sense };
}

/** Dials of the kit that can stand at a part while it is moved. */
export function dialsOf(kit: readonly KitItem[]): KitDial[] {
  return kit.flatMap(({ id, kind, name, data }) => {
    const { instrument } = kind === 'instrument' ? readInstrument(data) : { instrument: undefined };
    if (!instrument || (instrument.kind !== 'lever' && instrument.kind !== 'plunger')) return [];
    return [{ id, name, graduation: Math.abs(dialFactor(instrument)) * instrument.graduation, readTo: instrument.readTo }];
  });
}
