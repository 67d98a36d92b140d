import { CHECKS } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';

type Read = Pick<RoundHead, 'check' | 'conditions'>;

/** Names of what a round was read on, where its check has several like things (stations, flats); undefined where it was not said. */
const namesOf = ({ check, conditions }: Read): (string | undefined)[] =>
  (CHECKS.get(check)?.apart ?? []).map((key) => {
    const name = conditions[key];
    return name === undefined || name === '' ? undefined : String(name).trim().toLowerCase();
  });

/** Which of several like things a round was read on: equal where it was the same, unnamed ones among themselves. */
export const thingOf = (round: Read): string => (CHECKS.get(round.check)?.apart ? JSON.stringify(namesOf(round)) : '');

/** Whether two rounds were read on the same thing, as far as anybody said: two that were not named are the same. */
export const sameThing = (one: Read, other: Read): boolean => one.check === other.check && thingOf(one) === thingOf(other);

/** Whether nothing tells what two rounds were read on apart: what was not named may be any of them. */
export function mayBeSameThing(one: Read, other: Read): boolean {
  const others = namesOf(other);
  return one.check === other.check && namesOf(one).every((name, i) => name === undefined || others[i] === undefined || name === others[i]);
}

/** What a round was read on, in words: "station 3"; empty where its check has one thing only, or nobody said. */
export const thingWords = ({ check, conditions }: Read): string =>
  (CHECKS.get(check)?.apart ?? []).flatMap((key) => (conditions[key] ? [`${key} ${String(conditions[key]).trim()}`] : [])).join(', ');
