import * as z from 'zod';
import { choice, count, fieldRegistry, measure } from '../../fields.js';
import { centresPush, centresSag } from '../../gravity/bars.js';
import { dot } from '../../fit/line.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot } from '../define.js';
import { linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { axisFields, centreDistance, centreKind, centresBar, diameterDifference, roundBar } from '../setupFields.js';
import {
  centreDoubt,
  otherView,
  TAILSTOCK_CAUTIONS,
  TAILSTOCK_CORRECTIONS,
  TAILSTOCK_QUANTITIES,
  tailstockConditions,
  TOO_FEW,
  unlimited,
  viewQuantities,
} from '../tailstock.js';
import { residualRange, reversalForms, traverseLine, type TraverseLine } from '../traverse.js';
import { TAILSTOCK } from '../../moves/parts.js';

const setup = z.strictObject({
  centreDistance: centreDistance(),
  side: choice({
    label: 'Side reading taken from',
    choices: [
      { value: 'operator', label: "the operator's side" },
      { value: 'rear', label: 'the rear' },
    ],
  }),
  bar: centresBar(),
  centre: centreKind(),
  ...axisFields(),
});

const reading = z.strictObject({
  plane: z.enum(['h', 'v'], { error: 'must be "h" (side) or "v" (top)' }),
  at: measure('length', { label: 'From the headstock centre', example: '20 mm' }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
  swapped: z.boolean({ error: 'must be true or false' }).optional(),
});

const plan = z.strictObject({
  stations: count({ label: 'Places along the bar', min: 2, max: 12, example: '2' }),
  planes: choice({
    label: 'Read',
    choices: [
      { value: 'both', label: 'side and top' },
      { value: 'h', label: 'side only' },
    ],
  }),
  turned: z
    .boolean()
    .optional()
    .register(fieldRegistry, { label: 'Turn the bar half round and read again', help: 'Takes the bar out of the result.' }),
  close: z
    .boolean()
    .optional()
    .register(fieldRegistry, { label: 'Come back to the first place at the end', help: 'Shows whether anything moved.' }),
});

type Setup = z.output<typeof setup>;
type Plane = 'h' | 'v';

/** ± µm that a bar not turned half round may hide at each place. */
const BAR_ERROR = { ground: 1, 'turned-elsewhere': 3, 'turned-here': 3 } as const;

function planeEstimate(plane: Plane, line: TraverseLine, { setup, slots, instrument }: CheckInput<Setup>): Estimate {
  const side = plane === 'h' && setup.side === 'rear' ? -1 : 1;
  const weights = line.weights.map((weight) => weight * side * setup.centreDistance);
  const bar = roundBar(setup.bar);
  const place = (i: number) => Math.min(Math.max(slots[i].keys['at'] as number, 0), setup.centreDistance);
  const over = (correction: (z: number) => number) =>
    dot(
      weights,
      slots.map((_, i) => (line.weights[i] === 0 ? 0 : correction(place(i)))),
    );
  const sag = bar && plane === 'v' ? over((z) => centresSag(bar, setup.centreDistance, z)) : 0;
  const push = bar && instrument?.contactForce ? over((z) => centresPush(bar, setup.centreDistance, instrument.contactForce, z)) : 0;
  const diameter = setup.bar?.diameters?.length ? over((z) => -500 * diameterDifference(setup.bar?.diameters, z)) : 0;
  const known = line.byWay.length > 1 || diameter !== 0;
  const barError = known ? 0.3 : BAR_ERROR[setup.bar?.finish ?? 'ground'];
  const doubts: Doubt[] = [
    { source: 'bar straightness', u: (barError / Math.sqrt(3)) * Math.hypot(...weights) },
    { source: 'droop of the bar', u: 0.03 * Math.abs(sag) },
    { source: 'push of the stylus', u: 0.03 * Math.abs(push) },
    ...centreDoubt(setup.centre),
  ];
  const terms = { sag, ...(push !== 0 && { push }), ...(diameter !== 0 && { diameter }) };
  return linearEstimate(plane === 'h' ? 'offsetHorizontal' : 'offsetVertical', weights, { terms, doubts });
}

/** What the bar itself is: its bow (turned half round) or its taper (ends swapped). */
function barEstimates(line: TraverseLine, { slots }: CheckInput<Setup>): Estimate[] {
  const forms = reversalForms(slots, line);
  if (forms.length < 2) return [];
  const swapped = line.ways.some((way) => way.some((i) => slots[i].keys['swapped'] === true));
  if (swapped) {
    const direct = line.ways.findIndex((way) => way.every((i) => slots[i].keys['swapped'] !== true));
    const [a, b] = direct === 1 ? [line.byWay[1], line.byWay[0]] : [line.byWay[0], line.byWay[1]];
    return [
      linearEstimate(
        'taper',
        a.map((weight, i) => 500 * (weight - b[i])),
      ),
    ];
  }
  const values = slots.map((slot) => slot.value);
  const worst = forms.reduce((a, b) => (Math.abs(dot(b.form, values)) > Math.abs(dot(a.form, values)) ? b : a));
  const sign = dot(worst.form, values) < 0 ? -1 : 1;
  return [
    {
      name: 'barBow',
      weights: worst.form.map((weight) => weight * sign),
      terms: {},
      doubts: [],
      magnitude: true,
      detail: { at: worst.place },
      evaluate: (now) => Math.max(...forms.map(({ form }) => Math.abs(dot(form, now)))),
    },
  ];
}

function estimate(input: CheckInput<Setup>): Estimates {
  const { slots, setup, instrument } = input;
  const notes: Note[] = [];
  const estimates: Estimate[] = [];
  const bars: Estimate[] = [];
  for (const plane of ['h', 'v'] as const) {
    const line = traverseLine(slots, ['turn', 'swapped'], (slot) => slot.keys['plane'] === plane);
    if (!line) continue;
    estimates.push(planeEstimate(plane, line, input));
    bars.push(...barEstimates(line, input));
    const residuals = residualRange('range', slots, line);
    const range = residuals.evaluate(slots.map((slot) => slot.value));
    if (residuals.places > 2 && instrument && range > 3 * instrument.graduation) {
      notes.push({
        code: 'not-straight',
        severity: 'warning',
        text: `The ${plane === 'h' ? 'side' : 'top'} readings leave a straight line by ${range.toFixed(1)} µm: a bent bar, a burr on a centre, or a worn bed. Turn the bar half round to tell which.`,
      });
    }
  }
  const bow = bars.filter((bar) => bar.name === 'barBow').sort((a, b) => bowSize(b, slots) - bowSize(a, slots));
  estimates.push(...bow.slice(0, 1), ...bars.filter((bar) => bar.name === 'taper').slice(0, 1), ...otherView(estimates, setup, 'spindle'));
  if (estimates.length === 0) return { estimates, notes: [TOO_FEW] };
  if (!estimates.some((entry) => entry.name === 'offsetVertical')) {
    notes.push({ code: 'no-vertical', severity: 'info', text: 'No height yet: it needs readings over the top at two places.' });
  }
  if (setup.bar?.finish === 'turned-here') {
    notes.push({
      code: 'self-made-evidence',
      severity: 'serious',
      text: "This bar was turned where it stands: from the tool's side it reads zero whatever its taper. It is no second opinion. Use a ground bar, or measure its diameters.",
    });
  }
  return { estimates, notes };
}

const bowSize = (bar: Estimate, slots: readonly { value: number }[]) => bar.evaluate(slots.map((slot) => slot.value));

/** Places spread between the ends, 5 % clear of each centre. */
export function spread(length: number, stations: number): number[] {
  const clear = length * 0.05;
  return Array.from({ length: stations }, (_, i) => Math.round(clear + ((length - 2 * clear) * i) / (stations - 1)));
}

function plannedSlots(setup: Setup, { stations = 2, planes = 'both', turned = false, close = true }: z.output<typeof plan>): PlannedSlot[] {
  const places = spread(setup.centreDistance, stations);
  const where = (i: number) =>
    i === 0 ? 'near the headstock' : i === stations - 1 ? 'near the tailstock' : `place ${i + 1} of ${stations}`;
  const side = setup.side === 'rear' ? 'Rear' : 'Operator’s side';
  const passes: { plane: Plane; turn?: 0 | 180 }[] = [];
  for (const turn of turned ? ([0, 180] as const) : ([undefined] as const)) {
    for (const plane of planes === 'h' ? (['h'] as const) : (['h', 'v'] as const))
      passes.push({ plane, ...(turn !== undefined && { turn }) });
  }
  const slots: PlannedSlot[] = passes.flatMap(({ plane, turn }, pass) =>
    places.map((at, i) => ({
      keys: { plane, at, ...(turn !== undefined && { turn }) },
      label: `${plane === 'h' ? side : 'Top'}, ${where(i)}`,
      ask:
        i === 0 && turn === 180 && passes[pass - 1]?.turn === 0
          ? 'Turn the bar half round between its centres. Leave the indicator where it is.'
          : i === 0 && plane === 'v'
            ? 'Move the indicator over the crown of the bar: rock it across until the needle turns, and read there.'
            : undefined,
    })),
  );
  const first = slots[0];
  if (!close || !first) return slots;
  return [...slots, { ...first, ask: 'Go back to the first place and read it again.', closing: true }];
}

export const tailstockTraverse = defineCheck({
  id: 'tailstock-traverse',
  family: 'traverse',
  title: 'Bar between centres',
  question: 'Is the tail centre in line with the headstock centre, as the carriage sees it?',
  choose: 'Fast, and shows both planes. It trusts the bar and the headstock centre.',
  machines: ['lathe'],
  view: 'carriage',
  trusts: ['the bar is straight and round', 'the headstock centre runs true'],
  sameQuestion: 'tailstock',
  setup,
  reading,
  slotKeys: ['plane', 'at', 'turn', 'swapped'],
  valueKind: 'indicator',
  quantities: {
    ...TAILSTOCK_QUANTITIES,
    ...viewQuantities('spindle'),
    barBow: unlimited('Bow of the bar', 'deviation', 'um', { magnitude: true }),
    taper: unlimited('Taper of the bar, on one side', 'slope', 'um/m'),
  },
  plan,
  conditions: z.strictObject(tailstockConditions('carriage')),
  slots: plannedSlots,
  estimate,
  faults: (setup, readings) =>
    readings.flatMap((entry, i) => {
      const at = entry['at'] as number;
      return at < 0 || at > setup.centreDistance
        ? [
            {
              path: `readings[${i}].at`,
              message: `lies beyond the centres: it is measured from the headstock centre and must be 0 to ${setup.centreDistance} mm`,
              example: '20 mm',
            },
          ]
        : [];
    }),
  corrections: TAILSTOCK_CORRECTIONS,
  part: TAILSTOCK,
  watch: (quantity, setup) =>
    quantity === 'offsetHorizontal'
      ? {
          where: `on the quill, ${setup.side === 'rear' ? 'rear' : "operator's"} side, zeroed`,
          sense: setup.side === 'rear' ? -1 : 1,
          now: 0,
          scale: 1,
        }
      : { where: 'over the quill, zeroed', sense: 1, now: 0, scale: 1 },
  counting: 'The whole difference counts, not half: the bar was not turned, so nothing has been doubled.',
  upsets: ['quill-parallelism', 'tailstock-sweep', 'tailstock-test-cut'],
  cautions: TAILSTOCK_CAUTIONS,
  cannotSee: [
    'The runout of the headstock centre adds straight to this result. Turn the spindle half round and average to take it out.',
    'Missing the crown of the bar reads low.',
    'Wear of the bed: it holds only where the tailstock stands now.',
  ],
  advice: [
    'Lock the quill and clamp the tailstock as they will be used.',
    'Leave the bar just free to turn by hand between its centres: too tight and it bows.',
    'Carry the indicator on the carriage; wind it with the same hand pressure each way.',
  ],
});
