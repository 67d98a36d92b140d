/** What the two sides of the spindle read, µm, + closer. */
export interface Sides {
  readonly operator: number;
  readonly column: number;
}

/** A head that nods on a pin behind the spindle, and what is wanted of it. */
export interface NodFacts {
  /** Radius of the sweep, and distance of the pin behind the spindle, mm. */
  readonly radius: number;
  readonly pivot: number;
  readonly now: Sides;
  /** Nod to go to, µm/m: 0 is square. */
  readonly aim?: number;
  /** µm/m either way that is still in. */
  readonly limit: number;
}

/** One way to bring the nod down: what is left of the difference between the sides after each round, µm. */
export interface NodWay {
  readonly way: 'one-move' | 'classic' | 'halving';
  /** Rounds until it is in; null where it never gets there. */
  readonly rounds: number | null;
  /** Difference of the sides now and after each round. */
  readonly left: readonly number[];
}

const MOST = 12;

/** Nod of two sides, µm/m, + the top toward the operator. */
export const nodOf = ({ operator, column }: Sides, radius: number): number => (1000 * (operator - column)) / (2 * radius);

/** What one side must read, the table left alone, for the nod to come to its aim: both sides fall, by P + R and by P − R. */
export function nodTarget({ radius, pivot, now, aim = 0 }: NodFacts): Sides {
  const turn = (nodOf(now, radius) - aim) / 1000;
  return { operator: now.operator - turn * (pivot + radius), column: now.column - turn * (pivot - radius) };
}

/** How far each side goes until then, µm: a dial that cannot follow needs preload, the other side, or two strokes. */
export function nodTravel(facts: NodFacts): Sides {
  const target = nodTarget(facts);
  return { operator: Math.abs(target.operator - facts.now.operator), column: Math.abs(target.column - facts.now.column) };
}

/** Rounds that leave the difference multiplied by `factor` each time; none is predicted without one. */
function falling(difference: number, factor: number | null, within: number): Pick<NodWay, 'rounds' | 'left'> {
  if (factor === null) return { rounds: Math.abs(difference) <= within ? 0 : null, left: [difference] };
  const left = [difference];
  while (Math.abs(left[left.length - 1]) > within && left.length <= MOST) left.push(left[left.length - 1] * factor);
  const arrives = Math.abs(left[left.length - 1]) <= within;
  return { rounds: arrives ? left.length - 1 : null, left };
}

/**
 * Three ways to the same nod: one move with the pivot known; the classic one (operator's side to zero, column side zeroed
 * by the table, again), which leaves (P − R)/(P + R) each round; halving at the watched side, which leaves P/(P + R).
 * Source: docs/methods/moves.md.
 */
export function nodWays({ radius, pivot, now, limit, aim = 0 }: NodFacts): NodWay[] {
  const difference = now.operator - now.column - (2 * radius * aim) / 1000;
  const within = (2 * radius * limit) / 1000;
  const beyond = pivot > radius;
  return [
    { way: 'one-move', ...falling(difference, 0, within) },
    { way: 'classic', ...falling(difference, beyond ? (pivot - radius) / (pivot + radius) : null, within) },
    { way: 'halving', ...falling(difference, beyond ? pivot / (pivot + radius) : null, within) },
  ];
}

/** A pivot that was learned: several findings of it, each with its doubt, weighed by that. */
export function meanPivot(
  found: readonly { readonly pivot: number; readonly doubt: number }[],
): { pivot: number; doubt: number } | undefined {
  const sure = found.filter(({ pivot, doubt }) => Number.isFinite(pivot) && doubt > 0);
  if (sure.length === 0) return undefined;
  const weight = sure.reduce((sum, { doubt }) => sum + 1 / doubt ** 2, 0);
  return { pivot: sure.reduce((sum, { pivot, doubt }) => sum + pivot / doubt ** 2, 0) / weight, doubt: 1 / Math.sqrt(weight) };
}
