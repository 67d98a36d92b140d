import type { Shown } from '../ui/say';
import { bothUnits } from '../ui/say';

/** The answer of the support solver. */
export interface SupportPlan {
  readonly feasible: boolean;
  readonly obstacle?: string | null;
  readonly supports?: Readonly<Record<string, number>>;
  readonly pose?: Readonly<Record<string, number>>;
  readonly watch?: Readonly<Record<string, Readonly<Record<string, number>>>>;
}

const WAYS: Readonly<Record<string, readonly [string, string]>> = {
  slopeH: ['toward you at the free end', 'away from you at the free end'],
  slopeV: ['up at the free end', 'down at the free end'],
  roll: ['your side up', 'your side down'],
  alongZ: ['toward the tailstock', 'away from the tailstock'],
  lift: ['up', 'down'],
  shiftH: ['toward you', 'away from you'],
  leanX: ['top to the right', 'top to the left'],
  leanY: ['top toward you', 'top away from you'],
  yaw: ['turned with the clock', 'turned against the clock'],
  shiftX: ['to the right', 'to the left'],
  shiftY: ['toward the column', 'toward you'],
};
const SLOPES = ['slopeH', 'slopeV', 'roll', 'leanX', 'leanY', 'yaw'];

/** One component of a pose in words: "30 µm/m up at the free end". */
export function poseWords(name: string, value: number, shown: Shown): string {
  const size = bothUnits(value, SLOPES.includes(name) ? 'slope' : 'deviation', shown, 1).large;
  const way = WAYS[name]?.[value < 0 ? 1 : 0] ?? name;
  return value === 0 ? 'no change' : `${size} ${way}`;
}
