/** A place along a face that was read against a straightedge: mm from end A, µm over it, 95 % doubt. */
export interface BitePlace {
  readonly at: number;
  readonly height: number;
  readonly doubt: number;
}

/**
 * Heights of two bites of a straightedge that is shorter than the face, as one profile: where it lay the second time, and how it
 * leaned, is what makes the places that both have read agree (least squares over the overlap).
 *
 * @param first it keeps its zero. @param second at least two places in common with the first.
 * @returns places ascending, with the doubt that the joint adds to those of the second; undefined where they do not overlap enough.
 *   Source: docs/methods/scraping.md.
 */
export function joinBites(first: readonly BitePlace[], second: readonly BitePlace[]): readonly BitePlace[] | undefined {
  const both = second.flatMap((place) => {
    const known = first.find(({ at }) => at === place.at);
    return known ? [{ at: place.at, step: known.height - place.height, doubt: Math.hypot(known.doubt, place.doubt) }] : [];
  });
  const n = both.length;
  const middle = both.reduce((sum, { at }) => sum + at, 0) / n;
  const spread = both.reduce((sum, { at }) => sum + (at - middle) ** 2, 0);
  if (n < 2 || !(spread > 0)) return undefined;
  const mean = both.reduce((sum, { step }) => sum + step, 0) / n;
  const slope = both.reduce((sum, { at, step }) => sum + (at - middle) * step, 0) / spread;
  const doubt = Math.sqrt(both.reduce((sum, entry) => sum + entry.doubt ** 2, 0) / n);
  const own = second
    .filter(({ at }) => !first.some((place) => place.at === at))
    .map(({ at, height, doubt: read }) => ({
      at,
      height: height + mean + slope * (at - middle),
      // The further beyond the overlap, the longer the lever of what its places were read by.
      doubt: Math.hypot(read, doubt * Math.sqrt(1 / n + (at - middle) ** 2 / spread)),
    }));
  return [...first, ...own].sort((one, other) => one.at - other.at);
}
