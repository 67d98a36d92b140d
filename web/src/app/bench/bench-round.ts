import { effectOnWork, parseQuantity, type Finding, type Values } from '@isometra/core';
import type { ReadingWrite, StoredReading, StoredRound } from '@isometra/contract';

/** What becomes of readings whose place was changed: read at another place, or withdrawn; and why. */
export interface Superseded {
  readonly at?: number;
  readonly withdrawn?: true;
  readonly why: string;
}

/** A reading in place of another that no longer stands. */
export function superseding(
  { id, keys, value, set }: StoredReading,
  { at, withdrawn, why }: Superseded,
): Pick<ReadingWrite, 'keys' | 'value' | 'set' | 'supersedes' | 'why'> {
  return { keys: at === undefined ? keys : { ...keys, at }, value: withdrawn ? null : value, set, supersedes: id, why };
}

/** What the finding does to the work that the round was read for. */
export function workDone(finding: Finding | null, round: StoredRound | null, setup: Values) {
  const purpose = round?.purpose;
  if (!finding || !purpose) return [];
  const size = (raw: unknown) => {
    const parsed = raw === undefined ? undefined : parseQuantity(raw, 'length');
    return parsed?.ok ? parsed.value : undefined;
  };
  return effectOnWork(finding, {
    kind: purpose.kind,
    length: size(purpose.length),
    diameter: size(purpose.diameter),
    centreDistance: setup['centreDistance'] as number | undefined,
  });
}
