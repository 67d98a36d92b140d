import type { KnownLathe, KnownMill, KnownTurning } from '../ladder/known.js';
import { drawLathe, fittingFactor, type Ghosts } from './lathe.js';
import { drawMill, millFittingFactor, type MillGhosts } from './mill.js';
import type { BentPicture } from './shapes.js';
import { drawTurning, turningFittingFactor, type TurningGhosts } from './turning.js';

export * from './shapes.js';
export { FRAME } from './lathe.js';
export { turningHas } from './turning.js';

/** What is known of a machine of one family, and the limits that are drawn beside it. */
export type Bending =
  | { readonly family: 'lathe'; readonly known: KnownLathe; readonly ghosts?: Ghosts }
  | { readonly family: 'mill'; readonly known: KnownMill; readonly ghosts?: MillGhosts }
  | { readonly family: 'turning-centre'; readonly known: KnownTurning; readonly ghosts?: TurningGhosts };

/** How much errors may be exaggerated so that all of them are still on the picture. */
export function fittingOf(bending: Bending): number {
  if (bending.family === 'mill') return millFittingFactor(bending.known);
  return bending.family === 'turning-centre' ? turningFittingFactor(bending.known) : fittingFactor(bending.known);
}

/** How a machine is drawn. */
export interface DrawnAs {
  readonly kind: string;
  /** Exaggeration of its errors: printed on the picture. */
  readonly factor: number;
  /** The slant of a turning centre, + its rear the higher; null where its card does not say. */
  readonly slant: number | null;
}

/** A machine of any family, bent by what is known of it. */
export function drawBent(bending: Bending, { kind, factor, slant }: DrawnAs): BentPicture {
  if (bending.family === 'mill') return drawMill(kind, bending.known, factor, bending.ghosts);
  if (bending.family === 'turning-centre') return drawTurning(kind, bending.known, factor, { slant, ghosts: bending.ghosts });
  return drawLathe(bending.known, factor, bending.ghosts);
}
