import { disagreements, type CheckDefinition, type Disagreement, type MethodResult } from '@isometra/core';
import type { Rung } from './rungs.js';

/** Two ways to answer one question that differ by more than their doubts. */
export interface Apart extends Disagreement {
  readonly one: CheckDefinition;
  readonly other: CheckDefinition;
}

/**
 * Ways that answer the same question and do not agree.
 *
 * @param words the last word of each; those of other questions among them tell whether the spindle axis is known.
 */
export function methodsApart(words: readonly MethodResult[]): readonly Apart[] {
  const axisKnown = words.some(({ check }) => check.id === 'spindle-axis');
  const asked = words.filter(({ check }) => check.sameQuestion !== undefined);
  return asked.flatMap((one, i) =>
    asked
      .slice(i + 1)
      .filter(({ check }) => check.sameQuestion === one.check.sameQuestion)
      .flatMap((other) => disagreements(one, other, { axisKnown }).map((found) => ({ ...found, one: one.check, other: other.check }))),
  );
}

/** What each rung that still holds says last. */
export const lastWords = (rungs: readonly Pick<Rung, 'check' | 'state' | 'found'>[]): readonly MethodResult[] =>
  rungs
    .filter(({ state, found }) => state !== 'stale' && Object.keys(found).length > 0)
    .map(({ check, found }) => ({ check, finding: { quantities: found } }));
