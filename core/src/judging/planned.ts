import * as z from 'zod';
import { fieldRegistry, measure, optionalMeasure, type FieldInfo } from '../input/fields.js';
import type { QuantityInfo } from '../checks/define.js';
import type { Zone } from './verdict.js';

/** What a change that is still to come will do to the spindle axis. */
export interface AxisEffect {
  /** µm/m, + free end up. */
  readonly slopeV: number;
  /** µm at the nose, + up. */
  readonly height: number;
}

interface ChangeKind<Shape extends z.ZodObject = z.ZodObject> {
  readonly id: string;
  readonly title: string;
  readonly fields: Shape;
  readonly effect: (change: z.output<Shape>) => AxisEffect;
}

const defineChange = <Shape extends z.ZodObject>(kind: ChangeKind<Shape>): ChangeKind => kind as unknown as ChangeKind;
const down = (info: Omit<FieldInfo, 'dimension'>) => measure('deviation', { min: 0, max: 5000, example: '0.03 mm', ...info });
const span = () => measure('length', { label: 'Between the bearings', above: 0, example: '350 mm' });
const overhang = () => optionalMeasure('length', { label: 'Front bearing to the nose', min: 0, example: '60 mm' });

/** Two supports that come down: the line through them, carried on to the nose in front of the front one. */
function comingDown({ front, rear, span, overhang = 0 }: { front: number; rear: number; span: number; overhang?: number }): AxisEffect {
  const slope = (rear - front) / span;
  return { slopeV: 1000 * slope, height: -front + slope * overhang };
}

/** Both bearings: front down by f, rear by r over the span S turn the axis by (r − f)/S. */
const bearings = defineChange({
  id: 'bearings',
  title: 'Bearings will be scraped down',
  fields: z.strictObject({
    front: down({ label: 'Front bearing down by' }),
    rear: down({ label: 'Rear bearing down by', example: '0' }),
    span: span(),
    overhang: overhang(),
  }),
  effect: comingDown,
});

const seat = defineChange({
  id: 'seat',
  title: 'The seat has still to bed in',
  fields: z.strictObject({
    front: down({ label: 'Front of the seat down by', example: '0.005 mm' }),
    rear: down({ label: 'Rear of the seat down by', example: '0' }),
    span: measure('length', { label: 'Between front and rear of the seat', above: 0, example: '300 mm' }),
    overhang: optionalMeasure('length', { label: 'Front of the seat to the nose', min: 0, example: '60 mm' }),
  }),
  effect: comingDown,
});

const weight = defineChange({
  id: 'weight',
  title: 'Weight has still to come on',
  fields: z.strictObject({
    slope: measure('slope', {
      label: 'Free end will go up by',
      example: '-5 um/m',
      help: 'Down with a minus: a motor or cover hung on later.',
    }),
    height: optionalMeasure('deviation', { label: 'Nose will rise by', example: '0' }),
  }),
  effect: ({ slope, height = 0 }) => ({ slopeV: slope, height }),
});

const STEEL = 11.5e-6;
const warmUp = defineChange({
  id: 'warm-up',
  title: 'The headstock warms up in work',
  fields: z.strictObject({
    height: measure('length', { label: 'Spindle above the seat', above: 0, example: '200 mm' }),
    rise: measure('temperature', { label: 'Warmer than now by', min: 0, max: 80, example: '10 C' }),
  }),
  effect: ({ height, rise }) => ({ slopeV: 0, height: 1000 * height * STEEL * rise }),
});

/** Changes that are planned and not done yet. */
export const CHANGE_KINDS: readonly ChangeKind[] = [bearings, seat, weight, warmUp];
export type { ChangeKind };

/** One planned change, its fields as typed. */
export const plannedChangeSchema = z.strictObject({
  kind: z.enum(CHANGE_KINDS.map((kind) => kind.id) as [string, ...string[]], {
    error: `must be one of ${CHANGE_KINDS.map((kind) => kind.id).join(', ')}`,
  }),
  fields: z.record(z.string().max(40), z.unknown()).register(fieldRegistry, { label: 'Figures', hidden: true }),
});
export type PlannedChange = z.output<typeof plannedChangeSchema>;

/** What a change will do; nothing when its figures do not make sense. */
export function effectOf({ kind, fields }: PlannedChange): AxisEffect {
  const known = CHANGE_KINDS.find((entry) => entry.id === kind);
  const parsed = known?.fields.safeParse(fields);
  return known && parsed?.success ? known.effect(parsed.data) : { slopeV: 0, height: 0 };
}

/** What all pending changes together will do. */
export function sumOf(changes: readonly PlannedChange[]): AxisEffect {
  return changes.map(effectOf).reduce((sum, one) => ({ slopeV: sum.slopeV + one.slopeV, height: sum.height + one.height }), {
    slopeV: 0,
    height: 0,
  });
}

/** How far a quantity will move by itself when the pending changes have been made, in its own unit. */
export function drift(info: QuantityInfo, { slopeV, height }: AxisEffect): number {
  const { follows } = info;
  return (follows?.slopeV ?? 0) * slopeV + (follows?.height ?? 0) * height;
}

/** A zone while changes are pending: shifted by minus what they will do, so that they end in it. */
export const shiftedZone = ([low, high]: Zone, by: number): Zone => [low === null ? null : low - by, high === null ? null : high - by];
