import type { JobStep, StepFacts } from '../moves/jobSteps.js';
import { jobSteps, METRIC_WORDS } from '../moves/registry.js';

/** The steps of a move, from as much as a spec says of it. */
export const stepsOf = (kind: string, facts: Partial<StepFacts>): readonly JobStep[] =>
  jobSteps(kind, { size: '', direction: '', plus: true, plan: {}, card: {}, words: METRIC_WORDS, ...facts });
