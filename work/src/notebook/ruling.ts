import type { RoundHead } from '@isometra/contract';

/** Whether a round counts: its date is not beyond the server's own time, and nobody struck it out. */
export const counts = ({ ahead, struck }: Pick<RoundHead, 'ahead' | 'struck'>): boolean => !ahead && !struck;

/**
 * Rounds that rule. One whose date lies beyond the server's own time would be the latest for as long as its date is not put right,
 * whatever is read after it; one that was struck out is kept to be seen.
 */
export const ruling = (rounds: readonly RoundHead[]): readonly RoundHead[] => (rounds.every(counts) ? rounds : rounds.filter(counts));
