/** A grind takes so much at least before a face is clean, µm. */
export const TYPICAL_GRIND = 20;
/** A shim that holds its thickness, µm, where no drawer tells of thinner leaves. */
export const TYPICAL_SHIM = 20;
/** A means is out of its size below this part of what it usually does. */
const PART = 0.25;
/** Minutes of one pass over a foot, with its blue. */
const PASS_MINUTES = 25;

/** A wedge that is too small for the means that was chosen, and what suits instead. */
export interface Suits {
  readonly too: 'grind' | 'shim';
  /** What that means does at the least, µm. */
  readonly least: number;
  /** Passes that scrape it, over its high side, and the minutes of them; none where it is less than half a pass. */
  readonly passes: number;
  readonly minutes: number;
}

/**
 * Whether a wedge is below a quarter of what a means usually does: then a few strokes of the scraper do it, or nothing does.
 *
 * @param wedge µm over the foot. @param leaf the thinnest leaf in the drawer, µm. @param pass depth of a pass, µm.
 * @returns undefined where the means suits, or is neither a grind nor a shim.
 */
export function suits(
  kind: string,
  wedge: number,
  { leaf = TYPICAL_SHIM, pass = 5 }: { readonly leaf?: number | undefined; readonly pass?: number } = {},
): Suits | undefined {
  const too = ({ 'sine-stack': 'grind', 'shim-leaves': 'shim' } as const)[kind as 'sine-stack' | 'shim-leaves'];
  if (!too) return undefined;
  const least = too === 'grind' ? TYPICAL_GRIND : leaf;
  if (Math.abs(wedge) >= PART * least) return undefined;
  const passes = Math.floor(Math.abs(wedge) / pass + 0.5);
  return { too, least, passes, minutes: passes * PASS_MINUTES };
}
