import { CHECKS, drift, effectOf, type PlannedChange } from '@isometra/core';
import type { QuantityHead, RoundHead } from '@isometra/contract';
import type { CampaignPlan } from './campaign.js';
import { groupedBy } from '../notebook/groupedBy.js';
import { asDone, disturbs, doneMoves, otherDone, type DoneMove } from '../notebook/doneMoves.js';
import type { LadderFacts } from './overdue.js';
import type { StaleReason } from './reasons.js';
import { reopens, type RegisterBase } from '../register/scope.js';
import { mayBeSameThing, thingOf } from '../notebook/things.js';

/** Quantities of a check, each as it was last said. */
export type Found = Readonly<Record<string, QuantityHead>>;

/** Whether a quantity of a check goes with a change of the spindle axis. */
function follows(checkId: string, change: PlannedChange): boolean {
  const effect = effectOf(change);
  return Object.values(CHECKS.get(checkId)?.quantities ?? {}).some((info) => drift(info, effect) !== 0);
}

export interface Past {
  readonly moves: readonly DoneMove[];
  readonly plan: CampaignPlan;
  readonly registers: readonly RegisterBase[];
}

/** Why the result of a round no longer counts: the first move done after it that upset it. */
function staleness(round: RoundHead, { moves, plan, registers }: Past): StaleReason | undefined {
  const { school, planned } = plan;
  const came = planned.find((entry) => entry.doneAt !== null && entry.doneAt > round.at && follows(round.check, entry.change));
  if (came) return { code: 'change-made', change: came.change.kind };
  // A move counts from when it was done: what was read since its card was begun was read in the middle of it.
  const later = moves.filter((move) => move.doneAt > round.at);
  // Of several like things only the one that was moved, where it was said which one.
  const disturbing = later.filter((move) => disturbs(move, round));
  const happened = disturbing.find(({ event }) => event !== undefined);
  if (happened?.event) return { code: 'event', event: happened.event };
  const own = disturbing.find(({ check }) => check.id === round.check);
  if (own) return { code: own.begunAt < round.at ? 'during-move' : 'moved' };
  if (disturbing.length) return { code: 'upset', check: disturbing[0].check.id };
  const used = moves.findLast(({ from, register }) => register && from && mayBeSameThing(from, round))?.register?.name;
  const carried = CHECKS.get(round.check)?.carried !== undefined;
  const changed = later.flatMap(({ register }) => (carried && register ? [register] : []));
  const base = changed.find((register) => reopens(register, round, used, registers));
  if (base) return { code: 'rebased', register: base.name };
  return school === 'top' && later.length ? { code: 'from-the-top', check: later[0].check.id } : undefined;
}

/** What a round is the latest word on, and why that no longer counts. */
export interface Part {
  readonly round: RoundHead;
  readonly found: Found;
  readonly stale: StaleReason | undefined;
}

/** One of several like things that a check is read on, as its rounds leave it: its latest round first. */
export type Thing = readonly [Part, ...Part[]];

/** What stands of a survey: finished moves, and of each check the things it was read on. */
export interface Standing {
  readonly moves: readonly DoneMove[];
  readonly things: ReadonlyMap<string, readonly Thing[]>;
}

/** The latest word on each quantity: what a later round did not read again still stands as it was read. */
function thingFrom(rounds: readonly RoundHead[], past: Past): Thing | undefined {
  const known = new Set<string>();
  const parts: Part[] = [];
  for (let i = rounds.length - 1; i >= 0; i -= 1) {
    const quantities = rounds[i].finding?.quantities ?? {};
    const fresh = Object.keys(quantities).filter((name) => !known.has(name));
    if (fresh.length === 0) continue;
    fresh.forEach((name) => known.add(name));
    // Without a verdict an older word decides nothing.
    const telling = parts.length ? fresh.filter((name) => quantities[name].verdict !== null) : fresh;
    const found = Object.fromEntries(telling.map((name) => [name, quantities[name]]));
    if (telling.length) parts.push({ round: rounds[i], found, stale: staleness(rounds[i], past) });
  }
  const [latest, ...older] = parts;
  return latest && [latest, ...older];
}

/** What has been done to a machine, as far as its rounds and what is on its card tell. */
function pastOf(rounds: readonly RoundHead[], plan: CampaignPlan, { registers = [], scraped, events }: LadderFacts): Past {
  const moves = [...doneMoves(rounds), ...otherDone({ scraped, events })].sort(asDone);
  return { moves, plan, registers };
}

/** Why what one round said no longer counts, whatever else was read since; undefined where it does. */
export const staleBy = (
  round: RoundHead,
  rounds: readonly RoundHead[],
  plan: CampaignPlan,
  facts: LadderFacts = {},
): StaleReason | undefined => staleness(round, pastOf(rounds, plan, facts));

export function standingOf(rounds: readonly RoundHead[], plan: CampaignPlan, facts: LadderFacts = {}): Standing {
  const past = pastOf(rounds, plan, facts);
  const telling = rounds.filter(({ finding }) => Object.keys(finding?.quantities ?? {}).length > 0);
  const byThing = groupedBy(telling, (round) => `${round.check} ${thingOf(round)}`);
  const things = [...byThing.values()].map((own) => thingFrom(own, past)).filter((thing) => thing !== undefined);
  return { moves: past.moves, things: groupedBy(things, ([{ round }]) => round.check) };
}
