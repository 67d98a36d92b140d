import * as z from 'zod';
import { choice, count, optionalMeasure, optionalNumber } from '../../fields.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type QuantityInfo } from '../define.js';
import { linearEstimate, rangeEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, tooFew } from '../common.js';
import { differenceForm, slotsWith, asSize } from '../play.js';
import { partRunout, swingForm, type RunoutVector } from '../runout.js';
import { unlimited } from '../tailstock.js';

const size = (label: string, high: number): QuantityInfo => ({
  label,
  dimension: 'deviation',
  unit: 'um',
  limit: [null, high],
  magnitude: true,
});

const FEATURES = ['noseRadial', 'taperNear', 'taperFar', 'face', 'axialSlip', 'radial'] as const;
const FEATURE_NAMES: Readonly<Record<(typeof FEATURES)[number], string>> = {
  noseRadial: 'Nose',
  taperNear: 'Taper, at its mouth',
  taperFar: 'Taper, at the end of a bar',
  face: 'Face',
  axialSlip: 'Slip along the axis',
  radial: 'Point of the centre',
};

const runoutSetup = z.strictObject({
  farDistance: optionalMeasure('length', { label: 'Far place from the nose', above: 0, example: '300 mm' }),
  faceDiameter: optionalMeasure('length', { label: 'Diameter at which the face is read', above: 0, example: '120 mm' }),
});
const runoutReading = z.strictObject({
  feature: z.enum(FEATURES, { error: `must be one of ${FEATURES.join(', ')}` }),
  extreme: z.enum(['high', 'low'], { error: 'must be "high" or "low"' }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
  highAt: optionalMeasure('angle', { label: 'High at', min: -360, max: 360, example: '90' }),
});

/** Bar out and back half round: the vectors of one feature, when both have their direction. */
function vectorsOf(slots: readonly Slot[], feature: string): [RunoutVector, RunoutVector] | undefined {
  const vectors = [0, 180].map((turn): RunoutVector | undefined => {
    const high = slots.find(
      (slot) => slot.keys['feature'] === feature && slot.keys['extreme'] === 'high' && (slot.keys['turn'] ?? 0) === turn,
    );
    const low = slots.find(
      (slot) => slot.keys['feature'] === feature && slot.keys['extreme'] === 'low' && (slot.keys['turn'] ?? 0) === turn,
    );
    const highAt = high?.keys['highAt'];
    return high && low && typeof highAt === 'number' ? { length: Math.abs(high.value - low.value), highAt } : undefined;
  });
  return vectors[0] && vectors[1] ? [vectors[0], vectors[1]] : undefined;
}

function runouts({ setup, slots }: CheckInput<z.output<typeof runoutSetup>>): Estimates {
  const estimates = FEATURES.flatMap((feature): Estimate[] => {
    const plain = swingForm(slots, { feature });
    if (!plain) return [];
    const vectors = vectorsOf(slots, feature);
    const detail = feature === 'face' && setup.faceDiameter ? { angle: 0 } : undefined;
    const base = { ...linearEstimate(feature, asSize(plain, slots)), magnitude: true };
    if (vectors) {
      const { spindle, bar } = partRunout(...vectors);
      const weights = base.weights.map((weight) => weight / 2);
      return [
        { ...base, weights, evaluate: () => spindle.length, detail: { highAt: spindle.highAt } },
        { ...base, name: `${feature}Bar`, weights, evaluate: () => bar.length, detail: { highAt: bar.highAt } },
      ];
    }
    const value = base.evaluate(slots.map((slot) => slot.value));
    return [{ ...base, ...(detail && { detail: { angle: (1000 * value) / (setup.faceDiameter ?? 1) } }) }];
  });
  return { estimates, notes: estimates.length ? [] : [tooFew('the highest and the lowest of one feature')] };
}

const barParts = Object.fromEntries(
  FEATURES.map((feature) => [
    `${feature}Bar`,
    unlimited(`${FEATURE_NAMES[feature]}: the bar’s own part`, 'deviation', 'um', { magnitude: true }),
  ]),
);
const runoutSlots = (features: readonly (typeof FEATURES)[number][]) =>
  features.flatMap((feature) =>
    (['high', 'low'] as const).map((extreme) => ({
      keys: { feature, extreme },
      label: `${FEATURE_NAMES[feature]}, the ${extreme === 'high' ? 'highest' : 'lowest'} of a turn`,
    })),
  );

const runoutCommon = {
  family: 'runout',
  setup: runoutSetup,
  reading: runoutReading,
  slotKeys: ['feature', 'extreme', 'turn'],
  valueKind: 'indicator' as const,
  plan: z.strictObject({}),
  conditions: z.strictObject({}),
  estimate: runouts,
  corrections: {},
  counting: 'The whole swing of the needle over a turn.',
  cautions: [ISOLATE, 'Turn the spindle by hand.', 'Chuck key out of the chuck; a board on the ways before a chuck comes off.'],
};

export const spindleRunout = defineCheck({
  ...runoutCommon,
  id: 'spindle-runout',
  title: 'Spindle runout',
  question: 'Do nose, taper and face run true?',
  choose: 'After the bearings, before the axis: what runs out here is in everything held by the spindle.',
  machines: ['lathe', 'mill', 'turning-centre'],
  quantities: {
    noseRadial: size('Nose runs out', 10),
    taperNear: size('Taper at its mouth', 10),
    taperFar: { ...size('Taper at the far end', 20), over: { length: 300, least: 10 } },
    face: size('Face runs out', 10),
    axialSlip: size('Slip along the axis', 10),
    ...barParts,
  },
  lengthOf: (setup) => setup.farDistance,
  slots: () => runoutSlots(['noseRadial', 'taperNear', 'taperFar', 'face', 'axialSlip']),
  upsets: ['spindle-axis', 'centre-runout'],
  cannotSee: ['The bar, unless it is taken out, turned half round and put back.'],
  advice: ['Clean the taper until a finger squeaks on it.', 'Note where the high place is: runouts are vectors.'],
});

export const centreRunout = defineCheck({
  ...runoutCommon,
  id: 'centre-runout',
  title: 'Headstock centre',
  question: 'Does the point in the headstock run true?',
  choose: 'Before a bar between centres: its runout adds straight to that result.',
  machines: ['lathe'],
  quantities: { radial: size('Point of the centre', 5), radialBar: barParts['radialBar'] },
  slots: () => runoutSlots(['radial']),
  upsets: ['tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut', 'quill-parallelism'],
  cannotSee: ['A sleeve or a dirty taper that seats differently next time.'],
  advice: ['A shop-turned point must be cut where it stands and never re-chucked.', 'Adapter sleeves and dirty tapers add their own.'],
});

const playSetup = z.strictObject({
  force: optionalMeasure('force', { label: 'Lift with', above: 0, example: '300 N' }),
  span: optionalMeasure('length', { label: 'Between the bearings', above: 0, example: '350 mm' }),
  overhang: optionalMeasure('length', { label: 'Stylus in front of the front bearing', min: 0, example: '60 mm' }),
  bearing: choice({
    label: 'Bearings',
    choices: [
      { value: 'plain', label: 'plain' },
      { value: 'rolling', label: 'rolling' },
    ],
  }),
  tips: choice({
    label: 'Rear end lifted and let go, bar in',
    choices: [
      { value: 'no', label: 'it comes back' },
      { value: 'yes', label: 'it stays up' },
    ],
    help: 'Whether the weight of the bar tips the spindle in its bearings.',
  }),
});
const playReading = z.strictObject({
  place: z.enum(['front', 'rear'], { error: 'must be "front" or "rear"' }).optional(),
  stroke: z.enum(['lift', 'rest'], { error: 'must be "lift" or "rest"' }).optional(),
  turn: optionalMeasure('angle', { label: 'Spindle turned to', min: 0, max: 360, example: '90' }),
  drag: optionalNumber({ label: 'Drag by feel', min: 0, max: 5, example: '2' }),
  at: optionalMeasure('length', { label: 'Along the travel', example: '0' }),
});

/** How much the lift changes over a turn: an oval journal or bearing. The front bearing tells, or else the rear. */
function ovality(slots: readonly Slot[], factors: Readonly<Record<'front' | 'rear', number>>): Estimate[] {
  for (const place of ['front', 'rear'] as const) {
    const turns = [...new Set(slots.filter((slot) => slot.keys['place'] === place).map((slot) => slot.keys['turn']))];
    const forms = turns.flatMap((turn) => {
      const form = differenceForm(
        slots,
        slotsWith(slots, { place, stroke: 'lift', turn }),
        slotsWith(slots, { place, stroke: 'rest', turn }),
      );
      return form ? [asSize(form, slots).map((weight) => weight * factors[place])] : [];
    });
    if (forms.length < 2) continue;
    const values = slots.map((slot) => slot.value);
    return [
      { ...rangeEstimate('ovality', forms, new Array<number>(forms.length).fill(0), values), detail: { place, turns: forms.length } },
    ];
  }
  return [];
}

function lifts({ setup, slots }: CheckInput<z.output<typeof playSetup>>): Estimates {
  const magnify = setup.span && setup.overhang ? (setup.span + setup.overhang) / setup.span : 1;
  const estimates = (['front', 'rear'] as const).flatMap((place): Estimate[] => {
    const form = differenceForm(slots, slotsWith(slots, { place, stroke: 'lift' }), slotsWith(slots, { place, stroke: 'rest' }));
    if (!form) return [];
    const factor = place === 'front' ? 1 / magnify : 1;
    return [
      linearEstimate(
        place === 'front' ? 'liftFront' : 'liftRear',
        asSize(form, slots).map((weight) => weight * factor),
      ),
    ];
  });
  const stiff = slots.some((slot) => typeof slot.keys['drag'] === 'number' && (slot.keys['drag'] as number) >= 4);
  estimates.push(...ovality(slots, { front: 1 / magnify, rear: 1 }));
  const notes: Note[] = estimates.length ? [] : [tooFew('the spindle lifted and at rest')];
  const loose = estimates.some((estimate) => estimate.name !== 'ovality' && estimate.evaluate(slots.map((slot) => slot.value)) > 30);
  if (setup.tips === 'yes')
    notes.push({
      code: 'spindle-tips',
      severity: 'serious',
      text: 'The weight of the bar tips the spindle in its bearings: it has no axis to be read yet. Set the bearings first, or read with a light bar.',
    });
  if (stiff && loose)
    notes.push({
      code: 'stop',
      severity: 'serious',
      text: 'Loose and stiff at once: stop. Something is bent, out of round or dirty; taking shims out would seize it.',
    });
  return { estimates, notes };
}

const lift = (label: string): QuantityInfo => ({
  label,
  dimension: 'deviation',
  unit: 'um',
  limit: [10, 30],
  variants: [{ key: 'rolling', label: 'in rolling bearings', limit: [null, 10], applies: (setup) => setup['bearing'] === 'rolling' }],
  words: { plus: '', minus: '', movePlus: 'more', moveMinus: 'less' },
});

export const spindlePlay = defineCheck({
  id: 'spindle-play',
  family: 'play',
  title: 'Spindle play',
  question: 'How far does the spindle lift in its bearings?',
  choose: 'Before the axis: a spindle that tips in its bearings has none.',
  machines: ['lathe', 'turning-centre'],
  setup: playSetup,
  reading: playReading,
  slotKeys: ['place', 'stroke', 'turn', 'drag', 'at'],
  valueKind: 'indicator',
  valueFrom: (keys) => (keys['drag'] !== undefined ? 0 : undefined),
  quantities: {
    liftFront: lift('Lift at the front bearing'),
    liftRear: lift('Lift at the rear bearing'),
    ovality: unlimited('Change of the lift over a turn', 'deviation', 'um', { magnitude: true }),
  },
  plan: z.strictObject({
    turns: count({
      label: 'Lift at so many turns of the spindle',
      min: 1,
      max: 8,
      example: '4',
      help: 'More than one tells whether a journal is oval.',
    }),
  }),
  conditions: z.strictObject({}),
  slots: (_setup, { turns = 1 }) =>
    (['front', 'rear'] as const).flatMap((place) =>
      Array.from({ length: turns }, (_, i) => Math.round((360 * i) / turns)).flatMap((turn) =>
        (['rest', 'lift'] as const).map((stroke) => ({
          keys: { place, stroke, ...(turns > 1 && { turn }) },
          label: `${place === 'front' ? 'Front' : 'Rear'} bearing, ${stroke === 'lift' ? 'lifted' : 'at rest'}${turns > 1 ? `, turned to ${turn}°` : ''}`,
        })),
      ),
    ),
  estimate: lifts,
  corrections: { liftFront: { plus: [], minus: ['bearing-shims'] }, liftRear: { plus: [], minus: ['bearing-shims'] } },
  counting: 'Lifted minus at rest; read at the nose it is brought back to the bearing.',
  upsets: ['spindle-runout', 'spindle-axis'],
  cautions: [
    ISOLATE,
    'Lift with a bar over wood, hands clear of the nose.',
    'Belt on before the caps go back; seals under the bolts; oil holes clear.',
  ],
  cannotSee: ['An oval journal, unless it is lifted at several turns of the spindle.'],
  advice: [
    'Same force every time. Let it go and see whether the needle comes back: lifting the rear and letting go shows whether the bar’s weight tips the spindle.',
  ],
});
