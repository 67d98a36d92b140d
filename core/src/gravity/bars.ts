/** kg/m³ and GPa of what bars are made of, with its expansion per °C. */
export const MATERIALS = {
  steel: { density: 7850, modulus: 205, expansion: 11.5e-6 },
  'cast-iron': { density: 7200, modulus: 110, expansion: 10.5e-6 },
  aluminium: { density: 2700, modulus: 70, expansion: 23e-6 },
} as const;

export type Material = keyof typeof MATERIALS;

/** A round bar: outside diameter and bore in mm. */
export interface RoundBar {
  readonly diameter: number;
  readonly bore?: number;
  readonly material?: Material;
}

export const STANDARD_GRAVITY = 9.80665;

/** Stiffness E·I in N·m² and weight per length q in N/m of a round bar. */
export function barStiffness({ diameter, bore = 0, material = 'steel' }: RoundBar): { readonly ei: number; readonly q: number } {
  if (!(diameter > 0) || !(bore >= 0) || bore >= diameter) throw new RangeError('a bar needs a bore smaller than its diameter');
  const { density, modulus } = MATERIALS[material];
  const d = diameter / 1000;
  const b = bore / 1000;
  const ei = modulus * 1e9 * ((Math.PI * (d ** 4 - b ** 4)) / 64);
  const q = (density * STANDARD_GRAVITY * Math.PI * (d ** 2 - b ** 2)) / 4;
  return { ei, q };
}

/**
 * How far a bar held at one end droops.
 *
 * @param x mm from where it is held. @param length free length, mm.
 * @returns µm, positive downward. Source: docs/methods/gravity.md.
 * @example heldSag({ diameter: 12 }, 250, 250) // 23 µm
 */
export function heldSag(bar: RoundBar, length: number, x: number): number {
  const { ei, q } = barStiffness(bar);
  const l = length / 1000;
  const s = x / 1000;
  return (1e6 * q * s ** 2 * (6 * l ** 2 - 4 * l * s + s ** 2)) / (24 * ei);
}

/** How far a bar between centres droops at x mm from one of them: µm, positive downward. */
export function centresSag(bar: RoundBar, length: number, x: number): number {
  const { ei, q } = barStiffness(bar);
  const l = length / 1000;
  const s = x / 1000;
  return (1e6 * q * s * (l ** 3 - 2 * l * s ** 2 + s ** 3)) / (24 * ei);
}

/** How far a stylus pressing with `force` N pushes a held bar away at x mm: µm. */
export function heldPush(bar: RoundBar, force: number, x: number): number {
  return (1e6 * force * (x / 1000) ** 3) / (3 * barStiffness(bar).ei);
}

/** The same between centres `length` mm apart. */
export function centresPush(bar: RoundBar, length: number, force: number, x: number): number {
  const l = length / 1000;
  const s = x / 1000;
  return (1e6 * force * s ** 2 * (l - s) ** 2) / (3 * barStiffness(bar).ei * l);
}
