import type * as z from 'zod';
import { CHECKS, fieldInfo } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';

type Read = Pick<RoundHead, 'check' | 'conditions' | 'face'>;

/** What a condition was told as, and how it is said; a choice that was left out is the first one, as the form shows it. */
function told(
  { check, conditions }: Read,
  key: string,
): { readonly name: string; readonly words: string; readonly first: boolean } | undefined {
  const schema: z.ZodType | undefined = CHECKS.get(check)?.conditions.shape[key];
  const choices = schema && fieldInfo(schema)?.choices;
  const name = String(conditions[key] ?? choices?.[0]?.value ?? '').trim();
  if (!name) return undefined;
  return {
    first: name === choices?.[0]?.value,
    name: name.toLowerCase(),
    words: choices?.find(({ value }) => value === name)?.label ?? `${key} ${name}`,
  };
}

/** Names of what a round was read on, where its check has several like things (stations, castings); undefined where it was not said. */
const namesOf = (round: Read): (string | undefined)[] => [
  ...(CHECKS.get(round.check)?.apart ?? []).map((key) => told(round, key)?.name),
  // A face that was read in another plane stands for itself.
  ...(CHECKS.get(round.check)?.planesApart ? [round.face ?? 'top'] : []),
];

/** Which of several like things a round was read on: equal where it was the same, unnamed ones among themselves. */
export const thingOf = (round: Read): string => {
  const check = CHECKS.get(round.check);
  return check?.apart || check?.planesApart ? JSON.stringify(namesOf(round)) : '';
};

/** Whether two rounds were read on the same thing, as far as anybody said: two that were not named are the same. */
export const sameThing = (one: Read, other: Read): boolean => one.check === other.check && thingOf(one) === thingOf(other);

/** Whether nothing tells what two rounds were read on apart: what was not named may be any of them. */
export function mayBeSameThing(one: Read, other: Read): boolean {
  const others = namesOf(other);
  return one.check === other.check && namesOf(one).every((name, i) => name === undefined || others[i] === undefined || name === others[i]);
}

/** What a round was read on, in words: "station 3", "headstock"; empty where its check has one thing only, or nobody said. */
export const thingWords = (round: Read): string => wordsOf(round, CHECKS.get(round.check)?.apart);

function wordsOf(round: Read, keys: readonly string[] = []): string {
  const quiet = (key: string): boolean => (CHECKS.get(round.check)?.usually ?? []).includes(key) && told(round, key)?.first === true;
  return keys.flatMap((key) => (quiet(key) ? [] : (told(round, key)?.words ?? []))).join(', ');
}

/** The same with what else must not be drawn on one line: "the quill", "a centre". */
export function drawnWords(round: Read): string {
  const { apart = [], drawnApart = [] } = CHECKS.get(round.check) ?? {};
  return wordsOf(round, [...apart, ...drawnApart]);
}
