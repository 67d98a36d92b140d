import { judgedBy, type LimitSheet } from '@isometra/core';
import { factSource } from '@isometra/work';
import { pictureOf, type KnownLathe, type Picture } from './picture';

/** Limits of a survey as ghost lines, in drawing units like the picture: where each known thing may stand at the most. */
export interface Ghosts {
  readonly plan: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  readonly side: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  /** The sections of a bed that is twisted as far as it may be, one way and the other. */
  readonly sections: readonly Picture['sections'][];
}

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
