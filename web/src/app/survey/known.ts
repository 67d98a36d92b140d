import type { Round } from '@isometra/contract';

/** Where something known is read from: check and quantity, the first that has it wins. */
export type Sources<Name extends string> = Readonly<Record<Name, readonly (readonly [check: string, quantity: string])[]>>;

/** The latest word of the rounds on each of some things; what nobody has measured is left out. */
export function latestOf<Name extends string>(rounds: readonly Round[], sources: Sources<Name>): Partial<Record<Name, number>> {
  const latest = (check: string, quantity: string): number | undefined =>
    rounds
      .filter((round) => round.check === check)
      .map((round) => round.finding?.quantities[quantity]?.value)
      .filter((value) => value !== undefined)
      .at(-1);
  const known = Object.entries<Sources<Name>[Name]>(sources).flatMap(([name, places]) => {
    const value = places.map(([check, quantity]) => latest(check, quantity)).find((found) => found !== undefined);
    return value === undefined ? [] : [[name, value] as const];
  });
  return Object.fromEntries(known) as Partial<Record<Name, number>>;
}
