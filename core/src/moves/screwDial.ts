import type { Way } from '../checks/define.js';
import { median } from '../fit/median.js';

/** How a needle counts that is pressed in: up, or down. */
export type Pressed = 1 | -1;

/** A dial that stands at a part while it is moved. */
export interface MoveDial {
  /** µm of one division. */
  readonly graduation: number;
  /** +1 where the needle counts up as the stylus is pressed in, −1 where it counts down: tried by hand, never assumed. */
  readonly pressed: Pressed;
  /** The side of the part that the stylus touches. */
  readonly side: Way;
  /** mm from what the part turns about to the stylus; only for a move that is an angle. */
  readonly over?: number;
}

/** The other way along the same line. */
export const OPPOSITE = {
  toward: 'away',
  away: 'toward',
  left: 'right',
  right: 'left',
  up: 'down',
  down: 'up',
} as const satisfies Readonly<Record<Way, Way>>;

/**
 * Divisions that the needle goes by for each unit of the quantity that is moved: µm, or µm/m where the part turns.
 * A part that comes toward the side the stylus stands on presses it in.
 *
 * @param arrow which way the part goes for + and for − (METHODS 2: direction words).
 * @throws RangeError where the stylus stands across the move, or an angle has no distance: it would see nothing of it.
 */
export function divisionsPer(
  { graduation, pressed, side, over }: MoveDial,
  arrow: readonly [plus: Way, minus: Way],
  angle: boolean,
): number {
  if (side !== arrow[0] && side !== arrow[1])
    throw new RangeError(`a stylus on the side "${side}" sees nothing of a move ${arrow[0]} or ${arrow[1]}`);
  if (OPPOSITE[arrow[0]] !== arrow[1]) throw new RangeError(`${arrow[0]} and ${arrow[1]} are not two ways along one line`);
  if (angle && !(over !== undefined && over > 0))
    throw new RangeError('an angle needs the distance from what the part turns about to the stylus');
  return ((side === arrow[0] ? 1 : -1) * pressed * (angle ? (over as number) / 1000 : 1)) / graduation;
}

/**
 * Where the needle, zeroed before the move, must stop: short or past by what the part is known to do on tightening.
 *
 * @param amount signed like the quantity, in its unit. @param preset what tightening adds by itself, signed and in the same unit.
 * @returns divisions from zero.
 */
export const stopAt = (amount: number, preset: number, perUnit: number): number => (amount - preset) * perUnit + 0;

/** What the part did, signed like the quantity and in its unit, when the needle went from one figure to another. */
export const movedBy = (from: number, to: number, perUnit: number): number => (to - from) / perUnit + 0;

/** What a part does on tightening as a rule. */
export interface UsualShift {
  /** Signed like the quantity, in its unit. */
  readonly shift: number;
  /** From how many it was taken. */
  readonly seen: number;
  /** More than one, and all went one way. */
  readonly steady: boolean;
}

/** How many of the last movements on tightening count. */
const REMEMBERED = 5;

/**
 * What a part does on tightening as a rule: the median of the last five, signed like the quantity. `steady` where they
 * all went one way and there are at least two: only then is it worth reckoning with unasked. Undefined where none was seen.
 */
export function usualShift(shifts: readonly number[]): UsualShift | undefined {
  const last = shifts.slice(-REMEMBERED);
  if (last.length === 0) return undefined;
  const steady = last.length > 1 && (last.every((shift) => shift > 0) || last.every((shift) => shift < 0));
  return { shift: median(last), seen: last.length, steady };
}

/** Which screw works a machine's adjuster: as a rule the one on the far side is driven and the part goes away from it. */
export type ScrewRule = 'drive-far' | 'drive-near';
