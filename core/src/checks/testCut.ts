import { slopeWeights } from '../fit/line.js';
import type { Fault } from '../input/faults.js';
import { MATERIALS, type Material } from '../gravity/bars.js';
import { mean, type Slot } from '../instruments/slots.js';
import { linearEstimate, type Estimate } from './estimate.js';
import { plainLine, type Fit } from './fits.js';

/** Keys of a diameter that was turned. */
export interface CutKeys {
  readonly at: number;
  readonly temperature?: number;
  readonly toolSetting?: number;
}

/** Pads of one cut do not differ by more than this part of their size: then one of them was mistyped. */
const ONE_CUT = 0.2;

/** A pad that cannot have been turned in one cut with the others, whatever the machine. */
export function strayPads(readings: readonly { readonly value: number }[]): Fault[] {
  const sizes = readings.map(({ value }) => value / 1000);
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  if (sizes.length < 2 || !(least > 0) || most - least <= ONE_CUT * most) return [];
  const middle = [...sizes].sort((a, b) => a - b)[(sizes.length - 1) >> 1];
  // Of two nobody knows which: the later one is asked about.
  const far = sizes.reduce((worst, size, i) => (Math.abs(size - middle) >= Math.abs(sizes[worst] - middle) ? i : worst), 0);
  const at = sizes.length === 2 ? 1 : far;
  return [
    {
      path: `readings[${at}].value`,
      message: `is taken for ${Number(sizes[at].toFixed(4))} mm beside pads from ${Number(least.toFixed(3))} to ${Number(most.toFixed(3))} mm: pads of one cut do not differ by so much`,
      example: `${Number((sizes.length === 2 ? sizes[0] : middle).toFixed(2))} mm`,
    },
  ];
}

/**
 * Shape of a bar held in a chuck at z = 0 and pushed aside at its tail end z = L, as a part of the
 * push there: f(z) = z²(3L − z)/(2L³). At mid-length it is 5/16.
 */
export function deflectedShape(length: number): (z: number) => number {
  return (z) => (z ** 2 * (3 * length - z)) / (2 * length ** 3);
}

/** Slope weights over any abscissa; undefined when there are not two different ones. */
export function cutWeights(x: readonly number[]): number[] | undefined {
  return x.some((value) => value !== x[0]) ? slopeWeights(x) : undefined;
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

/** Size to stop at while the work is still warm, mm: it comes to `diameter` when it has cooled by `warmer` °C. */
export function sizeWhileWarm(diameter: number, warmer: number, material: Material = 'steel'): number {
  return diameter * (1 + MATERIALS[material].expansion * warmer);
}

interface CutContext {
  readonly heightError?: number;
  readonly toolHeight?: number;
  readonly bar?: { readonly diameter: number; readonly material?: Material };
  /** How the cross dial counts: a radius dial counts twice on diameter. */
  readonly dial?: 'diameter' | 'radius';
  /** Part of the tail centre's displacement that is seen at z. */
  readonly shape: (z: number) => number;
}

/**
 * Amounts (µm on diameter) to add to each measured diameter: for its temperature, for a tool that was
 * re-set, and for a known height error. Only those that apply are given.
 */
export function cutCorrections(
  slots: readonly Slot<CutKeys>[],
  { heightError, toolHeight = 0, bar, dial, shape }: CutContext,
): Record<string, number[]> {
  const corrections: Record<string, number[]> = {};
  const temperatures = slots.map((slot) => slot.keys.temperature);
  const [reference] = temperatures;
  if (reference !== undefined && temperatures.some((temperature) => temperature !== reference)) {
    const { expansion } = MATERIALS[bar?.material ?? 'steel'];
    corrections['temperature'] = slots.map((slot, i) => -slot.value * expansion * ((temperatures[i] ?? reference) - reference));
  }
  const settings = slots.map((slot) => slot.keys.toolSetting ?? 0);
  if (settings.some((setting) => setting !== settings[0])) {
    const onDiameter = dial === 'radius' ? 2000 : 1000;
    corrections['toolSetting'] = settings.map((setting) => onDiameter * (setting - settings[0]));
  }
  if (heightError !== undefined) {
    corrections['heightError'] = slots.map((slot) => {
      const height = heightError * shape(slot.keys.at);
      return -2 * heightRadius(height, toolHeight, slot.value / 2000);
    });
  }
  return corrections;
}

/** The middle pad against the line through the others, µm on diameter: + bigger in the middle. None with fewer than three pads. */
export function crownEstimate(slots: readonly Slot<CutKeys>[], corrections: Readonly<Record<string, readonly number[]>>): Estimate[] {
  const order = slots.map((_, i) => i).sort((a, b) => slots[a].keys.at - slots[b].keys.at);
  const middle = order[order.length >> 1];
  const others = order.filter((i) => i !== middle);
  const x = others.map((i) => slots[i].keys.at);
  if (order.length < 3 || !x.some((place) => place !== x[0])) return [];
  const weights = new Array<number>(slots.length).fill(0);
  weights[middle] = 1;
  // The line through the others at the middle pad: their mean, and their slope from its centre.
  const off = slots[middle].keys.at - mean(x);
  slopeWeights(x).forEach((slope, k) => (weights[others[k]] = -(1 / others.length + slope * off)));
  const terms = Object.fromEntries(
    Object.entries(corrections)
      .map(([name, amounts]) => [name, amounts.reduce((sum, amount, i) => sum + amount * weights[i], 0)] as const)
      .filter(([, amount]) => amount !== 0),
  );
  return [linearEstimate('crown', weights, { terms, detail: { at: slots[middle].keys.at } })];
}

/** Diameters lie on a line over the shape in which the work was displaced, once they are corrected. */
export function cutFits(
  slots: readonly Slot<CutKeys>[],
  shape: (at: number) => number,
  corrections: Readonly<Record<string, readonly number[]>>,
  widens: readonly string[],
): readonly Fit[] {
  const added = (i: number): number => Object.values(corrections).reduce((sum, amounts) => sum + amounts[i], 0);
  return plainLine(
    slots.map((_, i) => i),
    (i) => shape(slots[i].keys.at),
    { added, widens },
  );
}
