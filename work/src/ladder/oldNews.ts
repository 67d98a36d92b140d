import type { MoveWrite, RoundHead } from '@isometra/contract';
import type { Campaign } from './campaign.js';
import { isMade } from '../notebook/doneMoves.js';
import type { StaleReason } from './reasons.js';
import { sameThing } from '../notebook/things.js';

/** Why a round is history: nothing is done by what it says any more. */
export type OldNews =
  | { readonly code: 'later-round'; readonly round: RoundHead }
  | { readonly code: 'moved'; readonly move: MoveWrite }
  | { readonly code: 'ended'; readonly survey: Pick<Campaign, 'title' | 'endedAt'> }
  | { readonly code: 'stale'; readonly reason: StaleReason };

/** Whether nothing at all is done by it any more: another round or another survey has taken its place. */
export const isPast = ({ code }: OldNews): boolean => code === 'later-round' || code === 'ended';

/** What is known around a round. */
export interface Around {
  /** All rounds of the machine, oldest first. */
  readonly rounds: readonly RoundHead[];
  /** Its survey; undefined where it is not known yet. */
  readonly survey: Pick<Campaign, 'title' | 'endedAt'> | undefined;
  /** Why its result no longer counts, as the ladder says it. */
  readonly stale: StaleReason | undefined;
}

/**
 * Why a round is history, the reason that leads farthest first: it was read again since, its own move was done, something else upset it,
 * its survey has ended. Undefined for one that still tells what to do.
 */
export function oldNews(round: RoundHead, { rounds, survey, stale }: Around): OldNews | undefined {
  const later = rounds.findLast(
    (other) => other.at > round.at && sameThing(other, round) && Object.keys(other.finding?.quantities ?? {}).length > 0,
  );
  if (later) return { code: 'later-round', round: later };
  const move = round.moves.filter(isMade).at(-1);
  if (move) return { code: 'moved', move };
  if (stale) return { code: 'stale', reason: stale };
  return survey && survey.endedAt !== null ? { code: 'ended', survey } : undefined;
}
