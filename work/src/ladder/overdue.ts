import type { CheckDefinition } from '@isometra/core';
import type { MachineCard, MachineCardText, RoundHead } from '@isometra/contract';
import { daysBetween, shopDay } from '../notebook/dates.js';
import type { OtherWork } from '../notebook/doneMoves.js';
import type { RegisterBase } from '../register/scope.js';

/** What a ladder takes from the clock and from the card of its machine. */
export interface LadderFacts {
  /** Now; left out, nothing is due again. */
  readonly now?: string;
  /** Time zone of the shop, by whose days it is counted; UTC where nobody has told it. */
  readonly zone?: string | null;
  /** Faces that were scraped, by the check that they are scraped true by: metal came off since it was read. */
  readonly scraped?: readonly { readonly check: string; readonly at: string }[];
  /** What happened to the whole machine: moved, crashed, taken apart. */
  readonly events?: OtherWork['events'];
  /** Registers of the control: which is built on which. */
  readonly registers?: readonly RegisterBase[];
  /** After how many days a check of this machine wants to be read again, where that is not the usual. */
  readonly again?: MachineCardText['readAgain'];
}

/** What a ladder takes from the card of its machine. */
export const ladderFacts = (card: MachineCard | undefined): Omit<LadderFacts, 'now' | 'zone'> => ({
  ...(card?.readAgain && { again: card.readAgain }),
  ...(Array.isArray(card?.['registers']) && { registers: card['registers'] as readonly RegisterBase[] }),
});

/**
 * Days after which a check wants to be read again although nothing was moved: by the card of the machine, in days or in hours of running,
 * whichever comes first; else the usual. Undefined where it stays good.
 */
export function goodForDays(
  { id, goodFor: usual }: Pick<CheckDefinition, 'id' | 'goodFor'>,
  again: LadderFacts['again'] = [],
): number | undefined {
  const own = again.find(({ check }) => check === id);
  if (!own) return usual;
  const { days = Infinity, hours = Infinity, perWeek = 0 } = own;
  const first = Math.min(days, perWeek > 0 ? Math.ceil((hours / perWeek) * 7) : Infinity);
  return Number.isFinite(first) ? first : usual;
}

/** Days of the calendar over the time after which a check wants to be read again. */
export function overdueBy(check: CheckDefinition, round: RoundHead, { now, zone = null, again }: LadderFacts): number | undefined {
  const goodFor = goodForDays(check, again);
  if (goodFor === undefined || now === undefined) return undefined;
  const days = daysBetween(shopDay(round.at, zone), shopDay(now, zone)) - goodFor;
  return days > 0 ? days : undefined;
}
