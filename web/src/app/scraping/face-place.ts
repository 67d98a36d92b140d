import type { Surface } from '@isometra/contract';
import type { DeskZone } from '@isometra/work';

/** px of a drawing to one mm, along the face and across it. */
export interface FaceScale {
  readonly along: number;
  readonly across: number;
}

/** Whether a face is drawn lying on its side. */
export const onItsSide = ({ turned }: Pick<Surface, 'turned'>): boolean => turned % 180 !== 0;

/** The size of a face as it is drawn, px: turned as it lies. */
export function faceSize(surface: Surface, { along, across }: FaceScale): { readonly width: number; readonly height: number } {
  const { width, height } = surface;
  return onItsSide(surface) ? { width: height * across, height: width * along } : { width: width * along, height: height * across };
}

/** Where a place of a face, mm, is on its drawing, px: turned, and mirrored where the face is. */
export function placeOn(
  { width, height, turned, mirrored }: Surface,
  { along, across }: FaceScale,
): (x: number, y: number) => readonly [number, number] {
  return (x, y) => {
    const u = mirrored ? width - x : x;
    const by: Readonly<Record<number, readonly [number, number]>> = {
      0: [u * along, y * across],
      90: [(height - y) * across, u * along],
      180: [(width - u) * along, (height - y) * across],
      270: [y * across, (width - u) * along],
    };
    return by[turned];
  };
}

/** How deep the blue of a zone is, from 0 to 1: the more passes are left of it beside the others, the deeper. */
export function toneOf(zones: readonly DeskZone[]): (zone: DeskZone) => number {
  const most = Math.max(1, ...zones.map(({ left }) => left ?? 0));
  return ({ left }) => (left ? 0.18 + (0.62 * left) / most : 0);
}
