import type { JobStep, StepFacts } from '../moves/jobSteps.js';
import { jobSteps } from '../moves/registry.js';

/** Figures of a plan in the words of a metric shop. */
export const METRIC = {
  size: (um: number) => `${(um / 1000).toFixed(3)} mm`,
  slope: (umPerM: number) => `${((Math.abs(umPerM) * 300) / 1_000_000).toFixed(3)} mm in 300 mm`,
  length: (mm: number) => `${mm} mm`,
};

/** The steps of a move, from as much as a spec says of it. */
export const stepsOf = (kind: string, facts: Partial<StepFacts>): readonly JobStep[] =>
  jobSteps(kind, { size: '', direction: '', plus: true, plan: {}, card: {}, words: METRIC, ...facts });
