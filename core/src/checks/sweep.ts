import { harmonicWeights } from '../fit/harmonic.js';
import { dot } from '../fit/line.js';
import type { Slot } from '../instruments/slots.js';
import { linearEstimate, type Doubt, type Estimate } from './estimate.js';

const angle = (slot: Slot): number => (((slot.keys['angle'] as number) % 360) + 360) % 360;

/** A sweep of one round feature at one depth, as weights on the slots. */
export interface SweepFit {
  /** Toward the operator: half of front minus rear. Undefined weights for what was not read. */
  readonly front: readonly number[];
  readonly top?: readonly number[];
  /** Residuals of the first harmonic, when there are more readings than it has parameters. */
  readonly residuals: readonly (readonly number[])[];
}

function placed(size: number, indices: readonly number[], weights: readonly number[]): number[] {
  const all = new Array<number>(size).fill(0);
  indices.forEach((index, k) => (all[index] = weights[k]));
  return all;
}

/**
 * Fit `m(θ) = c + a·cos θ + b·sin θ` to the chosen slots (angle 0 = operator's side, 90 = top).
 * With front and rear alone only `front` is known.
 */
export function sweepFit(slots: readonly Slot[], indices: readonly number[]): SweepFit | undefined {
  const angles = indices.map((i) => angle(slots[i]));
  const fit = harmonicWeights(angles);
  if (fit) {
    const residuals = indices.map((_index, k) => {
      const radians = (angles[k] * Math.PI) / 180;
      const form = indices.map(
        (_, j) => (j === k ? 1 : 0) - fit.mean[j] - fit.cosine[j] * Math.cos(radians) - fit.sine[j] * Math.sin(radians),
      );
      return placed(slots.length, indices, form);
    });
    return { front: placed(slots.length, indices, fit.cosine), top: placed(slots.length, indices, fit.sine), residuals };
  }
  const front = angles.indexOf(0);
  const rear = angles.indexOf(180);
  if (front < 0 || rear < 0) return undefined;
  return {
    front: placed(
      slots.length,
      indices,
      angles.map((_, k) => (k === front ? 0.5 : k === rear ? -0.5 : 0)),
    ),
    residuals: [],
  };
}

/** (top + bottom) − (front + rear) as weights, when all four were read. */
export function sweepClosure(slots: readonly Slot[], indices: readonly number[]): number[] | undefined {
  const at = (degrees: number) => indices.find((i) => angle(slots[i]) === degrees);
  const [front, top, rear, bottom] = [at(0), at(90), at(180), at(270)];
  if (front === undefined || top === undefined || rear === undefined || bottom === undefined) return undefined;
  return placed(slots.length, [top, bottom, front, rear], [1, 1, -1, -1]);
}

export interface SweepSetup {
  readonly feature?: 'outside' | 'bore';
  readonly coneAngle?: number;
}

/**
 * Offsets of what was swept from the spindle axis: halves, because the sweep doubles. For a bore the
 * sign turns. `holderSag` (µm at the bottom, zeroed at the top) adds half of itself to the height;
 * a stylus square to a cone reads short by cos(coneAngle).
 */
export function sweepOffsets(fit: SweepFit, setup: SweepSetup, holderSag: number, doubts: readonly Doubt[] = []): Estimate[] {
  const cone = Math.cos(((setup.coneAngle ?? 0) * Math.PI) / 180);
  const sign = (setup.feature === 'bore' ? -1 : 1) / cone;
  const sag = holderSag / 2 / cone;
  const horizontal = linearEstimate(
    'offsetHorizontal',
    fit.front.map((weight) => weight * sign),
    { doubts },
  );
  if (!fit.top) return [horizontal];
  const vertical = linearEstimate(
    'offsetVertical',
    fit.top.map((weight) => weight * sign),
    {
      terms: { holderSag: sag },
      doubts: [...doubts, { source: 'droop of the holder', u: 0.05 * Math.abs(sag) }],
    },
  );
  return [horizontal, vertical];
}

/** Largest departure from the first harmonic, µm. */
export function worstResidual(fit: SweepFit, values: readonly number[]): number {
  return fit.residuals.reduce((worst, form) => Math.max(worst, Math.abs(dot(form, values))), 0);
}
