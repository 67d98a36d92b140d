import { CHECKS } from '@isometra/core';
import type { QuantityHead, RoundHead } from '@isometra/contract';
import { defaultPlan, type CampaignPlan } from './campaign.js';
import type { LadderFacts } from './overdue.js';
import { standingOf, type Thing } from './standing.js';
import { sameThing, thingWords } from '../notebook/things.js';

/** Another like thing, "station 5", and when it was last read. */
export interface Other {
  readonly name: string;
  readonly at: string;
}

/** What the others of several like things say of one that stands off. */
export interface OthersSay {
  /** Those that stand off as it does. */
  readonly alike: readonly Other[];
  /** Those that do not. */
  readonly apart: readonly Other[];
}

/** The last word of a thing on a quantity, where nothing was moved since. */
function wordOf(thing: Thing, quantity: string): { readonly round: RoundHead; readonly found: QuantityHead } | undefined {
  for (const { round, stale } of thing) {
    const found = round.finding?.quantities[quantity];
    if (found) return stale ? undefined : { round, found };
  }
  return undefined;
}

/**
 * Whether what stands off is one of several like things (the plate of a station) or all that carries them (the turret): by
 * the others, as they were last read in the survey and not moved since. Two stand alike within what such a thing may be off,
 * or within their doubts where those are larger.
 *
 * @param rounds of the survey, oldest first.
 * @returns undefined where nothing carries such things.
 */
export function othersSay(
  round: RoundHead,
  quantity: string,
  rounds: readonly RoundHead[],
  plan: CampaignPlan = defaultPlan(''),
  facts: LadderFacts = {},
): OthersSay | undefined {
  const check = CHECKS.get(round.check);
  const own = round.finding?.quantities[quantity];
  if (!check?.apart || !check.part?.carries?.alone || !own) return undefined;
  const most = Math.max(0, ...Object.values(round.finding?.quantities ?? {}).map(({ limit }) => limit?.[1] ?? 0));
  const words = (standingOf(rounds, plan, facts).things.get(check.id) ?? [])
    .filter(([{ round: other }]) => !sameThing(other, round))
    .flatMap((thing) => wordOf(thing, quantity) ?? []);
  const named = (stands: boolean): Other[] =>
    words
      .filter(({ found }) => {
        const room = Math.max(most, Math.hypot(own.expanded ?? 0, found.expanded ?? 0));
        return Math.abs(found.value - own.value) <= room === stands;
      })
      .map(({ round: { at, ...other } }) => ({ name: thingWords(other) || 'another one', at }));
  return { alike: named(true), apart: named(false) };
}
