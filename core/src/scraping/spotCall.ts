/** Area that spots are counted over: a square of one inch, mm². */
export const SQUARE = 645.16;
/** Share that is blue above which the film may hide where it bears. */
export const TOO_MUCH_BLUE = 0.45;
/** How far the count of one square is off by its lie alone, 95 %: twice 1.3 to 1.8. */
const BY_LIE = 3.1;

/** Spots for a square by what the face is for. Source: docs/methods/scraping.md. */
export const SPOT_TARGETS: Readonly<Record<'moving' | 'general' | 'fixed', readonly [number, number]>> = {
  moving: [20, 25],
  general: [10, 15],
  fixed: [5, 10],
};

export interface SpotCall {
  readonly verdict: 'in' | 'out' | 'unsure';
  /** 95 %, spots per square. */
  readonly expanded: number;
}

/**
 * Whether enough spots are there: a count over n squares is good to ± 3.1/√n by its lie alone, so that 12 from one square
 * against 10 to 15 is too close to call. More than are asked for is no fault.
 *
 * @param perSquare spots for 645.16 mm². @param area that was counted, mm².
 */
export function spotCall(perSquare: number, area: number, [low]: readonly [number, number]): SpotCall {
  const expanded = BY_LIE / Math.sqrt(Math.max(area, 1) / SQUARE);
  const verdict = perSquare >= low + expanded ? 'in' : perSquare < low - expanded ? 'out' : 'unsure';
  return { verdict, expanded };
}

/** Length over which a narrow way makes up one square, mm: an 11 mm way is counted over 58.7. */
export const countedOver = (width: number): number => (width >= Math.sqrt(SQUARE) ? Math.sqrt(SQUARE) : SQUARE / width);
