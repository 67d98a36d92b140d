import { DIMENSIONS, prettyUnit, type UnitSystem } from '@isometra/core';
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
  return value === 0 ? 'no change' : `${size} ${wayOfPose(name, value)}`;
}

/** Which way a component of a pose goes: "toward you at the free end". */
export const wayOfPose = (name: string, value: number): string => WAYS[name]?.[value < 0 ? 1 : 0] ?? name;

/** In what a bare number is taken, and shown, where a change is typed. */
export const TYPED_IN = { mm: { slope: 'um/m', deviation: 'um' }, inch: { slope: 'thou/ft', deviation: 'thou' } } as const;

/** A wanted change as it is typed: "30 µm/m". */
export function typedSize(value: number, slope: boolean, system: UnitSystem): string {
  const dimension = slope ? 'slope' : 'deviation';
  const unit = TYPED_IN[system][dimension];
  return `${Number((value / DIMENSIONS[dimension].factors[unit]).toFixed(system === 'inch' ? 2 : 1))} ${prettyUnit(unit)}`;
}

/** All that comes off or goes under, µm over all faces. */
export const totalOf = (plan: SupportPlan | null): number =>
  Object.values(plan?.supports ?? {}).reduce((sum, amount) => sum + Math.abs(amount), 0);

/** What people call the components of a pose. */
export const COMPONENTS: Readonly<Record<string, string>> = {
  slopeH: 'Axis sideways',
  slopeV: 'Axis in height',
  roll: 'Roll',
  alongZ: 'Along the bed',
  lift: 'Height',
  shiftH: 'Sideways',
  leanX: 'Lean right or left',
  leanY: 'Lean forward or back',
  yaw: 'Turn about the column',
  shiftX: 'Right or left',
  shiftY: 'Forward or back',
};
