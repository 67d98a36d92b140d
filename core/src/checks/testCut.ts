import { slopeWeights } from '../fit/line.js';
import { MATERIALS, type Material } from '../gravity/bars.js';
import type { Slot } from '../instruments/slots.js';

/**
 * Shape of a bar held in a chuck at z = 0 and pushed aside at its tail end z = L, as a part of the
 * push there: f(z) = z²(3L − z)/(2L³). At mid-length it is 5/16.
 */
export function deflectedShape(length: number): (z: number) => number {
  return (z) => (z ** 2 * (3 * length - z)) / (2 * length ** 3);
}

/** Slope weights over any abscissa; undefined when there are not two different ones. */
export function cutWeights(x: readonly number[]): number[] | undefined {
  return new Set(x).size > 1 ? slopeWeights(x) : undefined;
}

/**
 * Change of the radius (µm) where the work stands `height` µm above the spindle's line and the tool
 * `toolHeight` mm above it: v(v − 2t)/(2R), radius in mm.
 */
export function heightRadius(height: number, toolHeight: number, radius: number): number {
  const v = height / 1000;
  return (1000 * (v * (v - 2 * toolHeight))) / (2 * radius);
}

/** Whether a tail centre 0.1 mm off height would change a radius by more than 1 µm. */
export function couldHeightMatter(diameter: number, toolHeight: number): boolean {
  const radius = diameter / 2;
  return Math.max(Math.abs(heightRadius(100, toolHeight, radius)), Math.abs(heightRadius(-100, toolHeight, radius))) > 1;
}

interface CutContext {
  readonly heightError?: number;
  readonly toolHeight?: number;
  readonly bar?: { readonly diameter: number; readonly material?: Material };
  /** Part of the tail centre's displacement that is seen at z. */
  readonly shape: (z: number) => number;
}

/**
 * Amounts (µm on diameter) to add to each measured diameter: for its temperature, for a tool that was
 * re-set, and for a known height error. Only those that apply are given.
 */
export function cutCorrections(slots: readonly Slot[], { heightError, toolHeight = 0, bar, shape }: CutContext): Record<string, number[]> {
  const corrections: Record<string, number[]> = {};
  const temperatures = slots.map((slot) => slot.keys['temperature'] as number | undefined);
  const [reference] = temperatures;
  if (reference !== undefined && temperatures.some((temperature) => temperature !== reference)) {
    const { expansion } = MATERIALS[bar?.material ?? 'steel'];
    corrections['temperature'] = slots.map((slot, i) => -slot.value * expansion * ((temperatures[i] ?? reference) - reference));
  }
  const settings = slots.map((slot) => (slot.keys['toolSetting'] as number | undefined) ?? 0);
  if (settings.some((setting) => setting !== settings[0])) {
    corrections['toolSetting'] = settings.map((setting) => 1000 * (setting - settings[0]));
  }
  if (heightError !== undefined) {
    corrections['heightError'] = slots.map((slot) => {
      const height = heightError * shape(slot.keys['at'] as number);
      return -2 * heightRadius(height, toolHeight, slot.value / 2000);
    });
  }
  return corrections;
}
