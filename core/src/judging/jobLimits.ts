import * as z from 'zod';
import type { JobFigures, JobZone } from '../checks/define.js';
import { CHECKS } from '../checks/registry.js';
import { say } from '../checks/sums.js';
import { measure, optionalMeasure } from '../input/fields.js';
import type { LimitLine } from './limitSheet.js';

/** What a limit follows from, with the sum that led to it. */
export interface JobLimit extends LimitLine {
  /** The sum, in mm and µm, as it would be done on paper. */
  readonly sum: string;
}

export interface JobKind {
  readonly id: keyof JobFigures;
  readonly title: string;
  readonly fields: z.ZodObject;
  readonly limits: (job: Readonly<Record<string, unknown>>) => JobLimit[];
}

/** A kind of work: what is asked of it, and how it is said. Which limits follow, the checks know. */
function defineJob<Id extends keyof JobFigures, Shape extends z.ZodObject>(
  id: Id,
  title: string,
  fields: Shape & z.ZodType<JobFigures[Id]>,
  reason: (job: JobFigures[Id]) => string,
): JobKind {
  const limits = (job: JobFigures[Id]): JobLimit[] =>
    [...CHECKS.values()].flatMap((check) => {
      const rule = check.fromJob?.[id] as ((work: JobFigures[Id]) => readonly JobZone[]) | undefined;
      return (rule?.(job) ?? []).map(({ quantity, zone, sum }) => ({ check: check.id, quantity, zone, reason: reason(job), sum }));
    });
  return { id, title, fields, limits: limits as JobKind['limits'] };
}

const taperOverLength = defineJob(
  'taper',
  'Taper over the longest part',
  z.strictObject({
    taper: measure('deviation', { label: 'Taper allowed on diameter', above: 0, example: '0.01 mm' }),
    length: measure('length', { label: 'Over a length of', above: 0, example: '250 mm' }),
    centres: optionalMeasure('length', {
      label: 'Distance between centres',
      above: 0,
      example: '400 mm',
      help: 'For work between centres; as long as the part when left out.',
    }),
  }),
  ({ taper, length }) => `taper of ${say(taper / 1000)} mm over ${say(length)} mm`,
);

const reamedHole = defineJob(
  'reamed-hole',
  'A hole reamed from the tailstock',
  z.strictObject({ oversize: measure('deviation', { label: 'May come out over size by', above: 0, example: '0.02 mm' }) }),
  ({ oversize }) => `reamed hole within ${say(oversize / 1000)} mm`,
);

const holePattern = defineJob(
  'hole-pattern',
  'A hole pattern over a size',
  z.strictObject({
    error: measure('deviation', { label: 'A hole may be off by', above: 0, example: '0.02 mm' }),
    length: measure('length', { label: 'Over a size of', above: 0, example: '300 mm' }),
  }),
  ({ error }) => `holes within ${say(error / 1000)} mm`,
);

const faceMilling = defineJob(
  'face-milling',
  'Flatness behind a face mill',
  z.strictObject({
    flatness: measure('deviation', { label: 'Hollow or step allowed', above: 0, example: '0.01 mm' }),
    diameter: measure('length', { label: 'Cutter diameter', above: 0, example: '100 mm' }),
  }),
  ({ flatness, diameter }) => `flat within ${say(flatness / 1000)} mm behind a ${say(diameter)} mm cutter`,
);

const facing = defineJob(
  'facing',
  'A faced disc',
  z.strictObject({
    hollow: measure('deviation', { label: 'May be hollow by', above: 0, example: '0.01 mm' }),
    diameter: measure('length', { label: 'Over a diameter of', above: 0, example: '200 mm' }),
  }),
  ({ hollow, diameter }) => `faces hollow by at most ${say(hollow / 1000)} mm over ${say(diameter)} mm`,
);

/** Kinds of work that limits can follow from. */
export const JOB_KINDS: readonly JobKind[] = [taperOverLength, reamedHole, holePattern, faceMilling, facing];
