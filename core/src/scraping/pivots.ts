/** A stretch of a bearing with an even pressure on it: where, mm from end A, and how much beside the others. */
export interface Band {
  readonly from: number;
  readonly to: number;
  readonly pressure: number;
}

/** Where a push at x = 0 turns: the moments of friction on both sides of it are alike. Null where nothing bears. */
function turnsAt(bands: readonly Band[]): number | null {
  const moment = ({ from, to, pressure }: Band): number => (pressure * (to ** 2 - from ** 2)) / 2;
  const half = bands.reduce((sum, band) => sum + moment(band), 0) / 2;
  if (!(half > 0)) return null;
  let sum = 0;
  for (const band of [...bands].sort((one, other) => one.from - other.from)) {
    const own = moment(band);
    if (own > 0 && sum + own >= half) return Math.sqrt(band.from ** 2 + (2 * (half - sum)) / band.pressure);
    sum += own;
  }
  return null;
}

/**
 * Both pivots of a straightedge pushed at its ends, from what a print says of the pressure: ∫₀ᶜ x·p dx = ½ ∫₀ᴸ x·p dx,
 * mirrored for B. Even pressure turns at L/√2 from the end that is pushed.
 *
 * @param bands inside 0 … length, mm. @returns places from end A, mm; null where nothing bears. Source: docs/methods/scraping.md.
 */
export function pivotsOf(bands: readonly Band[], length: number): { readonly a: number; readonly b: number } | null {
  const a = turnsAt(bands);
  const mirrored = turnsAt(bands.map(({ from, to, pressure }) => ({ from: length - to, to: length - from, pressure })));
  return a === null || mirrored === null ? null : { a, b: length - mirrored };
}

/** Part of the length by which what is seen and what a print predicts may differ. */
export const PRINT_ROOM = 0.1;

/** Whether a print goes with how the straightedge turned: further apart than a tenth of the length it is not to be trusted. */
export const printAgrees = (
  seen: { readonly a: number; readonly b: number },
  predicted: { readonly a: number; readonly b: number },
  length: number,
): boolean => Math.max(Math.abs(seen.a - predicted.a), Math.abs(seen.b - predicted.b)) <= PRINT_ROOM * length;
