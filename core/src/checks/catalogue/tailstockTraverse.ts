import * as z from 'zod';
import { RESEATED } from '../reseating.js';
import { choice, count, fieldRegistry, measure, placeList } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import { centresPush, centresSag } from '../../gravity/bars.js';
import { dot } from '../../fit/line.js';
import type { Reading, Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot } from '../define.js';
import { diameterDoubt } from '../barDiameters.js';
import { lineFits, type Fit } from '../fits.js';
import { carriedFrom } from '../notes.js';
import { largestEstimate, linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { DEAD_CENTRE, MEASURE_BAR, MORE_SET_UPS, TURN_BAR, TURN_SPINDLE } from '../helps.js';
import { TAILSTOCK } from '../parts.js';
import { unlimited } from '../quantities.js';
import {
  axisFields,
  barError,
  centreDistance,
  centreKind,
  centresBar,
  diameterDifference,
  measuredAt,
  planeKey,
  roundBar,
  turnKey,
} from '../setupFields.js';
import { spread } from '../stations.js';
import { REAMED } from '../sweepCheck.js';
import {
  centreDoubt,
  headCentreDoubt,
  headCentreRunout,
  otherView,
  taperBetweenCentres,
  TAILSTOCK_CAUTIONS,
  TAILSTOCK_CORRECTIONS,
  QUILL_SPOTS,
  TAILSTOCK_QUANTITIES,
  tailstockConditions,
  TOO_FEW,
  viewQuantities,
} from '../tailstock.js';
import { referenceSlope, reversalForms, traverseLine, type TraverseKeys, type TraverseLine } from '../traverse.js';

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
  centreRunout: headCentreRunout(),
  ...axisFields(),
});
const reading = z.strictObject({
  plane: planeKey(),
  at: measure('length', { label: 'From the headstock centre', example: '20 mm' }),
  turn: turnKey(),
  swapped: z.boolean({ error: 'must be true or false' }).optional(),
});
const plan = z.strictObject({
  stations: count({ label: 'How many places along the bar', min: 2, max: 12, example: '2' }),
  places: placeList({ label: 'Their places', example: '20, 380 mm', min: 2 }),
  planes: choice({
    label: 'Read',
    choices: [
      { value: 'both', label: 'side and top' },
      { value: 'h', label: 'side only' },
    ],
  }),
  turned: z.boolean().optional().register(fieldRegistry, {
    label: 'Turn spindle and bar half round together and read again',
    help: 'Takes the bow of the bar and the runout of the headstock centre out of the result.',
  }),
  swapped: z
    .boolean()
    .optional()
    .register(fieldRegistry, { label: 'Swap the ends of the bar and read again', help: 'Takes its taper out of the result.', rare: true }),
  close: z
    .boolean()
    .optional()
    .register(fieldRegistry, { label: 'Come back to the first place at the end', help: 'Shows whether anything moved.' }),
});
type Setup = z.output<typeof setup>;
type Plane = 'h' | 'v';

/** Which place of the bar a reading touches: counted from the end that is at the headstock when the ends are not swapped. */
const barPlace = ({ at, swapped = false }: TraverseKeys, length: number): number => (swapped ? length - at : at);

/** −1 where the needle sees the side from the rear: there it counts the other way. */
const sideSign = (plane: Plane, { side }: Setup): number => (plane === 'h' && side === 'rear' ? -1 : 1);

function planeEstimate(
  plane: Plane,
  line: TraverseLine,
  { setup, slots, instrument }: CheckInput<Setup, TraverseKeys>,
): { readonly estimate: Estimate; readonly fits: readonly Fit[] } {
  const name = plane === 'h' ? 'offsetHorizontal' : 'offsetVertical';
  const weights = line.weights.map((weight) => weight * sideSign(plane, setup) * setup.centreDistance);
  const bar = roundBar(setup.bar);
  const sagAt = ({ at }: TraverseKeys): number => (bar && plane === 'v' ? centresSag(bar, setup.centreDistance, at) : 0);
  const pushAt = ({ at }: TraverseKeys): number =>
    bar && instrument?.contactForce ? centresPush(bar, setup.centreDistance, instrument.contactForce, at) : 0;
  const radiusAt = (keys: TraverseKeys): number =>
    setup.bar?.diameters?.length ? -500 * diameterDifference(setup.bar.diameters, barPlace(keys, setup.centreDistance)) : 0;
  const over = (correction: (keys: TraverseKeys) => number) =>
    dot(
      weights,
      slots.map(({ keys }, i) => (line.weights[i] === 0 ? 0 : correction(keys))),
    );
  const [sag, push, diameter] = [over(sagAt), over(pushAt), over(radiusAt)];
  const finish = setup.bar?.finish ?? 'ground';
  const read = slots.flatMap(({ keys }, i) =>
    weights[i] === 0 ? [] : [{ place: barPlace(keys, setup.centreDistance), weight: weights[i] }],
  );
  const measured = measuredAt(
    setup.bar?.diameters,
    read.map(({ place }) => place),
  );
  // Turned half round the bow drops out; an uneven diameter does not, but it does where the ends were swapped.
  const perPlace = Math.hypot(...weights) / Math.sqrt(3);
  const doubts: Doubt[] = [
    { source: 'bar-straightness', u: (line.turned.pairs.length ? 0 : barError(finish)) * perPlace },
    diameterDoubt(read, line.swapped.reversed || measured ? 0.3 : barError(finish)),
    { source: 'bar-droop', u: 0.03 * Math.abs(sag) },
    { source: 'stylus-push', u: 0.03 * Math.abs(push) },
    ...centreDoubt(setup.centre),
    ...headCentreDoubt(line.turned.pairs.length ? 0 : setup.centreRunout),
  ];
  const terms = { sag, ...(push !== 0 && { push }), ...(Math.abs(diameter) > 1e-9 && { diameter }) };
  // A bar turned where it stands proves itself, unless its diameters tell what the tool left.
  const never = finish === 'turned-here' && !measured ? 'in' : undefined;
  const fits = lineFits(slots, line, {
    added: (i) => sagAt(slots[i].keys) + pushAt(slots[i].keys) + radiusAt(slots[i].keys),
    form: barError(finish) / Math.sqrt(3),
    widens: [name, plane === 'h' ? 'spindleOffsetHorizontal' : 'spindleOffsetVertical'],
  });
  return { estimate: linearEstimate(name, weights, { terms, doubts, open: line.open, never }), fits };
}

/** What the bar itself is: its bow (turned half round) or its taper (ends swapped). */
function barEstimates(line: TraverseLine, { slots }: CheckInput<Setup, TraverseKeys>): Estimate[] {
  if (line.open) return [];
  const taper = line.swapped.reversed ? referenceSlope('taper', line, 1000) : [];
  const forms = reversalForms(slots, line.turned);
  if (forms.length < 2) return taper;
  const { worst, ...bow } = largestEstimate(
    'barBow',
    forms.map(({ form }) => form),
    slots.map((slot) => slot.value),
  );
  return [{ ...bow, detail: { at: forms[worst].place } }, ...taper];
}

function estimate(input: CheckInput<Setup, TraverseKeys>): Estimates {
  const { slots, setup } = input;
  const values = slots.map((slot) => slot.value);
  const notes: Note[] = [];
  const estimates: Estimate[] = [];
  const fits: Fit[] = [];
  const bars: Estimate[] = [];
  for (const plane of ['h', 'v'] as const) {
    const line = traverseLine(slots, ({ keys }) => keys.plane === plane);
    if (!line) continue;
    const own = planeEstimate(plane, line, input);
    estimates.push(own.estimate);
    fits.push(...own.fits);
    bars.push(...barEstimates(line, input));
  }
  const bow = bars.filter((bar) => bar.name === 'barBow').sort((a, b) => b.evaluate(values) - a.evaluate(values));
  estimates.push(...bow.slice(0, 1), ...bars.filter((bar) => bar.name === 'taper').slice(0, 1), ...otherView(estimates, setup, 'spindle'));
  if (estimates.length === 0) return { estimates, notes: [TOO_FEW] };
  if (!estimates.some((entry) => entry.name === 'offsetVertical')) {
    notes.push({ code: 'no-vertical', severity: 'info', text: 'No height yet: it needs readings over the top at two places.' });
  }
  if (setup.bar?.finish === 'turned-here') {
    notes.push({
      code: 'self-made-evidence',
      severity: 'serious',
      text: 'This bar was turned in this set-up: from the tool side it reads zero whatever its taper, so it checks nothing. Use a ground bar, or measure its diameters.',
    });
  }
  return { estimates, notes, fits };
}

function plannedSlots(
  setup: Setup,
  { stations = 2, planes = 'both', turned = false, swapped = false, close = true, places: own }: z.output<typeof plan>,
): PlannedSlot[] {
  const places = own ?? spread(setup.centreDistance, stations);
  const last = places.length - 1;
  const where = (i: number) => (i === 0 ? 'near the headstock' : i === last ? 'near the tailstock' : `place ${i + 1} of ${places.length}`);
  const side = setup.side === 'rear' ? 'Rear' : 'Operator’s side';
  const ways = turned
    ? [{ turn: 0 }, { turn: 180, ask: 'Turn the spindle half round by hand, and the bar with it. Leave the indicator where it is.' }]
    : swapped
      ? [{ swapped: false }, { swapped: true, ask: 'Take the bar out, swap its ends and put it back.' }]
      : [{}];
  const slots: PlannedSlot[] = ways.flatMap(({ ask, ...keys }: { ask?: string; turn?: number; swapped?: boolean }) =>
    (planes === 'h' ? (['h'] as const) : (['h', 'v'] as const)).flatMap((plane, pass) =>
      places.map((at, i) => ({
        keys: { plane, at, ...keys },
        label: `${plane === 'h' ? side : 'Top'}, ${where(i)}`,
        movable: 'places',
        ask:
          i === 0 && pass === 0 && ask
            ? ask
            : i === 0 && plane === 'v'
              ? 'Move the indicator over the crown of the bar: rock it across until the needle turns, and read there.'
              : undefined,
      })),
    ),
  );
  const first = slots[0];
  if (!close || !first) return slots;
  return [...slots, { ...first, ask: 'Go back to the first place and read it again.', closing: true }];
}

const placesIn = (slots: readonly Slot<TraverseKeys>[], plane: Plane): number[] =>
  slots.filter(({ keys }) => keys.plane === plane).map(({ keys }) => keys.at);

const faults = (setup: Setup, readings: readonly Reading<TraverseKeys>[]): Fault[] =>
  readings.flatMap(({ at }, i) =>
    at < 0 || at > setup.centreDistance
      ? [
          {
            path: `readings[${i}].at`,
            message: `is beyond the centres: it is measured from the headstock centre and must be 0 to ${setup.centreDistance} mm`,
            example: '20 mm',
          },
        ]
      : [],
  );

export const tailstockTraverse = defineCheck({
  id: 'tailstock-traverse',
  family: 'traverse',
  title: 'Bar between centres',
  question: 'Is the tail centre in line with the headstock centre, as the carriage sees it?',
  choose: 'Fast, and shows both planes. It trusts the bar and the headstock centre.',
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  setup,
  reading,
  plan,
  conditions: z.strictObject(tailstockConditions('carriage')),
  slotKeys: ['plane', 'at', 'turn', 'swapped'],
  reads: 'indicator',
  quantities: {
    ...TAILSTOCK_QUANTITIES,
    ...viewQuantities('spindle'),
    barBow: unlimited('Bow of the bar', 'deviation', 'um', { magnitude: true }),
    taper: unlimited('Taper of the bar, on one side', 'slope', 'um/m'),
  },
  slots: plannedSlots,
  faults,
  estimate,
  corrections: TAILSTOCK_CORRECTIONS,
  part: TAILSTOCK,
  watch: (quantity, setup) =>
    quantity === 'offsetHorizontal'
      ? {
          where: setup.side === 'rear' ? QUILL_SPOTS.rear : QUILL_SPOTS.near,
          sense: setup.side === 'rear' ? -1 : 1,
          now: 0,
          scale: 1,
        }
      : { where: QUILL_SPOTS.top, sense: 1, now: 0, scale: 1 },
  view: 'carriage',
  picture: { drawing: 'bar-between-centres', bends: { h: 'offsetHorizontal', v: 'offsetVertical' } },
  hangsOn: ['bed-twist', 'way-straightness', 'tailstock-way-parallelism', 'centre-runout', 'spindle-axis', 'quill-parallelism'],
  rests: ['headstock', 'tailstock', 'saddle'],
  knows: [
    { quantity: 'offsetHorizontal', name: 'tailH' },
    { quantity: 'offsetVertical', name: 'tailV' },
  ],
  sameQuestion: 'tailstock',
  fromJob: { taper: taperBetweenCentres, 'reamed-hole': REAMED },
  helps: [TURN_BAR, TURN_SPINDLE, MEASURE_BAR, DEAD_CENTRE, MORE_SET_UPS],
  reseat: 'Take the bar out, put it back and read again',
  reseatSpread: RESEATED,
  reach: (quantity, { centreDistance }, slots) => carriedFrom(centreDistance, placesIn(slots, quantity === 'offsetHorizontal' ? 'h' : 'v')),
  trusts: ['the bar is straight and round', 'the headstock centre runs true'],
  counting: 'The whole difference counts, not half: the bar was not turned, so nothing has been doubled.',
  cautions: TAILSTOCK_CAUTIONS,
  cannotSee: [
    'The runout of the headstock centre adds straight to this result. Turn the spindle half round and average to take it out.',
    'Missing the crown of the bar reads low.',
    'Wear of the bed: the result holds only where the tailstock is now.',
  ],
  advice: [
    'Lock the quill and clamp the tailstock as they will be used.',
    'Leave the bar just free to turn by hand between its centres: too tight and it bows.',
    'Carry the indicator on the carriage; wind it with the same hand pressure each way.',
  ],
});
