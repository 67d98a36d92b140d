import { CHECKS, judgedBy, type LimitSheet } from '@isometra/core';
import { pictureOf, type KnownLathe, type Picture } from './picture';

/** Limits of a survey as ghost lines, in drawing units like the picture: where each known thing may stand at the most. */
export interface Ghosts {
  readonly plan: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  readonly side: { readonly tail: readonly number[]; readonly axisEnd: readonly number[] };
  /** The sections of a bed that is twisted as far as it may be, one way and the other. */
  readonly sections: readonly Picture['sections'][];
}

/** Pictures of a machine that stands at the bounds of one limit, and is otherwise true. */
function atBounds(judge: LimitSheet | undefined, check: string, quantity: string, known: keyof KnownLathe, factor: number): Picture[] {
  const definition = CHECKS.get(check);
  const zones = judge && definition ? judgedBy(judge, definition, {}, []).limits : {};
  const bounds = zones[quantity] ?? definition?.quantities[quantity].limit ?? [];
  return bounds.flatMap((bound) => (bound === null ? [] : [pictureOf({ [known]: bound }, factor)]));
}

/** The ghost lines of a lathe's picture. */
export function ghostsOf(judge: LimitSheet | undefined, factor: number): Ghosts {
  const at = (check: string, quantity: string, known: keyof KnownLathe) => atBounds(judge, check, quantity, known, factor);
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
