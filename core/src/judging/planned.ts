import * as z from 'zod';
import { fieldRegistry, measure, optionalMeasure, type FieldInfo } from '../input/fields.js';
import type { MachineFamily, QuantityInfo } from '../checks/define.js';
import type { Values } from '../instruments/slots.js';
import type { Zone } from './verdict.js';

/** What a change that is still to come will do to the spindle axis, or to a column. */
export interface AxisEffect {
  /** µm/m, + free end up. */
  readonly slopeV: number;
  /** µm at the nose, + up. */
  readonly height: number;
  /** µm/m that the top of a column goes, + right. */
  readonly leanX: number;
  /** µm/m that the top of a column goes, + toward the operator. */
  readonly leanY: number;
  /** The same by a load that is hung on later, whatever the head does. */
  readonly loadX: number;
  readonly loadY: number;
  /** µm/m that a head leans right and nods toward the operator over its table. */
  readonly tilt: number;
  readonly nod: number;
}

/** No change at all. */
export const NO_EFFECT: AxisEffect = { slopeV: 0, height: 0, leanX: 0, leanY: 0, loadX: 0, loadY: 0, tilt: 0, nod: 0 };
const EFFECTS = Object.keys(NO_EFFECT) as (keyof AxisEffect)[];

interface ChangeKind<Shape extends z.ZodObject = z.ZodObject> {
  readonly id: string;
  readonly title: string;
  /** Machines that it can happen to; all of them if left out. */
  readonly machines?: readonly MachineFamily[];
  readonly fields: Shape;
  effect(change: z.output<Shape>): Partial<AxisEffect>;
}

const defineChange = <Shape extends z.ZodObject>(kind: ChangeKind<Shape>): ChangeKind => kind;
const down = (info: Omit<FieldInfo, 'dimension'>) => measure('deviation', { min: 0, max: 5000, example: '0.03 mm', ...info });
const span = () => measure('length', { label: 'Between the bearings', above: 0, example: '350 mm' });
const overhang = () => optionalMeasure('length', { label: 'Front bearing to the nose', min: 0, example: '60 mm' });

/** Two supports that come down: the line through them, carried on to the nose in front of the front one. */
function comingDown({
  front,
  rear,
  span,
  overhang = 0,
}: {
  front: number;
  rear: number;
  span: number;
  overhang?: number;
}): Partial<AxisEffect> {
  const slope = (rear - front) / span;
  return { slopeV: 1000 * slope, height: -front + slope * overhang };
}

/** Both bearings: front down by f, rear by r over the span S turn the axis by (r − f)/S. */
const bearings = defineChange({
  id: 'bearings',
  title: 'Bearings will be scraped down',
  machines: ['lathe', 'turning-centre'],
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
  machines: ['lathe', 'turning-centre'],
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
  machines: ['lathe', 'turning-centre'],
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
  machines: ['lathe', 'turning-centre'],
  fields: z.strictObject({
    height: measure('length', { label: 'Spindle above the seat', above: 0, example: '200 mm' }),
    rise: measure('warming', { label: 'Warmer than now by', min: 0, max: 80, example: '10 C' }),
  }),
  effect: ({ height, rise }) => ({ slopeV: 0, height: 1000 * height * STEEL * rise }),
});

const headWeight = defineChange({
  id: 'head-weight',
  title: 'The head has still to go on',
  machines: ['mill'],
  fields: z.strictObject({
    leanY: measure('slope', {
      label: 'Its weight will pull the column forward by',
      example: '40 um/m',
      help: 'Toward the operator; back with a minus. Measured it is the lean with the head on, less that with it off.',
    }),
    leanX: optionalMeasure('slope', { label: 'and to the right by', example: '0', help: 'To the left with a minus.' }),
  }),
  effect: ({ leanY, leanX = 0 }) => ({ leanX, leanY }),
});

const load = defineChange({
  id: 'load',
  title: 'A weight has still to come on',
  machines: ['mill'],
  fields: z
    .strictObject({
      what: z.string().trim().max(60).optional().register(fieldRegistry, { label: 'What', example: 'motor on the head' }),
      nod: optionalMeasure('slope', {
        label: 'It will nod the head toward you by',
        example: '20 um/m',
        help: 'As the sweep reads it with the weight on, less without; back with a minus.',
      }),
      tilt: optionalMeasure('slope', { label: 'lean it right by', example: '0', help: 'Left with a minus.' }),
      leanY: optionalMeasure('slope', {
        label: 'It will pull the column toward you by',
        example: '10 um/m',
        help: 'As a square reads it with the weight on, less without; back with a minus.',
      }),
      leanX: optionalMeasure('slope', { label: 'and to the right by', example: '0', help: 'To the left with a minus.' }),
    })
    .refine(({ nod, tilt, leanY, leanX }) => [nod, tilt, leanY, leanX].some((figure) => figure !== undefined), {
      path: ['nod'],
      message: 'is missing, and so is every other figure: give one of them at least',
      params: { example: '20 um/m' },
    }),
  effect: ({ nod = 0, tilt = 0, leanY = 0, leanX = 0 }) => ({ nod, tilt, loadX: leanX, loadY: leanY }),
});

/** Changes that are planned and not done yet. */
export const CHANGE_KINDS: readonly ChangeKind[] = [bearings, seat, weight, warmUp, headWeight, load];
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
  return { ...NO_EFFECT, ...(known && parsed?.success && known.effect(parsed.data)) };
}

/** What all pending changes together will do. */
export function sumOf(changes: readonly PlannedChange[]): AxisEffect {
  const all = changes.map(effectOf);
  const sum = (name: keyof AxisEffect) => all.reduce((total, one) => total + one[name], 0);
  return { ...NO_EFFECT, ...Object.fromEntries(EFFECTS.map((name) => [name, sum(name)])) };
}

/**
 * How far a quantity will move by itself when the pending changes have been made, in its own unit; in a set-up in which
 * they have been made already, not at all.
 */
export function drift({ follows = {} }: QuantityInfo, effect: AxisEffect, setup?: Values): number {
  const { when, only, ...shares } = follows;
  const made = setup !== undefined && when !== undefined && !when(setup);
  return EFFECTS.reduce((sum, name) => {
    const gated = made && (only === undefined || only.includes(name));
    return gated ? sum : sum + (shares[name] ?? 0) * effect[name];
  }, 0);
}

/** A zone while changes are pending: shifted by minus what they will do, so that they end in it. */
export const shiftedZone = ([low, high]: Zone, by: number): Zone => [low === null ? null : low - by, high === null ? null : high - by];
