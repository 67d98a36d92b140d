import { judgedBy, type LimitSheet } from '@isometra/core';
import { type KnownLathe, type KnownMill, MILL_FACTS } from '../ladder/known.js';
import { factSource } from '../sheets/facts.js';
import { pictureOf, type Ghosts, type Picture } from './lathe.js';
import { millPictureOf, type MillGhosts, type MillPicture } from './mill.js';
import type { TurningGhosts } from './turning.js';

/** The bounds of the limit on something known, by a sheet or by its check itself; a side without a bound is left out. */
export function boundsOf(judge: LimitSheet | undefined, fact: string): number[] {
  const source = factSource(fact);
  if (!source) return [];
  const { check, quantity } = source;
  const zones = judge ? judgedBy(judge, check, {}, []).limits : {};
  const zone = zones[quantity] ?? check.quantities[quantity].limit ?? [];
  return zone.filter((bound) => bound !== null);
}

/** The ghost lines of a lathe's picture. */
export function ghostsOf(judge: LimitSheet | undefined, factor: number): Ghosts {
  /** The machine as it stands at each bound of one limit, and is otherwise true. */
  const at = (known: keyof KnownLathe): Picture[] => boundsOf(judge, known).map((bound) => pictureOf({ [known]: bound }, factor));
  return {
    plan: { tail: at('tailH').map(({ plan }) => plan.tail), axisEnd: at('axisSlopeH').map(({ plan }) => plan.axisEnd) },
    side: { tail: at('tailV').map(({ side }) => side.tail), axisEnd: at('axisSlopeV').map(({ side }) => side.axisEnd) },
    sections: at('twistPerMetre').map(({ sections }) => sections),
  };
}

/** Within what a turning centre's pocket, bush and sub-spindle may stand, µm. */
export const turningGhosts = (judge: LimitSheet | undefined): TurningGhosts => ({
  turret: boundsOf(judge, 'turretOff').filter((bound) => bound > 0),
  bush: boundsOf(judge, 'bushOff').filter((bound) => bound > 0),
  sub: boundsOf(judge, 'subOff').filter((bound) => bound > 0),
});

/** Pictures of a mill at both bounds of each limit, for the ghost lines. */
export function millGhosts(judge: LimitSheet | undefined, factor: number): Required<MillGhosts> {
  const bounds = (name: keyof KnownMill) => boundsOf(judge, name).map((bound) => millPictureOf({ [name]: bound }, factor));
  return Object.fromEntries(MILL_FACTS.map((name) => [name, bounds(name)])) as Record<keyof KnownMill, MillPicture[]>;
}
