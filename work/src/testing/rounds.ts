import type { ReadingWrite, RoundFinding, RoundHead, StoredReading, StoredRound } from '@isometra/contract';
import { headOf as workedHead } from '../sheets/heads.js';
import { sheetOf, solveWhatStands } from '../sheets/sheet.js';
import { Diary } from './heads.js';

/** A round with what it says. */
export type SolvedRound = StoredRound & RoundFinding;

export const reading = (
  id: string,
  value: string | null,
  supersedes: string | null = null,
  keys: ReadingWrite['keys'] = { plane: 'h', at: 20 },
): ReadingWrite => ({ id, keys, value, set: 1, supersedes, why: supersedes && 'misread', by: 'AB', at: Diary.at(1) });

export const stored = (readings: readonly ReadingWrite[], roundId = 'r'): StoredReading[] =>
  readings.map((entry, sequence) => ({ ...entry, roundId, sequence }));

export const BETWEEN_CENTRES = {
  check: 'tailstock-traverse',
  setup: { centreDistance: '400 mm' },
  plan: {},
  instrument: { kind: 'lever', graduation: '1 um', sense: 1 },
  conditions: {},
};

let made = 0;

/** A round between centres, solved: the tailstock stands so far off, µm. */
export function tailstockRound(offset: number, part: Partial<SolvedRound> = {}): SolvedRound {
  made += 1;
  const id = `round-${made}`;
  const base = { ...BETWEEN_CENTRES, ...part };
  const readings = stored([reading(`${id}a`, '0'), reading(`${id}b`, `${offset * 0.95}`, null, { plane: 'h', at: 400 })], id);
  const solved = solveWhatStands(sheetOf(base, readings));
  return {
    ...{ id, machineId: 'm', surveyId: 's', number: made, instrumentName: null, purpose: null, by: 'HB', at: Diary.at(made), version: 1 },
    ...{ moves: [], coreVersion: '1', readings, ...solved },
    ...base,
  };
}

/** The head of a round, as a list has it. */
export const headOf = (round: SolvedRound): RoundHead => workedHead(round, round, sheetOf(round, round.readings));
