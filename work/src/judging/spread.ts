import { CHECKS, poolSpreads, reseats, type SetupSpread } from '@isometra/core';
import type { FindingHead, RoundHead } from '@isometra/contract';

/** How far the set-ups of one round lay apart, one group for each quantity that had several. */
const groupsOf = (finding: FindingHead | null): SetupSpread[] =>
  Object.values(finding?.quantities ?? {}).flatMap(({ setUps }) => setUps ?? []);

/** How far set-ups of a check lay apart on this machine, pooled over its rounds; undefined where no round had two. */
export function learnedSpread(check: string, heads: readonly RoundHead[]): SetupSpread | undefined {
  const groups = heads.filter((head) => head.check === check).flatMap(({ finding }) => groupsOf(finding));
  return groups.length ? poolSpreads(groups) : undefined;
}

/** What the rounds of its check before a round have taught of setting up; undefined where they taught nothing. */
export const spreadBefore = ({ check, at }: Pick<RoundHead, 'check' | 'at'>, heads: readonly RoundHead[]): SetupSpread | undefined =>
  learnedSpread(
    check,
    heads.filter((head) => head.at < at),
  );

/**
 * For every round of a machine what the rounds of its check before it have taught of setting up; undefined where they taught nothing,
 * and where nothing is reseated.
 *
 * @param rounds oldest first.
 */
export function spreadsBefore(
  rounds: readonly { readonly check: string; readonly finding: FindingHead | null }[],
): readonly (SetupSpread | undefined)[] {
  const soFar = new Map<string, SetupSpread>();
  return rounds.map(({ check, finding }) => {
    const definition = CHECKS.get(check);
    if (!definition || !reseats(definition)) return undefined;
    const before = soFar.get(check);
    const groups = groupsOf(finding);
    if (groups.length) soFar.set(check, poolSpreads([...(before ? [before] : []), ...groups]));
    return before;
  });
}
