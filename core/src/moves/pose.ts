/** A vector in the frame's own order: lathe (z, v, h), mill (x, y, z). */
export type Vector = readonly [number, number, number];

export type Frame = 'lathe' | 'mill';

interface FrameFacts {
  readonly axes: readonly [string, string, string];
  /** Pose components in the order t₀, t₁, t₂, ω₀, ω₁, ω₂, with the sign each carries. */
  readonly components: readonly (readonly [string, 1 | -1])[];
}

/** What people call the six components of a small movement. Rotations in µm/m, shifts in µm. */
export const FRAMES: Readonly<Record<Frame, FrameFacts>> = {
  lathe: {
    axes: ['z', 'v', 'h'],
    components: [
      ['alongZ', 1],
      ['lift', 1],
      ['shiftH', 1],
      ['roll', -1],
      ['slopeH', -1],
      ['slopeV', 1],
    ],
  },
  mill: {
    axes: ['x', 'y', 'z'],
    components: [
      ['shiftX', 1],
      ['shiftY', 1],
      ['lift', 1],
      ['leanY', 1],
      ['leanX', 1],
      ['yaw', 1],
    ],
  },
};

/** Six numbers: shift t (µm) and rotation ω (µm/m), right-handed. */
export type Pose = readonly [number, number, number, number, number, number];

/**
 * How far a point moves: t + ω × (p − p₀).
 *
 * @param arm p − p₀ in mm. @returns µm along each axis.
 */
export function displacement([t0, t1, t2, w0, w1, w2]: Pose, [r0, r1, r2]: Vector): Vector {
  return [t0 + (w1 * r2 - w2 * r1) / 1000, t1 + (w2 * r0 - w0 * r2) / 1000, t2 + (w0 * r1 - w1 * r0) / 1000];
}

/**
 * Sensitivities of a support to the six pose components: `n·(t + ω × r) = row · pose`.
 *
 * @param normal unit normal, from base into body. @param arm p − p₀ in mm.
 */
export function supportRow([n0, n1, n2]: Vector, [r0, r1, r2]: Vector): number[] {
  return [n0, n1, n2, (n2 * r1 - n1 * r2) / 1000, (n0 * r2 - n2 * r0) / 1000, (n1 * r0 - n0 * r1) / 1000];
}
