import * as z from 'zod';
import { fieldRegistry, optionalMeasure } from '../input/fields.js';
import type { Fault } from '../input/faults.js';
import type { Instrument } from '../instruments/instrument.js';
import type { Reading } from '../instruments/slots.js';
import { BY_HAND, ISOLATE } from './cautions.js';
import type { CheckInput, Estimates, Note, PlannedSlot, QuantityInfo } from './define.js';
import { swingEstimate, type Estimate } from './estimate.js';
import { MORE_SET_UPS } from './helps.js';
import { FEATURE_NAMES, FEATURES, type Feature } from './features.js';
import { tooFew } from './notes.js';
import { unlimited } from './quantities.js';
import { openText } from './reversal.js';
import { partedRunouts, swappedExtremes, swingForm } from './runout.js';
import { extremeKey, HIGH_AT, highAtKey, turnKey } from './setupFields.js';

export const runoutSetup = z.strictObject({
  farDistance: optionalMeasure('length', { label: 'Far place from the nose', above: 0, example: '300 mm' }),
  faceDiameter: optionalMeasure('length', { label: 'Diameter at which the face is read', above: 0, example: '120 mm' }),
});
export const runoutReading = z.strictObject({
  feature: z.enum(FEATURES, { error: `must be one of ${FEATURES.join(', ')}` }),
  extreme: extremeKey(),
  turn: turnKey(),
  highAt: highAtKey(),
});
export const runoutPlan = z.strictObject({
  turned: z
    .boolean()
    .optional()
    .register(fieldRegistry, { label: 'Put the bar back half round and read again', help: 'Parts the spindle’s runout from the bar’s.' }),
});
type Setup = z.output<typeof runoutSetup>;
type Keys = z.output<typeof runoutReading>;

const DIRECTION_MISSING: Note = {
  code: 'high-place-missing',
  severity: 'warning',
  text: 'Bar out and back half round, but the high place is not given both times: without it the two runouts cannot be separated.',
};

/** Runout of one feature: the plain swing, or parted into spindle and bar when the bar was put back half round. */
function runoutOf(feature: Feature, { setup, slots }: CheckInput<Setup, Keys>, notes: Note[]): Estimate[] {
  const values = slots.map((slot) => slot.value);
  const forms = ([0, 180] as const).map((turn) => swingForm(slots, (keys) => keys.feature === feature && (keys.turn ?? 0) === turn));
  const [first, second] = forms;
  const one = first ?? second;
  if (!one) return [];
  const carried = slots.some(({ keys }) => keys.feature === feature && keys.turn !== undefined);
  const highAts = ([0, 180] as const).map(
    (turn) => slots.find(({ keys }) => keys.feature === feature && (keys.turn ?? 0) === turn && keys.highAt !== undefined)?.keys.highAt,
  );
  if (first && second && highAts[0] !== undefined && highAts[1] !== undefined)
    return partedRunouts([feature, `${feature}Bar`], [first, second], [highAts[0], highAts[1]], values);
  if (first && second) notes.push({ ...DIRECTION_MISSING, quantity: feature });
  const open = carried
    ? openText({ alone: [0] }, 'put the bar back half round and read there again, and give where the high place is')
    : undefined;
  const swing = swingEstimate(feature, one, { open });
  const angle = feature === 'face' && setup.faceDiameter ? { detail: { angle: (1000 * swing.evaluate(values)) / setup.faceDiameter } } : {};
  return [{ ...swing, ...angle }];
}

export function runouts(input: CheckInput<Setup, Keys>): Estimates {
  const notes: Note[] = [];
  const estimates = FEATURES.flatMap((feature) => runoutOf(feature, input, notes));
  return { estimates, notes: estimates.length ? notes : [...notes, tooFew('the highest and the lowest of one feature')] };
}

export const runoutFaults = (_setup: Setup, readings: readonly Reading<Keys>[], instrument: Instrument | undefined): Fault[] =>
  swappedExtremes(readings, (keys) => `${keys.feature}|${keys.turn ?? 0}`, instrument);

/** The bar's own part of each feature's runout. */
export const barParts: Readonly<Record<string, QuantityInfo>> = Object.fromEntries(
  FEATURES.map((feature) => [
    `${feature}Bar`,
    unlimited(`${FEATURE_NAMES[feature]}: the bar’s own part`, 'deviation', 'um', { magnitude: true }),
  ]),
);

export function runoutSlots(features: readonly Feature[], { turned = false }: z.output<typeof runoutPlan>): PlannedSlot[] {
  const once = (turn?: 0 | 180): PlannedSlot[] =>
    features.flatMap((feature, k) =>
      (['high', 'low'] as const).map((extreme, i) => ({
        keys: { feature, extreme, ...(turn !== undefined && { turn }) },
        label: `${FEATURE_NAMES[feature]}, the ${extreme === 'high' ? 'highest' : 'lowest'} of a turn`,
        ask: turn === 180 && k + i === 0 ? 'Take the bar out, turn it half round and put it back.' : undefined,
      })),
    );
  return turned ? [...once(0), ...once(180)] : once();
}

/** What every runout shares. */
export const runoutShared = {
  family: 'runout',
  setup: runoutSetup,
  reading: runoutReading,
  plan: runoutPlan,
  conditions: z.strictObject({}),
  slotKeys: ['feature', 'extreme', 'turn'],
  beside: [HIGH_AT],
  reads: 'indicator',
  faults: runoutFaults,
  estimate: runouts,
  corrections: {},
  picture: { drawing: 'headstock-side' },
  helps: [MORE_SET_UPS],
  counting: 'Total indicator reading over one turn.',
  cautions: [ISOLATE, BY_HAND, 'Chuck key out of the chuck; a board on the ways before a chuck comes off.'],
} as const;
