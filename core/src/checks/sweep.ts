import { harmonicRow, harmonicWeights } from '../fit/harmonic.js';
import { dot } from '../fit/line.js';
import type { Slot } from '../instruments/slots.js';
import { linearEstimate, type Doubt, type Estimate } from './estimate.js';

/** Keys of a reading carried round by the spindle; angles are brought into 0 … 360 when they are read. */
export interface SweepKeys {
  readonly angle: number;
  readonly at?: number;
  readonly bush?: 0 | 180;
  /** Number of the zero of the dial, 1 where nobody zeroed it again. */
  readonly zero?: number;
}

type Slots = readonly Slot<SweepKeys>[];

/** The zero that a reading belongs to. */
export const zeroOf = ({ zero = 1 }: { readonly zero?: number | undefined }): number => zero;

/** A sweep of one round feature at one depth, as weights on all slots. */
export interface SweepFit {
  /** Toward the operator: half of front minus rear. */
  readonly front: readonly number[];
  /** Half of top minus bottom; undefined where only front and rear were read. */
  readonly top?: readonly number[];
  /** Largest departure from the first harmonic, µm; 0 when nothing is left over. */
  readonly worst: number;
}

function placed(size: number, indices: readonly number[], weights: readonly number[]): number[] {
  const all = new Array<number>(size).fill(0);
  indices.forEach((index, k) => (all[index] = weights[k]));
  return all;
}

/**
 * Fit `m(θ) = c + a·cos θ + b·sin θ` to the chosen slots (angle 0 = operator's side, 90 = top), with a c of its own for each zero.
 * With front and rear alone only `front` is known.
 */
export function sweepFit(slots: Slots, indices: readonly number[]): SweepFit | undefined {
  const angles = indices.map((i) => slots[i].keys.angle);
  const zeros = indices.map((i) => zeroOf(slots[i].keys));
  const known = [...new Set(zeros)];
  const fit = harmonicWeights(angles, zeros);
  if (fit) {
    const values = indices.map((i) => slots[i].value);
    const parts = [...fit.means, fit.cosine, fit.sine].map((weights) => dot(weights, values));
    const worst = values.reduce(
      (most, value, k) => Math.max(most, Math.abs(value - dot(parts, harmonicRow(angles[k], zeros[k], known)))),
      0,
    );
    return { front: placed(slots.length, indices, fit.cosine), top: placed(slots.length, indices, fit.sine), worst };
  }
  const [front, rear] = [0, 180].map((degrees) => angles.indexOf(degrees));
  if (front < 0 || rear < 0 || zeros[front] !== zeros[rear]) return undefined;
  const pair = angles.map((_, k) => (k === front ? 0.5 : k === rear ? -0.5 : 0));
  return { front: placed(slots.length, indices, pair), worst: 0 };
}

/** (top + bottom) − (front + rear) as weights, when all four were read on one zero. */
export function sweepClosure(slots: Slots, indices: readonly number[]): number[] | undefined {
  const at = (degrees: number) => indices.find((i) => slots[i].keys.angle === degrees);
  const [front, top, rear, bottom] = [at(0), at(90), at(180), at(270)];
  if (front === undefined || top === undefined || rear === undefined || bottom === undefined) return undefined;
  if (new Set([front, top, rear, bottom].map((i) => zeroOf(slots[i].keys))).size > 1) return undefined;
  return placed(slots.length, [top, bottom, front, rear], [1, 1, -1, -1]);
}

/** How a sweep was made: what decides signs and corrections. */
export interface SweepFacts {
  readonly feature?: 'outside' | 'bore';
  readonly coneAngle?: number;
  /** Carried by the sub-spindle, the part swept is the other one: both offsets change sign. */
  readonly carrier?: 'main' | 'sub';
}

/**
 * What half the difference of two readings counts, by what was swept: turned in a bore, more square to a cone; and `turned`, −1
 * where the other spindle carries the indicator, for the holder's droop, which was measured on a cylinder.
 */
export function sweepSigns({ feature, coneAngle = 0, carrier }: SweepFacts): { readonly turned: 1 | -1; readonly sign: number } {
  const turned = carrier === 'sub' ? -1 : 1;
  return { turned, sign: ((feature === 'bore' ? -1 : 1) * turned) / Math.cos((coneAngle * Math.PI) / 180) };
}

/**
 * Offsets of what was swept from the spindle axis: halves, because the sweep doubles. For a bore the
 * sign turns. A stylus square to a cone reads short by cos(coneAngle); `holderSag` (µm at the bottom, zeroed
 * at the top) was measured on a cylinder and adds half of itself to the height as it is.
 */
export function sweepOffsets(fit: SweepFit, facts: SweepFacts, holderSag: number, doubts: readonly Doubt[] = []): Estimate[] {
  const { turned, sign } = sweepSigns(facts);
  const sag = (turned * holderSag) / 2;
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
      doubts: [...doubts, { source: 'holder-droop', u: 0.05 * Math.abs(sag) }],
    },
  );
  return [horizontal, vertical];
}
