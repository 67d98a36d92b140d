import type { RoundHead } from '@isometra/contract';

/**
 * Rounds that rule: all but those whose date lies beyond the server's own time. Such a round would be the latest for as long as
 * its date is not put right, whatever is read after it.
 */
export const ruling = (rounds: readonly RoundHead[]): readonly RoundHead[] =>
  rounds.some(({ ahead }) => ahead) ? rounds.filter(({ ahead }) => !ahead) : rounds;
