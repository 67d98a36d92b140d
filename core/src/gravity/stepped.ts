import { heldSag, MATERIALS, STANDARD_GRAVITY, type RoundBar } from './bars.js';

/** A diameter measured along a bar, mm from where it is held. */
export interface DiameterAt {
  readonly at: number;
  readonly diameter: number;
}

const STEPS = 1000;

/** Diameter of a stepped bar: each measured one holds half-way to its neighbours. */
function diameterAlong(measured: readonly DiameterAt[]): (s: number) => number {
  const sorted = [...measured].sort((a, b) => a.at - b.at);
  return (s) =>
    sorted[
      Math.max(
        0,
        sorted.findIndex((entry, i) => i === sorted.length - 1 || s < (entry.at + sorted[i + 1].at) / 2),
      )
    ].diameter;
}

/**
 * How far a bar with steps droops when it is held at one end, by adding up its curvature:
 * M(s) = g∫ρA(t)(t − s)dt from s to the end, sag(x) = ∫₀ˣ (x − s)·M(s)/(E·I(s)) ds.
 *
 * @param measured diameters along it; the bar's own where there are none. @param length free length, mm.
 * @param x mm from where it is held. @returns µm, positive downward. Source: docs/methods/gravity.md.
 */
export function steppedSag(bar: RoundBar, measured: readonly DiameterAt[] | undefined, length: number, x: number): number {
  if (!measured?.length) return heldSag(bar, length, x);
  const { bore = 0, material = 'steel' } = bar;
  const { density, modulus } = MATERIALS[material];
  const diameter = diameterAlong(measured);
  const ds = length / 1000 / STEPS;
  let [shear, moment, sag] = [0, 0, 0];
  // From the end inward: what hangs beyond a place bends the bar there.
  for (let i = STEPS - 1; i >= 0; i--) {
    const s = (i + 0.5) * ds;
    const d = diameter(s * 1000) / 1000;
    const weight = (density * STANDARD_GRAVITY * Math.PI * (d ** 2 - (bore / 1000) ** 2)) / 4;
    const inertia = (Math.PI * (d ** 4 - (bore / 1000) ** 4)) / 64;
    const here = moment + (shear * ds) / 2 + (weight * ds ** 2) / 8;
    if (s < x / 1000) sag += ((x / 1000 - s) * here * ds) / (modulus * 1e9 * inertia);
    moment += shear * ds + (weight * ds ** 2) / 2;
    shear += weight * ds;
  }
  return 1e6 * sag;
}
