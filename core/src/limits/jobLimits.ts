import * as z from 'zod';
import { CHECKS } from '../checks/registry.js';
import { measure, optionalMeasure } from '../fields.js';
import type { LimitLine } from './limitSheet.js';

/** What a limit follows from, with the sum that led to it. */
export interface JobLimit extends LimitLine {
  /** The sum, in mm and µm, as it would be done on paper. */
  readonly sum: string;
}

interface JobKind<Shape extends z.ZodObject = z.ZodObject> {
  readonly id: string;
  readonly title: string;
  readonly fields: Shape;
  readonly limits: (job: z.output<Shape>) => JobLimit[];
}

const defineJob = <Shape extends z.ZodObject>(kind: JobKind<Shape>): JobKind => kind as unknown as JobKind;

/** A figure of a sum: at most three figures after the point, no zeros behind. */
const say = (value: number): string => String(Number(value.toFixed(3)));

const taperOverLength = defineJob({
  id: 'taper',
  title: 'Taper over the longest part',
  fields: z.strictObject({
    taper: measure('deviation', { label: 'Taper allowed on diameter', above: 0, example: '0.01 mm' }),
    length: measure('length', { label: 'Over a length of', above: 0, example: '250 mm' }),
    centres: optionalMeasure('length', {
      label: 'Distance between centres',
      above: 0,
      example: '400 mm',
      help: 'For work between centres; as long as the part when left out.',
    }),
  }),
  limits: ({ taper, length, centres = length }) => {
    const offset = (taper / 2) * (Math.max(centres, length) / length);
    const slope = (1000 * taper) / (2 * length);
    const between = `half of ${say(taper)} µm × ${say(Math.max(centres, length))} / ${say(length)} mm = ${say(offset)} µm`;
    const chucked = `half of ${say(taper)} µm over ${say(length)} mm = ${say(slope)} µm/m`;
    const reason = `taper of ${say(taper / 1000)} mm over ${say(length)} mm`;
    return [
      ...['tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut'].map((check) => ({
        check,
        quantity: 'offsetHorizontal',
        zone: [-offset, offset] as const,
        reason,
        sum: between,
      })),
      { check: 'spindle-axis', quantity: 'slopeH', zone: [0, slope], reason, sum: chucked },
      { check: 'chuck-test-cut', quantity: 'slopeH', zone: [0, slope], reason, sum: chucked },
    ];
  },
});

const reamedHole = defineJob({
  id: 'reamed-hole',
  title: 'A hole reamed from the tailstock',
  fields: z.strictObject({
    oversize: measure('deviation', { label: 'May come out over size by', above: 0, example: '0.02 mm' }),
  }),
  limits: ({ oversize }) => {
    // The reamer cuts 2·√(h² + v²) over size at most: h and v take half the square each.
    const each = oversize / 2 / Math.SQRT2;
    const sum = `a reamer held off by r cuts up to 2 r over size: r = ${say(oversize)} / 2 = ${say(oversize / 2)} µm, shared between sideways and height: ${say(oversize / 2)} / √2 = ${say(each)} µm each`;
    const reason = `reamed hole within ${say(oversize / 1000)} mm`;
    return ['tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut'].flatMap((check) => [
      { check, quantity: 'offsetHorizontal', zone: [-each, each] as const, reason, sum },
      ...(CHECKS.get(check)?.quantities['offsetVertical']
        ? [{ check, quantity: 'offsetVertical', zone: [0, each] as const, reason, sum }]
        : []),
    ]);
  },
});

const holePattern = defineJob({
  id: 'hole-pattern',
  title: 'A hole pattern over a size',
  fields: z.strictObject({
    error: measure('deviation', { label: 'A hole may be off by', above: 0, example: '0.02 mm' }),
    length: measure('length', { label: 'Over a size of', above: 0, example: '300 mm' }),
  }),
  limits: ({ error, length }) => {
    const slope = (1000 * error) / length;
    const sum = `${say(error)} µm over ${say(length)} mm = ${say(slope)} µm/m`;
    return [
      { check: 'axis-squareness', quantity: 'squareness', zone: [-slope, slope], reason: `holes within ${say(error / 1000)} mm`, sum },
    ];
  },
});

const faceMilling = defineJob({
  id: 'face-milling',
  title: 'Flatness behind a face mill',
  fields: z.strictObject({
    flatness: measure('deviation', { label: 'Hollow or step allowed', above: 0, example: '0.01 mm' }),
    diameter: measure('length', { label: 'Cutter diameter', above: 0, example: '100 mm' }),
  }),
  limits: ({ flatness, diameter }) => {
    // Tipped along the feed it cuts hollow by tilt·D/2; tipped across it leaves steps of tilt·D: the steps are the worse.
    const slope = (1000 * flatness) / diameter;
    const sum = `tipped across the feed, a cutter ${say(diameter)} mm wide leaves steps of tilt × ${say(diameter)} mm (hollow along it is half of that): ${say(flatness)} µm / ${say(diameter)} mm = ${say(slope)} µm/m`;
    const reason = `flat within ${say(flatness / 1000)} mm behind a ${say(diameter)} mm cutter`;
    return ['tilt', 'nod'].map((quantity) => ({ check: 'head-tram', quantity, zone: [-slope, slope] as const, reason, sum }));
  },
});

const facing = defineJob({
  id: 'facing',
  title: 'A faced disc',
  fields: z.strictObject({
    hollow: measure('deviation', { label: 'May be hollow by', above: 0, example: '0.01 mm' }),
    diameter: measure('length', { label: 'Over a diameter of', above: 0, example: '200 mm' }),
  }),
  limits: ({ hollow, diameter }) => {
    const slope = (2000 * hollow) / diameter;
    const sum = `${say(hollow)} µm over the radius of ${say(diameter / 2)} mm = ${say(slope)} µm/m; never crowned`;
    return [
      {
        check: 'cross-slide-squareness',
        quantity: 'slope',
        zone: [0, slope],
        reason: `faces hollow by at most ${say(hollow / 1000)} mm over ${say(diameter)} mm`,
        sum,
      },
    ];
  },
});

/** Kinds of work that limits can follow from. */
export const JOB_KINDS: readonly JobKind[] = [taperOverLength, reamedHole, holePattern, faceMilling, facing];
export type { JobKind };
