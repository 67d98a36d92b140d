import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { dot } from '../../fit/line.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot, type Watch } from '../define.js';
import { linearEstimate, vectorEstimate, type Estimate } from '../estimate.js';
import { axisFields } from '../setupFields.js';
import { sweepClosure, sweepFit, sweepOffsets, worstResidual, type SweepFit } from '../sweep.js';
import {
  otherView,
  TAILSTOCK_CAUTIONS,
  TAILSTOCK_CORRECTIONS,
  TAILSTOCK_QUANTITIES,
  tailstockConditions,
  unlimited,
  viewQuantities,
} from '../tailstock.js';
import { TAILSTOCK } from '../../moves/parts.js';

const setup = z.strictObject({
  feature: choice({
    label: 'Swept',
    choices: [
      { value: 'outside', label: 'an outside: quill, centre, ground pin' },
      { value: 'bore', label: 'a bore: the taper or a bush' },
    ],
  }),
  coneAngle: optionalMeasure('angle', {
    label: 'Half the cone angle',
    min: 0,
    below: 80,
    example: '30',
    rare: true,
    help: '30 for a stylus square to a 60° centre; 0 on a cylinder.',
  }),
  ...axisFields(),
  slant: optionalMeasure('angle', { label: 'Slant of the bed', min: -90, max: 90, example: '0', rare: true, hidden: true }),
});

const reading = z.strictObject({
  angle: measure('angle', { label: 'Angle round the spindle', min: -360, max: 360, example: '90' }),
  at: optionalMeasure('length', { label: 'Depth', example: '0 mm' }),
});

const plan = z.strictObject({
  angles: choice({
    label: 'Read at',
    choices: [
      { value: '4', label: '4 places: front, top, rear, bottom' },
      { value: '8', label: '8 places' },
      { value: '12', label: '12 places' },
    ],
  }),
});

type Setup = z.output<typeof setup>;

/** Slots by depth, the mouth first. */
function depths(slots: readonly Slot[]): { at: number; indices: number[] }[] {
  const found = new Map<number, number[]>();
  slots.forEach((slot, i) => {
    const at = (slot.keys['at'] as number | undefined) ?? 0;
    found.set(at, [...(found.get(at) ?? []), i]);
  });
  return [...found].map(([at, indices]) => ({ at, indices })).sort((a, b) => a.at - b.at);
}

function slopes(near: Estimate[], far: Estimate[], distance: number): Estimate[] {
  return near.flatMap((estimate, k) => {
    const other = far[k];
    if (!other) return [];
    const factor = 1000 / distance;
    return [
      linearEstimate(
        estimate.name === 'offsetHorizontal' ? 'slopeH' : 'slopeV',
        estimate.weights.map((weight, i) => (other.weights[i] - weight) * factor),
      ),
    ];
  });
}

function roundNotes(fit: SweepFit, closure: number[] | undefined, { slots, instrument }: CheckInput<Setup>): Note[] {
  if (!instrument) return [];
  const values = slots.map((slot) => slot.value);
  const gap = closure ? Math.abs(dot(closure, values)) : 0;
  const residual = worstResidual(fit, values);
  if (gap <= 2 * instrument.graduation && residual <= instrument.graduation) return [];
  return [
    {
      code: 'out-of-round',
      severity: 'warning',
      text: `What was swept does not close as a circle (${Math.max(gap, residual).toFixed(1)} µm): it is out of round, a keyway was read, or the indicator moved. Sweep it again clear of the keyway.`,
    },
  ];
}

function viewNote(setup: Setup): Note[] {
  if (setup.distance !== undefined && setup.axisSlopeH !== undefined) return [];
  const reach = setup.distance ?? 300;
  return [
    {
      code: 'axis-unknown',
      severity: 'info',
      text: `A sweep speaks of the spindle, not of the carriage. The spindle axis is not known: within its usual limits it could make ${(0.05 * reach).toFixed(0)} µm sideways and ${(0.067 * reach).toFixed(0)} µm in height of difference ${setup.distance === undefined ? 'for every 300 mm from the nose' : `at ${reach.toFixed(0)} mm`}.`,
    },
  ];
}

function estimate(input: CheckInput<Setup>): Estimates {
  const { setup, slots, instrument } = input;
  const values = slots.map((slot) => slot.value);
  const byDepth = depths(slots);
  const [mouth, ...deeper] = byDepth;
  const fit = mouth && sweepFit(slots, mouth.indices);
  if (!fit) {
    return {
      estimates: [],
      notes: [
        {
          code: 'too-few-readings',
          severity: 'warning',
          text: 'Not enough has been read yet: front and rear give the side, top and bottom the height.',
        },
      ],
    };
  }
  const sag = instrument?.holderSag ?? 0;
  const offsets = sweepOffsets(fit, setup, sag);
  const estimates = [...offsets];
  if (offsets.length === 2) estimates.push(vectorEstimate('offsetRadial', offsets[0], offsets[1], values));
  const closure = sweepClosure(slots, mouth.indices);
  if (closure) estimates.push(linearEstimate('closure', closure));
  const last = deeper[deeper.length - 1];
  const lastFit = last && sweepFit(slots, last.indices);
  if (last && lastFit) estimates.push(...slopes(offsets, sweepOffsets(lastFit, setup, sag), last.at - mouth.at));
  estimates.push(...otherView(offsets, setup, 'carriage'));
  const notes = [...roundNotes(fit, closure, input), ...viewNote(setup)];
  if (offsets.length < 2)
    notes.push({ code: 'no-vertical', severity: 'info', text: 'Only front and rear were read: no height. Read top and bottom too.' });
  if (instrument && instrument.holderSag === 0 && offsets.length === 2) {
    notes.push({
      code: 'holder-sag-unknown',
      severity: 'warning',
      text: 'The holder sag is taken as zero. Clamp the same holder on a stiff true bar, zero it at the top and read the bottom: that is the sag, and half of it goes straight into the height.',
    });
  }
  return { estimates, notes };
}

const NAMES: Readonly<Record<number, string>> = { 0: 'Operator’s side', 90: 'Top', 180: 'Rear', 270: 'Bottom' };

function plannedSlots(_setup: Setup, { angles = '4' }: z.output<typeof plan>): PlannedSlot[] {
  const number = Number(angles);
  const slots: PlannedSlot[] = Array.from({ length: number }, (_, i) => {
    const degrees = (360 * i) / number;
    return { keys: { angle: degrees }, label: NAMES[degrees] ?? `${degrees}° round from the operator’s side` };
  });
  return [...slots, { ...slots[0], ask: 'Turn on to the first place and read it again.', closing: true }];
}

/** Watch the front and the top: they must come half-way to where the far side reads. */
function watch(quantity: string, setup: Setup, slots: readonly Slot[]): Watch | undefined {
  const place = quantity === 'offsetHorizontal' ? 0 : 90;
  const seen = slots.find((slot) => slot.keys['angle'] === place);
  if (!seen) return undefined;
  const bore = setup.feature === 'bore';
  return {
    where: place === 0 ? "operator's side" : 'top',
    sense: bore ? -1 : 1,
    now: seen.value,
    scale: Math.cos(((setup.coneAngle ?? 0) * Math.PI) / 180),
  };
}

export const tailstockSweep = defineCheck({
  id: 'tailstock-sweep',
  family: 'sweep',
  title: 'Sweep from the spindle',
  question: 'Is the tail centre or quill in line with the spindle axis, where it stands?',
  choose: 'Both planes without a bar. It trusts the centre and the indicator holder, and speaks of the spindle, not of the carriage.',
  machines: ['lathe'],
  view: 'spindle',
  trusts: ['the holder sag is right', 'the centre is true in its taper', 'no keyway was read'],
  sameQuestion: 'tailstock',
  setup,
  reading,
  slotKeys: ['angle', 'at'],
  valueKind: 'indicator',
  quantities: {
    ...TAILSTOCK_QUANTITIES,
    offsetRadial: unlimited('Off the axis altogether', 'deviation', 'um', { magnitude: true }),
    ...viewQuantities('carriage'),
    slopeH: unlimited('Slope sideways', 'slope', 'um/m'),
    slopeV: unlimited('Slope in height', 'slope', 'um/m'),
    closure: unlimited('Closure of the sweep', 'deviation', 'um'),
  },
  plan,
  conditions: z.strictObject({
    ...tailstockConditions('spindle'),
    swept: choice({
      label: 'What is swept',
      choices: [
        { value: 'quill', label: 'the quill' },
        { value: 'centre', label: 'a centre' },
        { value: 'other', label: 'something else' },
      ],
      help: 'Sweep the quill and a good centre: their difference is the eccentricity of the taper. Mind the keyway of a quill.',
    }),
  }),
  slots: plannedSlots,
  estimate,
  corrections: TAILSTOCK_CORRECTIONS,
  part: TAILSTOCK,
  watch,
  counting: 'Half the difference counts: the sweep goes round the axis and shows an offset twice.',
  upsets: ['quill-parallelism', 'tailstock-traverse', 'tailstock-test-cut'],
  cautions: TAILSTOCK_CAUTIONS,
  cannotSee: [
    'Where the carriage goes: the spindle axis may point off it.',
    'The eccentricity of the taper, unless quill and centre are both swept.',
    'Wear of the bed: it holds only where the tailstock stands now.',
  ],
  advice: [
    'Turn the spindle by hand; carry the indicator on the spindle with a short stiff holder.',
    'When a quill is swept keep the stylus clear of the keyway: it reads as a dip.',
    'Sweep the quill, then a good centre: the difference is the eccentricity of the taper.',
  ],
});
