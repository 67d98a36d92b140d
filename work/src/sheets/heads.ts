import type { RoundHead, StoredRound } from '@isometra/contract';
import { howRead } from './senses.js';
import { placesLeft, type Taken } from './slots.js';
import { findingHead, type Solved } from './sheet.js';

/** A round in short, with what a solving of its sheet said. */
export function headOf(round: StoredRound, { finding }: Pick<Solved, 'finding'>, sheet: unknown): RoundHead {
  const { id, machineId, surveyId, check, number, instrumentName, conditions, by, at, version, moves } = round;
  return {
    ...{ id, machineId, surveyId, check, number, instrumentName, conditions, by, at, version, moves },
    last: round.readings.reduce((most, { sequence }) => Math.max(most, sequence), 0),
    ...howRead(check, round),
    ...halfRead(round, round.readings),
    finding: finding && findingHead(finding, sheet),
    ...(round.ahead && { ahead: true as const }),
    ...(round.struck && { struck: round.struck }),
  };
}

/** What a head tells of a round that was left half way; nothing of one that was read to its end. */
export function halfRead(round: Parameters<typeof placesLeft>[0], readings: readonly Taken[]): Pick<RoundHead, 'unread'> {
  const unread = placesLeft(round, readings);
  return unread > 0 ? { unread } : {};
}

/** Whether one head tells of more than another of the same round: it was changed later, or has more readings. */
export const tellsMore = (one: RoundHead, other: RoundHead): boolean =>
  one.version === other.version ? one.last > other.last : one.version > other.version;
