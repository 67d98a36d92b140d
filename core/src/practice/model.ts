import type { Random } from '../fit/random.js';
import type { PracticeDial } from './dial.js';

export type RawSheet = Record<string, unknown>;

/** A round that a practice machine gave: the sheet as somebody would write it, and what is hidden behind it. */
export interface PracticeRound {
  readonly sheet: RawSheet;
  /** Quantity → its true value, in its own unit. */
  readonly truth: Readonly<Record<string, number>>;
}

/** How a round is made up. */
export interface PracticeChance {
  readonly random: Random;
  /** Standard deviation of re-reading a place, in parts of a division; 0 is read exactly. */
  readonly repeat: number;
  /** The machine itself is true: only bars, squares, levels and edges are off. */
  readonly perfect: boolean;
  /** Error of the square, µm/m, where one is used. */
  readonly square?: number;
}

/** A forward model of one check: from true geometry to readings, with none of the solver's formulas. */
export type PracticeModel = (chance: PracticeChance) => PracticeRound;

/** A dial out of any drawer: fine and coarse, in µm and thou, counting either way, square to its work or not. */
export function anyDial({ random }: PracticeChance, more: Partial<PracticeDial> = {}): PracticeDial {
  const pick = <T>(choices: readonly T[]): T => choices[Math.floor(random.even() * choices.length)];
  const graduation = pick([1, 2, 10, 12.7]);
  return {
    kind: pick(['plunger', 'lever'] as const),
    graduation,
    sense: pick([1, -1] as const),
    leverAngle: pick([0, 15]),
    accuracy: graduation / 2,
    ...more,
  };
}

/** A truth of about this size; nothing on a perfect machine. */
export const hidden = ({ random, perfect }: PracticeChance, most: number): number => (perfect ? 0 : random.between(-most, most));

/** How honest the readings of a dial are. */
export const honesty = ({ random, repeat }: PracticeChance, { graduation }: { readonly graduation: number }) =>
  repeat > 0 ? { random, repeat: repeat * graduation } : undefined;

/** A sheet made of its parts. */
export const sheetOf = (check: string, instrument: object | undefined, setup: object, readings: readonly object[]): RawSheet => ({
  format: 'isometra-sheet/1',
  check,
  ...(instrument && { instrument }),
  setup,
  readings,
});
