type Column = ReadonlyMap<string, number>;

/** Variables of a linear program that may be below zero: it knows none, so that each is the difference of two. */
export function freeVariables(columns: Readonly<Record<string, Column>>): Map<string, Map<string, number>> {
  return new Map(
    Object.entries(columns).flatMap(([name, column]) =>
      ([1, -1] as const).map((sign) => [`${name}${sign}`, new Map([...column].map(([row, value]) => [row, sign * value]))] as const),
    ),
  );
}

/** What a free variable came to in the solution of its program. */
export const freeValue = (found: Column, name: string): number => (found.get(`${name}1`) ?? 0) - (found.get(`${name}-1`) ?? 0);
