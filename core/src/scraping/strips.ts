/** A strip across a face, from its low end: how often it is gone over. mm. */
export interface Strip {
  readonly from: number;
  readonly to: number;
  readonly passes: number;
}

export interface StripPlan {
  /** From the low end, the one left alone included. */
  readonly zones: readonly Strip[];
  /** In working order: the highest strip first, each next pass takes in one strip more. */
  readonly passes: readonly { readonly from: number; readonly to: number }[];
  /** Passes over the zones in all. */
  readonly zonePasses: number;
  /** Height of the wedge that comes off, least squares over the length, µm. */
  readonly tilt: number;
}

export interface WedgeFacts {
  /** µm. */
  readonly wedge: number;
  readonly passDepth: number;
  /** mm. */
  readonly length: number;
  /** Passes over the whole length on top. */
  readonly straightDown?: number;
  /** Width of the blade, mm: strips narrower than it are joined. */
  readonly blade?: number;
}

/** Passes that a wedge is worked off in: each place gets the nearest whole number of them. */
export const wedgePasses = (wedge: number, passDepth: number): number => Math.floor(wedge / passDepth + 0.5 + 1e-9);

/**
 * A wedge in passes of one depth: strip w = L·e/t, n = ⌊t/e + ½⌋ passes, pass k from (k − ½)·w to the high end; the
 * low strip, up to w/2, is left alone. Strips narrower than the blade are joined, m = ⌈blade/w⌉ passes to a step.
 *
 * Source: docs/methods/scraping.md.
 */
export function stripPlan({ wedge, passDepth, length, straightDown = 0, blade = 0 }: WedgeFacts): StripPlan {
  const strip = wedge > 0 ? (length * passDepth) / wedge : Infinity;
  const together = Math.max(1, Math.ceil(blade / strip - 1e-9));
  const [width, depth] = [strip * together, passDepth * together];
  const starts = Array.from({ length: wedgePasses(wedge, depth) }, (_, k) => (k + 0.5) * width).filter((from) => from < length - 1e-9);
  const bounds = [0, ...starts, length];
  const zones = bounds.slice(0, -1).map((from, k) => ({ from, to: bounds[k + 1], passes: k * together + straightDown }));
  const wedgeOff = [...starts].reverse().flatMap((from) => Array.from({ length: together }, () => ({ from, to: length })));
  const down = Array.from({ length: straightDown }, () => ({ from: 0, to: length }));
  return {
    zones,
    passes: [...wedgeOff, ...down],
    zonePasses: zones.reduce((sum, zone) => sum + zone.passes, 0),
    tilt: ((6 * depth) / length ** 2) * starts.reduce((sum, from) => sum + from * (length - from), 0),
  };
}
