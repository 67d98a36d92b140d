import { CHECKS, type CheckDefinition, type HeightAt } from '@isometra/core';
import type { QuantityHead, RoundHead } from '@isometra/contract';
import { groupedBy } from '../notebook/groupedBy.js';
import { sameThing, thingOf, thingWords } from '../notebook/things.js';

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

/**
 * What is known of a machine by its latest rounds: the axis, the twist, where the tailstock stands. The latest word counts, whichever
 * method said it; a round that cannot be trusted tells nothing as long as another one does.
 */
export function factOf(rounds: readonly RoundHead[], name: string): KnownFact | undefined {
  const told = sources(name);
  const tells = (round: RoundHead): KnownFact | undefined => {
    const source = told.find(({ check, quantity }) => check.id === round.check && round.finding?.quantities[quantity]);
    const found = source && round.finding?.quantities[source.quantity];
    return source && found && { ...source, round, found };
  };
  let last: KnownFact | undefined;
  for (let i = rounds.length - 1; i >= 0; i -= 1) {
    const fact = tells(rounds[i]);
    if (!fact) continue;
    if (!UNTRUSTED.some((code) => fact.found.because?.includes(code))) return fact;
    last ??= fact;
  }
  return last;
}
const UNTRUSTED = ['misread', 'closure', 'conditions-differ', 'reversal-open'];

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
