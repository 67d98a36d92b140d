import type { RoundHead, StoredRound } from '@isometra/contract';

/** What the head of a mill does to its column: lean with it on less lean with it off, µm/m, with the doubt of the difference. */
export interface HeadWeight {
  readonly leanX?: number;
  readonly leanY?: number;
  readonly expanded: number;
  /** When both were read. */
  readonly on: string;
  readonly off: string;
}

/**
 * The weight of the head as it was measured: the last round with the head on against the last with it off, where no
 * move of the column was done between the two. Undefined where one of them is missing.
 *
 * @param rounds of the column on one machine, with their set-ups. @param heads the same, with what they found.
 */
export function measuredHeadWeight(
  rounds: readonly Pick<StoredRound, 'id' | 'at' | 'setup' | 'moves'>[],
  heads: readonly RoundHead[],
): HeadWeight | undefined {
  const last = (state: 'on' | 'off') =>
    rounds
      .filter(({ id, setup }) => (setup['head'] ?? 'on') === state && heads.some((head) => head.id === id && head.finding))
      .sort((one, other) => (one.at < other.at ? -1 : 1))
      .at(-1);
  const [on, off] = [last('on'), last('off')];
  if (!on || !off) return undefined;
  const [from, to] = on.at < off.at ? [on.at, off.at] : [off.at, on.at];
  if (rounds.some(({ moves }) => moves.some(({ doneAt }) => doneAt !== null && doneAt > from && doneAt < to))) return undefined;
  const foundIn = (id: string, name: string) => heads.find((head) => head.id === id)?.finding?.quantities[name];
  const told = ['leanX', 'leanY'].flatMap((name) => {
    const [one, other] = [foundIn(on.id, name), foundIn(off.id, name)];
    return one && other ? [{ name, value: one.value - other.value, expanded: Math.hypot(one.expanded ?? 0, other.expanded ?? 0) }] : [];
  });
  if (told.length === 0) return undefined;
  return {
    ...Object.fromEntries(told.map(({ name, value }) => [name, value])),
    expanded: Math.max(...told.map(({ expanded }) => expanded)),
    on: on.at,
    off: off.at,
  };
}
