import type { LimitSheet } from '@isometra/core';
import { machineFamily, type RoundHead } from '@isometra/contract';
import { knownFrom, knownMill, knownTurning } from '../ladder/known.js';
import { ghostsOf, millGhosts, turningGhosts } from './ghosts.js';
import type { Bending } from './index.js';

/** What some rounds said of a machine of a kind. */
export function bentBy(kind: string, rounds: readonly RoundHead[]): Bending {
  const family = machineFamily(kind);
  if (family === 'mill') return { family, known: knownMill(rounds) };
  return family === 'turning-centre' ? { family, known: knownTurning(rounds) } : { family, known: knownFrom(rounds) };
}

/** The same with the limits of a sheet drawn beside it. */
export function withGhosts(bending: Bending, judge: LimitSheet | undefined, factor: number): Bending {
  if (bending.family === 'mill') return { ...bending, ghosts: millGhosts(judge, factor) };
  return bending.family === 'turning-centre'
    ? { ...bending, ghosts: turningGhosts(judge) }
    : { ...bending, ghosts: ghostsOf(judge, factor) };
}
