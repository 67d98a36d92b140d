import type { CheckDefinition } from '@isometra/core';
import { reallyMoved, staleWords, type OldNews } from '@isometra/work';
import { callSentence, moveWords, type Shown } from './say';

/** How the words of a round that is history are filled in. */
export interface OldFacts {
  readonly check: CheckDefinition;
  readonly shown: Shown;
  /** A date as the shop writes it. */
  readonly day: (at: string) => string;
  /** The number of a round among those of its check. */
  readonly number: (round: { readonly id: string; readonly number: number }) => number;
}

/** Why a round is history, in its first line: what came after it, when, by whom, with what result. */
export function oldWords(old: OldNews, { check, shown, day, number }: OldFacts): string {
  switch (old.code) {
    case 'later-round': {
      const { round } = old;
      const said = Object.entries(round.finding?.quantities ?? {}).flatMap(([name, found]) =>
        found.verdict === null || !check.quantities[name] ? [] : [callSentence(found, check.quantities[name], shown)],
      );
      return [`This is history: round ${number(round)} was read on ${day(round.at)} by ${round.by}.`, ...said].join(' ');
    }
    case 'moved': {
      const { move } = old;
      const info = check.quantities[move.quantity];
      const amount = reallyMoved(move);
      const size = moveWords(amount, info, shown);
      return `This round is history: its move was done on ${day(move.doneAt ?? move.begunAt)} by ${move.by}, ${size}. A new round shows what it did.`;
    }
    case 'stale':
      return `This is history: ${staleWords(old.reason)}.`;
    case 'ended':
      return `This is history: its survey, “${old.survey.title}”, ended on ${day(old.survey.endedAt ?? '')}.`;
  }
}

/** Where what counts now is: the round that took the place of one that is history, its survey, or a new round. */
export function whereNow(
  old: OldNews,
  { machineId, check }: { readonly machineId: string; readonly check: string },
  number: OldFacts['number'],
) {
  const bench = ['/machines', machineId, 'bench', check];
  if (old.code === 'later-round') return { link: [...bench, old.round.id], to: `To round ${number(old.round)}` };
  return old.code === 'ended' ? { link: ['/machines', machineId, 'survey'], to: 'To the survey' } : { link: bench, to: 'New round' };
}
