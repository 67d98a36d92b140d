import { CHECKS, differences } from '@isometra/core';
import type { MoveWrite, QuantityHead, RoundHead } from '@isometra/contract';
import { drawnWords } from '../notebook/things.js';
import { counts } from '../notebook/ruling.js';

/** One side of a comparison: what a survey found first of everything, or what it left behind. */
export interface Side {
  readonly surveyId: string;
  readonly when: 'found' | 'left';
}

/** A quantity as one side has it. */
export interface Seen {
  readonly round: RoundHead;
  readonly quantity: QuantityHead;
}

/** One quantity on both sides. */
export interface Compared {
  readonly check: string;
  /** Which of several like things: "station 3"; empty where there is one. */
  readonly thing: string;
  /** Its name among the quantities of the check. */
  readonly name: string;
  readonly from: Seen | null;
  readonly to: Seen | null;
  /** Later minus earlier, in the unit of the quantity, with U of the difference; null where it was read on one side only, or once. */
  readonly change: { readonly by: number; readonly expanded: number | null; readonly sure: boolean } | null;
  /** Conditions under which the two were read that differ, in words. */
  readonly unlike: readonly string[];
  /** Moves of this quantity that were done between the two. */
  readonly moves: readonly MoveWrite[];
}

const placeOf = (round: RoundHead, name: string): string => JSON.stringify([round.check, drawnWords(round), name]);

/** The first, or the last, round of a survey that says something of each quantity; one read to its end before one that was not. */
function seenBy(rounds: readonly RoundHead[], { surveyId, when }: Side): ReadonlyMap<string, Seen> {
  const seen = new Map<string, Seen>();
  const own = rounds.filter((round) => round.surveyId === surveyId && counts(round)).sort((one, other) => one.at.localeCompare(other.at));
  // What is written last stands: the round that is wanted comes last, and one that was not read to its end never over one that was.
  for (const round of when === 'left' ? own : own.reverse())
    for (const [name, quantity] of Object.entries(round.finding?.quantities ?? {})) {
      const place = placeOf(round, name);
      if (round.unread && seen.has(place) && !seen.get(place)?.round.unread) continue;
      seen.set(place, { round, quantity });
    }
  return seen;
}

/** U of a difference of two results that were read by themselves. */
const expandedOf = (from: QuantityHead, to: QuantityHead): number | null =>
  from.expanded === null || to.expanded === null ? null : Math.hypot(from.expanded, to.expanded);

function changeOf(from: Seen | null, to: Seen | null): Compared['change'] {
  if (!from || !to || from.round.id === to.round.id || from.quantity.unit !== to.quantity.unit) return null;
  const by = to.quantity.value - from.quantity.value;
  const expanded = expandedOf(from.quantity, to.quantity);
  return { by, expanded, sure: expanded !== null && Math.abs(by) > expanded };
}

function movesBetween(rounds: readonly RoundHead[], check: string, name: string, span: readonly [string, string]): readonly MoveWrite[] {
  const [begin, end] = [...span].sort();
  return rounds
    .filter((round) => round.check === check)
    .flatMap(({ moves }) => moves)
    .filter(({ quantity, doneAt }) => quantity === name && doneAt !== null && doneAt >= begin && doneAt <= end)
    .sort((one, other) => (one.doneAt ?? '').localeCompare(other.doneAt ?? ''));
}

/**
 * Every judged quantity of a machine as two surveys have it, or as one has it first and last.
 *
 * @param rounds of the machine.
 * @param order the checks in the order in which they are shown; others come after them.
 */
export function compared(rounds: readonly RoundHead[], from: Side, to: Side, order: readonly string[]): readonly Compared[] {
  const [before, after] = [seenBy(rounds, from), seenBy(rounds, to)];
  const rank = (check: string): number => (order.includes(check) ? order.indexOf(check) : order.length);
  const places = [...new Set([...before.keys(), ...after.keys()])].map(
    (place) => [place, JSON.parse(place) as [string, string, string]] as const,
  );
  return places
    .filter(([, [check, , name]]) => CHECKS.get(check)?.quantities[name]?.limit)
    .map(([place, [check, thing, name]]): Compared => {
      const [one, other] = [before.get(place) ?? null, after.get(place) ?? null];
      const both = one && other && one.round.id !== other.round.id ? ([one, other] as const) : null;
      return {
        ...{ check, thing, name, from: one, to: other, change: changeOf(one, other) },
        unlike: both ? differences(both[0].round.conditions, both[1].round.conditions) : [],
        moves: both ? movesBetween(rounds, check, name, [both[0].round.at, both[1].round.at]) : [],
      };
    })
    .sort((one, other) => rank(one.check) - rank(other.check) || one.thing.localeCompare(other.thing));
}
