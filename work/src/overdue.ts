import type { CheckDefinition } from '@isometra/core';
import type { MachineCardText, RoundHead } from '@isometra/contract';

const DAY = 86_400_000;

/** What grows old by time. */
export interface Time {
  /** Now; left out, nothing is due again. */
  readonly now?: string;
  /** After how many days a check of this machine wants to be read again, where that is not the usual. */
  readonly again?: MachineCardText['readAgain'];
}

/** Days over the time after which a check wants to be read again. */
export function overdueBy({ id, goodFor: usual }: CheckDefinition, round: RoundHead, { now, again = [] }: Time): number | undefined {
  const goodFor = again.find(({ check }) => check === id)?.days ?? usual;
  if (goodFor === undefined || now === undefined) return undefined;
  const days = Math.floor((Date.parse(now) - Date.parse(round.at)) / DAY) - goodFor;
  return days > 0 ? days : undefined;
}
