import { CHECKS, judgedBy, type LimitSheet } from '@isometra/core';
import { pictureOf, type KnownLathe, type Picture } from './picture';

/** Limits of a survey as ghost lines, in drawing units like the picture: where each known thing may stand at the most. */
export interface Ghosts {
  readonly plan: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  readonly side: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  /** The sections of a bed that is twisted as far as it may be, one way and the other. */
  readonly sections: readonly Picture['sections'][];
}

/** The bounds of one limit by a sheet, or the check's own; a side without a bound is left out. */
export function boundsOf(judge: LimitSheet | undefined, check: string, quantity: string): number[] {
  const definition = CHECKS.get(check);
  const zones = judge && definition ? judgedBy(judge, definition, {}, []).limits : {};
  const zone = zones[quantity] ?? definition?.quantities[quantity].limit ?? [];
  return zone.filter((bound) => bound !== null);
}

/** The ghost lines of a lathe's picture. */
export function ghostsOf(judge: LimitSheet | undefined, factor: number): Ghosts {
  /** The machine as it stands at each bound of one limit, and is otherwise true. */
  const at = (check: string, quantity: string, known: keyof KnownLathe): Picture[] =>
    boundsOf(judge, check, quantity).map((bound) => pictureOf({ [known]: bound }, factor));
  return {
    plan: {
      tail: at('tailstock-traverse', 'offsetHorizontal', 'tailH').map(({ plan }) => plan.tail),
      axisEnd: at('spindle-axis', 'slopeH', 'axisSlopeH').map(({ plan }) => plan.axisEnd),
    },
    side: {
      tail: at('tailstock-traverse', 'offsetVertical', 'tailV').map(({ side }) => side.tail),
      axisEnd: at('spindle-axis', 'slopeV', 'axisSlopeV').map(({ side }) => side.axisEnd),
    },
    sections: at('bed-twist', 'twistPerMetre', 'twistPerMetre').map(({ sections }) => sections),
  };
}
