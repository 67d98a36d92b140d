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

/** What a round leaves of the difference, the classic way and halving; nothing is promised where the pin lies within the sweep. */
export const nodFactors = (pivot: number, radius: number): { readonly classic: number; readonly halving: number } | undefined =>
  pivot > radius ? { classic: (pivot - radius) / (pivot + radius), halving: pivot / (pivot + radius) } : undefined;

/** Rounds that go on dividing the error by the same factor, until it is within the limit; null when it never gets there. */
export function roundsFor(error: number, limit: number, factor: number | undefined): number | null {
  if (error <= limit) return 0;
  if (factor === undefined || !(Math.abs(factor) < 1)) return null;
  if (factor === 0) return 1;
  return Math.ceil(Math.log(limit / error) / Math.log(Math.abs(factor)) - 1e-9);
}

/** Within what the difference of the sides lands after the one move, µm: the doubt of the pin, and of one reading. */
export const nodLanding = (
  difference: number,
  { pivot, doubt }: { readonly pivot: number; readonly doubt: number },
  radius: number,
  reading: number,
): number => Math.hypot((difference * doubt) / (pivot + radius), reading);

/** The difference now and after each round, as many as are worth drawing. */
function falling(difference: number, factor: number | undefined, within: number): Pick<NodWay, 'rounds' | 'left'> {
  const needed = roundsFor(Math.abs(difference), within, factor);
  const drawn = factor === undefined ? 0 : Math.min(needed ?? MOST, MOST);
  const left = Array.from({ length: drawn + 1 }, (_, round) => difference * (factor ?? 1) ** round);
  return { rounds: needed !== null && needed <= MOST ? needed : null, left };
}

/**
 * Three ways to the same nod: one move with the pivot known; the classic one (operator's side to zero, column side zeroed
 * by the table, again), which leaves (P − R)/(P + R) each round; halving at the watched side, which leaves P/(P + R).
 * Source: docs/methods/moves.md.
 */
export function nodWays({ radius, pivot, now, limit, aim = 0 }: NodFacts): NodWay[] {
  const difference = now.operator - now.column - (2 * radius * aim) / 1000;
  const within = (2 * radius * limit) / 1000;
  const factors = nodFactors(pivot, radius);
  return [
    { way: 'one-move', ...falling(difference, 0, within) },
    { way: 'classic', ...falling(difference, factors?.classic, within) },
    { way: 'halving', ...falling(difference, factors?.halving, within) },
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
