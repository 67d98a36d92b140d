/** From this on by feel, 0 free to 5 stiff, a slide is not free: it is driven no further. */
export const STIFF = 4;
/** Mean of some slots minus the mean of others, as weights; undefined when one side has none. */
export function differenceForm(size: number, plus: readonly number[], minus: readonly number[]): number[] | undefined {
  if (plus.length === 0 || minus.length === 0) return undefined;
  const form = new Array<number>(size).fill(0);
  for (const i of plus) form[i] += 1 / plus.length;
  for (const i of minus) form[i] -= 1 / minus.length;
  return form;
}

/**
 * Clearance of a guide from the swing: `swing·guideLength/(2·max(d, guideLength/2))`, d from the
 * middle of the guide to the stylus. An estimate for a first small step, not a measurement.
 */
export function clearanceFactor(guideLength: number, distance: number): number {
  return guideLength / (2 * Math.max(distance, guideLength / 2));
}

export interface Drag {
  readonly at: number;
  readonly drag: number;
}

/** The tightest place of a travel by feel, 0 (free) to 5 (stiff): it rules. */
export function tightest(drags: readonly Drag[]): Drag | undefined {
  return drags.reduce<Drag | undefined>((worst, here) => (!worst || here.drag > worst.drag ? here : worst), undefined);
}
