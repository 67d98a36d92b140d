import { FaultError, meanPivot, planFor, tramPivot } from '@isometra/core';
import type { Made, RoundHead } from '@isometra/contract';

type Strokes = NonNullable<Made['nod']>;

/** What a run of strokes says of where the nod pivot lies. */
export interface FoundPivot {
  /** mm behind the spindle, with its doubt. */
  readonly pivot: number;
  readonly doubt: number;
  /** The difference was no larger than its own doubt: it teaches nothing. */
  readonly tooSmall: boolean;
}

/** Where the pivot lies by strokes in which nothing was tightened and the table was left alone; undefined while nothing changed. */
export function pivotFrom({ radius, doubt, sides }: Strokes): FoundPivot | undefined {
  const rounds = sides.slice(1).map((after, i) => ({ before: sides[i], after }));
  if (rounds.length === 0) return undefined;
  try {
    return planFor(tramPivot, { radius, rounds, doubt });
  } catch (error) {
    if (error instanceof FaultError) return undefined;
    throw error;
  }
}

/** Where this machine's nod pivot lies by all the strokes that were written down on it, each weighed by its doubt. */
export function learnedPivot(rounds: readonly RoundHead[]): { readonly pivot: number; readonly doubt: number } | undefined {
  const found = rounds
    .flatMap(({ moves }) => moves.flatMap(({ made }) => (made?.nod ? [pivotFrom(made.nod)] : [])))
    .flatMap((one) => (one && !one.tooSmall && one.pivot > 0 ? [one] : []));
  return meanPivot(found);
}
