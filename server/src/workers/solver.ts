import { FaultError, planMove, solve, type Fault } from '@isometra/core';
import { findingHead, layOutJob, planJob, sheetOf, solveWhatStands, tellStory, type ShopFacts } from '@isometra/work';
import type { FindingHead, ReadingWrite, RoundWrite } from '@isometra/contract';

/** What came out, or what stood in the way: an error of a class does not cross from one thread to another. */
export type Answer = { readonly value: unknown } | { readonly faults: readonly Fault[] };

function answer(work: () => unknown): Answer {
  try {
    return { value: work() };
  } catch (error) {
    if (error instanceof FaultError) return { faults: error.faults };
    throw error;
  }
}

/** Solve one sheet. */
export const sheet = (raw: unknown): Answer => answer(() => solve(raw));

/** Plan one move. */
export const move = (raw: unknown): Answer => answer(() => planMove(raw));

/** Tell a machine's story. */
export const history = (raw: unknown): Answer => answer(() => tellStory(raw));

/** Plan a job. */
export const job = (raw: unknown): Answer => answer(() => planJob(raw));

/** Lay a job out: who does what on which day. */
export const layOut = (raw: unknown): Answer => answer(() => layOutJob(raw));

/** A round with what it is judged by. */
export interface HeadTask {
  readonly round: Pick<RoundWrite, 'check' | 'setup' | 'plan' | 'instrument' | 'conditions'>;
  readonly readings: readonly Pick<ReadingWrite, 'id' | 'supersedes' | 'value' | 'keys' | 'set'>[];
  readonly facts: ShopFacts;
}

/** What each of some rounds says, in short; null where nothing can be said. */
export function heads(tasks: readonly HeadTask[]): (FindingHead | null)[] {
  return tasks.map(({ round, readings, facts }) => {
    const whole = sheetOf(round, readings, facts);
    const { finding } = solveWhatStands(whole);
    return finding && findingHead(finding, whole);
  });
}
