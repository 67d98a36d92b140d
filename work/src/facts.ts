import { CHECKS, type CheckDefinition, type HeightAt } from '@isometra/core';
import type { QuantityHead, RoundHead } from '@isometra/contract';
import { groupedBy } from './groupedBy.js';
import { sameThing, thingOf, thingWords } from './things.js';

/** One thing known of a machine: which check and quantity told it last, and what it said. */
export interface KnownFact {
  readonly check: CheckDefinition;
  readonly quantity: string;
  readonly round: RoundHead;
  readonly found: QuantityHead;
}

/** Checks that make something known, in working order: the first that has been read tells it. */
const sources = (name: string): { readonly check: CheckDefinition; readonly quantity: string }[] =>
  [...CHECKS.values()].flatMap((check) =>
    (check.knows ?? []).filter((fact) => fact.name === name).map(({ quantity }) => ({ check, quantity })),
  );

/** What is known of a machine by its latest rounds: the axis, the twist, where the tailstock stands. */
export function factOf(rounds: readonly RoundHead[], name: string): KnownFact | undefined {
  for (const { check, quantity } of sources(name)) {
    const round = rounds.filter((entry) => entry.check === check.id && entry.finding?.quantities[quantity]).at(-1);
    const found = round?.finding?.quantities[quantity];
    if (round && found) return { check, quantity, round, found };
  }
  return undefined;
}

/** The values of some facts; what nobody has measured is left out. */
export function factsOf<Name extends string>(rounds: readonly RoundHead[], names: readonly Name[]): Partial<Record<Name, number>> {
  const known = names.flatMap((name) => {
    const fact = factOf(rounds, name);
    return fact ? [[name, fact.found.value] as const] : [];
  });
  return Object.fromEntries(known) as Partial<Record<Name, number>>;
}

/** Rounds of several like things of a machine, each thing by its name, its rounds oldest first; the one that was read last stands last. */
function eachThing(telling: readonly RoundHead[]): { readonly name: string; readonly rounds: readonly RoundHead[] }[] {
  const place = new Map(telling.map((round, i) => [round, i]));
  const last = (rounds: readonly RoundHead[]): number => place.get(rounds[rounds.length - 1]) ?? 0;
  return [...groupedBy(telling, thingOf).values()]
    .sort((one, other) => last(one) - last(other))
    .map((rounds) => ({ name: thingWords(rounds[0]), rounds }));
}

/** Facts of several like things apart (each pocket of a turret): of each its own latest word. */
export function factsOfEach<Name extends string>(
  rounds: readonly RoundHead[],
  names: readonly Name[],
): { readonly name: string; readonly facts: Partial<Record<Name, number>> }[] {
  const told = names.flatMap(sources);
  const tells = (round: RoundHead): boolean =>
    told.some(({ check, quantity }) => check.id === round.check && round.finding?.quantities[quantity]);
  return eachThing(rounds.filter(tells)).map((thing) => ({ name: thing.name, facts: factsOf(thing.rounds, names) }));
}

/** The check and the quantity that a limit on a fact stands for: the first that makes it known. */
export const factSource = (name: string): { readonly check: CheckDefinition; readonly quantity: string } | undefined => sources(name)[0];

/** The check that makes a profile known. */
export const profileCheck = (name: string): CheckDefinition | undefined =>
  [...CHECKS.values()].find(({ knowsProfile }) => knowsProfile?.name === name);

const tellsProfile =
  (name: string) =>
  (round: RoundHead): boolean =>
    CHECKS.get(round.check)?.knowsProfile?.name === name && round.finding?.profile !== undefined;

/** The latest round that told a profile. */
export const profileRound = (rounds: readonly RoundHead[], name: string): RoundHead | undefined => rounds.findLast(tellsProfile(name));

/** The latest profile of each like thing (each way of a bed): heights along it, µm over mm; the one that was read last stands last. */
export const profilesOf = (
  rounds: readonly RoundHead[],
  name: string,
): { readonly name: string; readonly heights: readonly HeightAt[] }[] =>
  eachThing(rounds.filter(tellsProfile(name))).map((thing) => ({ name: thing.name, heights: thing.rounds.at(-1)?.finding?.profile ?? [] }));

/** Whether all that a round told is told again by another of the same check on the same thing. */
const toldAgain = (before: RoundHead, now: RoundHead): boolean =>
  sameThing(before, now) &&
  Object.keys(before.finding?.quantities ?? {}).every((name) => now.finding?.quantities[name]) &&
  (!before.finding?.profile || now.finding?.profile !== undefined);

/**
 * What is known after each of many rounds, oldest first: the few rounds that still tell something then.
 * Every fact of them is that of all the rounds so far, at the cost of the checks there are, not of the rounds.
 */
export function* tellingAfterEach(rounds: readonly RoundHead[]): Generator<readonly RoundHead[]> {
  let telling: readonly RoundHead[] = [];
  for (const round of rounds) {
    telling = [...telling.filter((before) => !toldAgain(before, round)), round];
    yield telling;
  }
}
