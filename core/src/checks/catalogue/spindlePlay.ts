import * as z from 'zod';
import { choice, count, optionalMeasure, optionalNumber } from '../../input/fields.js';
import { slotsWhere, type Slot } from '../../instruments/slots.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type QuantityInfo } from '../define.js';
import { formValue, linearEstimate, rangeEstimate, type Estimate, type Form } from '../estimate.js';
import { feelOnly } from '../gibPlay.js';
import { tooFew } from '../notes.js';
import { differenceForm } from '../play.js';
import { unlimited } from '../quantities.js';

const setup = z.strictObject({
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
const reading = z.strictObject({
  place: z.enum(['front', 'rear'], { error: 'must be "front" or "rear"' }).optional(),
  stroke: z.enum(['lift', 'rest'], { error: 'must be "lift" or "rest"' }).optional(),
  turn: optionalMeasure('angle', { label: 'Spindle turned to', min: 0, max: 360, example: '90' }),
  drag: optionalNumber({ label: 'Drag by feel', min: 0, max: 5, example: '2' }),
  at: optionalMeasure('length', { label: 'Along the travel', example: '0' }),
});
const plan = z.strictObject({
  turns: count({
    label: 'Lift at so many turns of the spindle',
    min: 1,
    max: 8,
    example: '4',
    help: 'More than one shows whether a journal is oval.',
  }),
});
type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;
type Place = 'front' | 'rear';

const liftForm = (slots: readonly Slot<Keys>[], place: Place, turn?: { readonly turn: number | undefined }): number[] | undefined => {
  const at = (stroke: 'lift' | 'rest') =>
    slotsWhere(slots, ({ keys }) => keys.place === place && keys.stroke === stroke && (!turn || keys.turn === turn.turn));
  return differenceForm(slots.length, at('lift'), at('rest'));
};

/** The lift at each turn of the spindle that was read, as weights on the slots. */
function formsByTurn(slots: readonly Slot<Keys>[], place: Place, factor: number): Form[] {
  const turns = [...new Set(slots.filter(({ keys }) => keys.place === place).map(({ keys }) => keys.turn))];
  return turns.flatMap((turn): Form[] => {
    const form = liftForm(slots, place, { turn });
    return form ? [form.flatMap((weight, i) => (weight === 0 ? [] : [[i, weight * factor] as const]))] : [];
  });
}

const OVALITY = { front: 'ovalityFront', rear: 'ovalityRear' } as const;

/** How much the lift of each bearing changes over a turn, and the larger of the two: an oval journal or bearing. */
function ovality(slots: readonly Slot<Keys>[], factors: Readonly<Record<Place, number>>): Estimate[] {
  const values = slots.map((slot) => slot.value);
  const each = (['front', 'rear'] as const).flatMap((place): Estimate[] => {
    const forms = formsByTurn(slots, place, factors[place]);
    return forms.length < 2 ? [] : [{ ...rangeEstimate(OVALITY[place], forms, values), detail: { place, turns: forms.length } }];
  });
  const [largest] = [...each].sort((a, b) => b.evaluate(values) - a.evaluate(values));
  return largest ? [...each, { ...largest, name: 'ovality' }] : [];
}

const TIPS: Note = {
  code: 'spindle-tips',
  severity: 'serious',
  halts: true,
  text: 'The weight of the bar tips the spindle in its bearings: it has no axis to be read yet. Set the bearings first, or read with a light bar.',
};
const STOP: Note = {
  code: 'stop',
  severity: 'serious',
  text: 'Loose and stiff at once: stop. Something is bent, out of round or dirty; taking shims out would seize it.',
};

function estimate({ setup, slots }: CheckInput<Setup, Keys>): Estimates {
  const magnify = setup.span && setup.overhang ? (setup.span + setup.overhang) / setup.span : 1;
  const values = slots.map((slot) => slot.value);
  const lifts = (['front', 'rear'] as const).flatMap((place): Estimate[] => {
    const form = liftForm(slots, place);
    if (!form) return [];
    const factor = (place === 'front' ? 1 / magnify : 1) * (linearEstimate('', form).evaluate(values) < 0 ? -1 : 1);
    const turns = formsByTurn(slots, place, factor).map((turn) => formValue(turn, values));
    return [
      linearEstimate(
        place === 'front' ? 'liftFront' : 'liftRear',
        form.map((weight) => weight * factor),
        // What comes out comes out all round: the tightest place of the turn decides how much.
        turns.length > 1 ? { detail: { least: Math.min(...turns), most: Math.max(...turns) } } : {},
      ),
    ];
  });
  const stiff = slots.some(({ keys }) => (keys.drag ?? 0) >= 4);
  const loose = lifts.some((entry) => entry.evaluate(values) > 30);
  const notes: Note[] = [
    ...(lifts.length ? [] : [tooFew('the spindle lifted and at rest')]),
    ...(setup.tips === 'yes' ? [TIPS] : []),
    ...(stiff && loose ? [STOP] : []),
  ];
  const judged = stiff && loose ? lifts.map((entry) => ({ ...entry, unsure: true as const })) : lifts;
  return { estimates: [...judged, ...ovality(slots, { front: 1 / magnify, rear: 1 })], notes };
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
  setup,
  reading,
  plan,
  conditions: z.strictObject({}),
  slotKeys: ['place', 'stroke', 'turn', 'drag', 'at'],
  reads: 'indicator',
  valueFrom: feelOnly,
  quantities: {
    liftFront: lift('Lift at the front bearing'),
    liftRear: lift('Lift at the rear bearing'),
    ovality: unlimited('Change of the lift over a turn', 'deviation', 'um', { magnitude: true }),
    ovalityFront: unlimited('Change of the lift over a turn, front', 'deviation', 'um', { magnitude: true }),
    ovalityRear: unlimited('Change of the lift over a turn, rear', 'deviation', 'um', { magnitude: true }),
  },
  slots: (_setup, { turns = 1 }) =>
    (['front', 'rear'] as const).flatMap((place) =>
      Array.from({ length: turns }, (_, i) => Math.round((360 * i) / turns)).flatMap((turn) =>
        (['rest', 'lift'] as const).map((stroke) => ({
          keys: { place, stroke, ...(turns > 1 && { turn }) },
          label: `${place === 'front' ? 'Front' : 'Rear'} bearing, ${stroke === 'lift' ? 'lifted' : 'at rest'}${turns > 1 ? `, turned to ${turn}°` : ''}`,
        })),
      ),
    ),
  estimate,
  corrections: { liftFront: { plus: [], minus: ['bearing-shims'] }, liftRear: { plus: [], minus: ['bearing-shims'] } },
  setsBearings: true,
  picture: { drawing: 'headstock-side' },
  hangsOn: ['bed-twist', 'seat'],
  rests: ['headstock', 'column'],
  counting: 'Lifted minus at rest; read at the nose it is brought back to the bearing.',
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
