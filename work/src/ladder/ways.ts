import type { CheckDefinition, Quantity, QuantityInfo, Way } from '@isometra/core';
import type { FindingHead } from '@isometra/contract';

/** The way an arrow points for a value that is out: to the side of its zone on which it lies, which need not be that of its sign. */
export function wayOut({ value, limit }: Pick<Quantity, 'value' | 'limit'>, info: QuantityInfo): Way | null {
  const [low, high] = limit ?? [null, null];
  if (low !== null && value < low) return info.words?.arrow?.[1] ?? null;
  return high !== null && value > high ? (info.words?.arrow?.[0] ?? null) : null;
}

/** The way the arrow of a whole round points: that of its first value that is out. */
export function wayOfFinding(finding: Pick<FindingHead, 'quantities'> | null | undefined, check: CheckDefinition | undefined): Way | null {
  const out = Object.entries(finding?.quantities ?? {}).find(([, { verdict }]) => verdict === 'out');
  return out && check ? wayOut(out[1], check.quantities[out[0]]) : null;
}
