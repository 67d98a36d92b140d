import type { Slot } from '../instruments/slots.js';
import { linearEstimate, type Estimate } from './estimate.js';
import { sweepSigns, type SweepFacts, type SweepKeys, zeroOf } from './sweep.js';

type Slots = readonly Slot<SweepKeys>[];
/** Along a slide that leans by `slant` (+ its rear end the higher), + toward the operator, and across it. */
export function onSlide([h, v]: readonly Estimate[], slant: number, open: string | undefined): Estimate[] {
  const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
  const mixed = (name: string, a: number, b: number): Estimate =>
    linearEstimate(
      name,
      h.weights.map((weight, i) => a * weight + b * v.weights[i]),
      {
        terms: Object.fromEntries(Object.entries(v.terms).map(([term, amount]) => [term, b * amount])),
        doubts: [
          ...h.doubts.map(({ source, u }) => ({ source, u: u * Math.abs(a) })),
          ...v.doubts.map(({ source, u }) => ({ source, u: u * Math.abs(b) })),
        ],
        open,
      },
    );
  return [mixed('alongSlide', c, -s), mixed('acrossSlide', s, c)];
}

/** The four places on the lines of a slide, degrees: its two ends, and square to it. */
export const slideAngles = (slant: number) => {
  const round = (degrees: number): number => (degrees + 720) % 360;
  return { operator: round(-slant), rear: round(180 - slant), above: round(90 - slant), below: round(270 - slant) };
};

/** How near a place must lie to a line of the slide to be on it, degrees. */
const ON_LINE = 0.5;

/**
 * Two readings half a turn apart on a line of the slide, where nothing else was read: that line has its own part of the offset.
 *
 * @param indices of the slots at one depth.
 */
export function linePair(
  slots: Slots,
  indices: readonly number[],
  { slant = 0, ...facts }: SweepFacts & { readonly slant?: number },
  sag: number,
): Estimate[] {
  if (indices.length !== 2 || slant === 0) return [];
  const at = (degrees: number) =>
    indices.find((i) => {
      const apart = Math.abs(slots[i].keys.angle - degrees) % 360;
      return Math.min(apart, 360 - apart) <= ON_LINE;
    });
  const { operator, rear, above, below } = slideAngles(slant);
  const { turned, sign } = sweepSigns(facts);
  return [
    { name: 'alongSlide', near: operator, far: rear },
    { name: 'acrossSlide', near: above, far: below },
  ].flatMap(({ name, near, far }) => {
    const [one, other] = [at(near), at(far)];
    if (one === undefined || other === undefined || zeroOf(slots[one].keys) !== zeroOf(slots[other].keys)) return [];
    const droop = ((turned * sag) / 2) * Math.sin((near * Math.PI) / 180);
    const weights = slots.map((_, i) => (i === one ? sign / 2 : i === other ? -sign / 2 : 0));
    return [
      linearEstimate(name, weights, { terms: { holderSag: droop }, doubts: [{ source: 'holder-droop', u: 0.05 * Math.abs(droop) }] }),
    ];
  });
}
