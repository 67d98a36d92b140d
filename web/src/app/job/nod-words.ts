import type { Instrument, NodWay } from '@isometra/core';
import type { Made } from '@isometra/contract';

type Strokes = NonNullable<Made['nod']>;
type Side = 'operator' | 'column';
const ANGLES: Readonly<Record<Side, number>> = { operator: 270, column: 90 };

/** A reading of a sweep, as far as its place matters. */
interface Row {
  readonly keys: Readonly<Record<string, unknown>>;
}

/**
 * What the two sides of the nod read in the latest zero that tells both, µm; null where no zero does. `valueOf` turns a
 * row into a deviation.
 */
export function nodSides<R extends Row>(rows: readonly R[], valueOf: (row: R) => number | null): Strokes['sides'][number] | null {
  const zeros = new Map<number, Map<number, number[]>>();
  for (const row of rows) {
    const value = valueOf(row);
    if (value === null) continue;
    const zero = zeros.get(Number(row.keys['zero'] ?? 1)) ?? new Map<number, number[]>();
    zeros.set(Number(row.keys['zero'] ?? 1), zero);
    const angle = Number(row.keys['angle']);
    zero.set(angle, [...(zero.get(angle) ?? []), value]);
  }
  const mean = (values: readonly number[] | undefined) =>
    values ? values.reduce((sum, value) => sum + value, 0) / values.length : undefined;
  const told = [...zeros]
    .sort(([a], [b]) => a - b)
    .flatMap(([, zero]) => {
      const [operator, column] = [mean(zero.get(ANGLES.operator)), mean(zero.get(ANGLES.column))];
      return operator === undefined || column === undefined ? [] : [{ operator, column }];
    });
  return told.at(-1) ?? null;
}

/** µm by which one reading of a dial may be off: what can be read of it, and a quarter of a division for repeating. */
export const doubtOfDial = ({ graduation, readTo }: Instrument): number => Math.hypot(0.29 * readTo * graduation, graduation / 4);

export const WAY_NAMES: Readonly<Record<NodWay['way'], string>> = {
  'one-move': 'One move past zero',
  classic: 'Side to zero, zero the other, again',
  halving: 'Half of it at the watched side',
};

/** "in after 3 rounds". */
export function roundsWords({ rounds, left }: NodWay): string {
  if (rounds === 0) return 'is in';
  if (rounds === null) return left.length > 1 ? 'not in a dozen rounds' : 'nothing can be promised';
  return rounds === 1 ? 'in after one round' : `in after ${rounds} rounds`;
}
