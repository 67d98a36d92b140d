import type { Quantity } from '@isometra/core';

type Told = Pick<Quantity, 'value' | 'aim' | 'verdict' | 'expanded' | 'because'>;

/** What is left to the aim, signed like a move of the quantity; 0 without an aim. */
export const leftOver = ({ value, aim }: Told): number => (aim === null ? 0 : aim - value);

/**
 * Whether what is in may still be brought nearer when the user says so: it stands off its aim by more than can be read, and nothing
 * speaks against its verdict.
 */
export const mayComeNearer = (told: Told): boolean =>
  told.verdict === 'in' && !told.because?.length && Math.abs(leftOver(told)) > (told.expanded ?? 0);
