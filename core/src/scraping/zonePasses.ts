/** Passes over one zone, and what they leave standing, µm. */
export interface ZonePasses {
  readonly rough: number;
  readonly fine: number;
  readonly left: number;
}

const NEARLY = 1e-9;

/**
 * Whole passes for a depth: roughing down to `keepFine` finishing passes, then finishing. Never rounded up: what
 * is left is less than a finishing pass.
 *
 * @param depth µm. @param rough and @param fine depths of a pass, µm.
 */
export function zonePasses(depth: number, rough: number, fine: number, keepFine = 2): ZonePasses {
  const roughing = Math.max(0, Math.floor((depth - keepFine * fine) / rough + NEARLY));
  const finishing = Math.max(0, Math.floor((depth - roughing * rough) / fine + NEARLY));
  return { rough: roughing, fine: finishing, left: depth - roughing * rough - finishing * fine };
}
