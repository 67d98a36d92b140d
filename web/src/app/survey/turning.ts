import { featuresOf } from '@isometra/contract/machine-kinds';
import type { KnownTurning } from '@isometra/work';

/** Radii within which each may stand, µm. */
export interface TurningGhosts {
  readonly turret: readonly number[];
  readonly bush: readonly number[];
  readonly sub: readonly number[];
}

/** Drawing units of an offset of so many µm: a millimetre of the machine is drawn as long as one of the drawing, times the factor. */
export const offsetPixels = (um: number, factor: number): number => Number(((um / 1000) * factor).toFixed(2));

/** How far a line of so many units goes off by a slope, µm/m, drawn `factor` times as steep. */
export const slopePixels = (slope: number, length: number, factor: number): number => Number(((slope / 1e6) * length * factor).toFixed(2));

const OFFSETS = ['bushH', 'bushV', 'subH', 'subV', 'tailH', 'tailV'] as const;

/** Where the bed is drawn from its end: px. */
const BED = { left: 60, right: 430, top: 60, bottom: 400, middle: 250, axis: 236, below: 100 } as const;

/** The outline of a bed whose face lies along a slide, + its rear (left) end the higher, as far below the axis as it is drawn. */
export function bedUnder(slant: number): string {
  const radians = (Math.max(-75, Math.min(75, slant)) * Math.PI) / 180;
  const face = (x: number): number => BED.axis + (x - BED.middle) * Math.tan(radians) + BED.below / Math.cos(radians);
  const xAt = (y: number): number => BED.middle + (y - BED.axis - BED.below / Math.cos(radians)) / Math.tan(radians);
  const ends = [BED.left, BED.right].map((x) => {
    const y = Math.max(BED.top, Math.min(BED.bottom, face(x)));
    return { x: y === face(x) || slant === 0 ? x : xAt(y), y };
  });
  const [left, right] = ends.map(({ x, y }) => `${Math.round(x)} ${Math.round(y)}`);
  const foot = slant >= 0 ? BED.left : BED.right;
  return slant === 0 ? `M${left}L${right}V${BED.bottom}H${BED.left}Z` : `M${left}L${right}V${BED.bottom}H${foot}Z`;
}

/** A factor that draws the worst offset by at most 60 units, within ×100 to ×5000. */
export function turningFittingFactor(known: KnownTurning): number {
  const offsets = [...OFFSETS.map((name) => known[name]), ...(known.pockets ?? []).flatMap(({ h, v }) => [h, v])];
  const worst = Math.max(1, ...offsets.map((offset) => Math.abs(offset ?? 0)));
  const slope = Math.max(Math.abs(known.axisSlopeH ?? 0), 1);
  return (
    [5000, 2000, 1000, 500, 200, 100].find((factor) => offsetPixels(worst, factor) <= 60 && slopePixels(slope, 310, factor) <= 60) ?? 100
  );
}

/** What a kind of turning centre has beside its turret. */
export function turningHas(kind: string): { readonly sub: boolean; readonly bush: boolean; readonly tail: boolean } {
  const has = featuresOf(kind);
  return { sub: has.includes('sub-spindle'), bush: has.includes('guide-bush'), tail: has.includes('tailstock') };
}
