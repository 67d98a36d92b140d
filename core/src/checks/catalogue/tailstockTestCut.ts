import * as z from 'zod';
import { choice, count, measure, optionalMeasure, placeList } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import { dot } from '../../fit/line.js';
import type { Reading } from '../../instruments/slots.js';
import type { Said } from '../../units/said.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot } from '../define.js';
import { linearEstimate, type Doubt } from '../estimate.js';
import { carriedFrom } from '../notes.js';
import { DEAD_CENTRE, MORE_SET_UPS } from '../helps.js';
import { TAILSTOCK } from '../parts.js';
import { unlimited } from '../quantities.js';
import { axisFields, baseSize, centreDistance, centreKind, cutBar, dialField, toolField } from '../setupFields.js';
import { spread } from '../stations.js';
import { REAMED } from '../sweepCheck.js';
import {
  AXIS_DOUBT,
  centreDoubt,
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
import {
  couldHeightMatter,
  crownEstimate,
  cutCorrections,
  cutFits,
  cutWeights,
  deflectedShape,
  strayPads,
  type CutKeys,
} from '../testCut.js';

const setup = z.strictObject({
  centreDistance: centreDistance(),
  held: choice({
    label: 'Head end held',
    choices: [
      { value: 'centres', label: 'between centres' },
      { value: 'chuck', label: 'in the chuck' },
    ],
    help: 'Between centres the work tilts; held in a chuck it bends.',
  }),
  tool: toolField(),
  bar: cutBar(),
  base: baseSize(),
  heightError: optionalMeasure('deviation', {
    label: 'Known height of the tail centre',
    example: '12 um',
    from: 'tailV',
    rare: true,
    help: '+ high. From another check; it hides in the diameters of thin work.',
  }),
  toolHeight: optionalMeasure('length', {
    label: 'Tool above centre',
    example: '0',
    rare: true,
    help: '+ above the spindle centre, 0 on centre.',
  }),
  dial: dialField(),
  centre: centreKind(),
  twistPerMetre: optionalMeasure('twist', {
    label: 'Bed twist',
    from: 'twistPerMetre',
    example: '0',
    rare: true,
    help: 'When the bed twist has been measured.',
  }),
  ...axisFields(),
});
const reading = z.strictObject({
  at: measure('length', { label: 'From the headstock end', example: '50 mm' }),
  temperature: optionalMeasure('temperature', { label: 'Work temperature', min: -40, max: 400, example: '20 C' }),
  toolSetting: optionalMeasure('length', {
    label: 'Tool setting',
    example: '0.05 mm',
    help: 'As the cross dial reads, + deeper: only when the tool was re-set between the pads.',
  }),
});
const plan = z.strictObject({
  stations: count({ label: 'How many pads', min: 2, max: 12, example: '2' }),
  places: placeList({ label: 'Places of the pads', example: '20, 370 mm', min: 2 }),
  reach: choice({
    label: 'Cut',
    choices: [
      { value: 'whole', label: 'from end to end' },
      { value: 'middle', label: 'from the tail end to the middle' },
    ],
  }),
});
type Setup = z.output<typeof setup>;

function notesFor(setup: Setup): Note[] {
  const notes: Note[] = [
    {
      code: 'no-vertical',
      severity: 'info',
      text: 'A cut is blind to the height of the tail centre. Check that with a bar between centres or a sweep.',
    },
  ];
  if (setup.twistPerMetre === undefined) {
    notes.push({
      code: 'twist-unknown',
      severity: 'info',
      text: 'Bed twist is not known. A cut between centres is blind to an even twist (tool and tailstock roll together), and its result holds only where the tailstock stood.',
    });
  }
  if (setup.bar && setup.centreDistance / setup.bar.diameter > 8) {
    notes.push({
      code: 'slender-bar',
      severity: 'warning',
      text: `The bar is ${(setup.centreDistance / setup.bar.diameter).toFixed(0)} diameters long: above 8 it bends under the tool and comes out big in the middle. Take a light cut with a sharp tool.`,
    });
  }
  if (setup.heightError === undefined && setup.bar && couldHeightMatter(setup.bar.diameter, setup.toolHeight ?? 0)) {
    notes.push({
      code: 'height-could-matter',
      severity: 'warning',
      text: 'On work this thin, or with the tool this far off centre, a height error of the tail centre changes the diameter. Measure the height by another check and give it.',
    });
  }
  return notes;
}

/** The slope of the axis that a chuck may have within its usual limits, µm/m. */
const USUAL_AXIS = 50;

/**
 * mm by which the slope of the spindle axis counts in the offset of work held in a chuck: the jaws hold it along the axis, and it bends
 * from there. L − Δz/Δf, for any number of pads.
 */
const axisLever = ({ centreDistance }: Setup, weights: readonly number[], places: readonly number[]): number =>
  centreDistance - dot(weights, places);

/** What a pointing axis adds to the offset, µm, or how much doubt it brings where it is not known; nothing between centres. */
function axisLeak(
  setup: Setup,
  weights: readonly number[],
  places: readonly number[],
): { readonly term?: number; readonly doubt: Doubt } | undefined {
  if (setup.held !== 'chuck') return undefined;
  const lever = axisLever(setup, weights, places) / 1000;
  if (setup.axisSlopeH === undefined) return { doubt: { source: 'spindle-axis', u: (USUAL_AXIS * Math.abs(lever)) / Math.sqrt(3) } };
  return { term: setup.axisSlopeH * lever, doubt: { source: 'spindle-axis', u: AXIS_DOUBT * Math.abs(lever) } };
}

function axisNote(setup: Setup, lever: number | undefined): Note<Said>[] {
  if (setup.held !== 'chuck' || setup.axisSlopeH !== undefined) return [];
  const span = Math.abs(((lever ?? setup.centreDistance) * USUAL_AXIS) / 1000);
  return [
    {
      code: 'axis-unknown',
      severity: 'warning',
      text: (size) =>
        `The jaws hold the work along the spindle axis, and its slope is not known. Within the usual limits it could make ${size(span, 'deviation')} of the result. Check the spindle axis first, or cut between centres.`,
    },
  ];
}

function estimate({ setup, slots }: CheckInput<Setup, CutKeys>): Estimates {
  const L = setup.centreDistance;
  const shape = setup.held === 'chuck' ? deflectedShape(L) : (z: number) => z / L;
  const places = slots.map(({ keys }) => keys.at);
  const slope = cutWeights(places.map(shape));
  const perLength = cutWeights(places);
  const notes = [...notesFor(setup), ...axisNote(setup, slope && axisLever(setup, slope, places))];
  if (!slope || !perLength) return { estimates: [], notes: [TOO_FEW, ...notes] };
  const tool = setup.tool === 'rear' ? -1 : 1;
  const weights = slope.map((weight) => (-tool * weight) / 2);
  const corrections = cutCorrections(slots, { ...setup, shape });
  const terms = Object.fromEntries(Object.entries(corrections).map(([name, amounts]) => [name, dot(weights, amounts)]));
  const leak = axisLeak(setup, slope, places);
  if (leak?.term !== undefined) terms['axis'] = leak.term;
  const doubts: Doubt[] = [
    ...(leak ? [leak.doubt] : []),
    ...centreDoubt(setup.centre),
    { source: 'temperature', u: corrections['temperature'] ? 0.1 * Math.abs(terms['temperature']) : 0 },
  ];
  const offset = linearEstimate('offsetHorizontal', weights, { terms, doubts });
  const taperWeights = perLength.map((weight) => weight * 1000);
  // What the height leaves on a diameter is on the work, whatever becomes of the offset.
  const sized = Object.fromEntries(Object.entries(corrections).filter(([name]) => name !== 'heightError'));
  const taper = linearEstimate('taper', taperWeights, {
    terms: Object.fromEntries(Object.entries(sized).map(([name, amounts]) => [name, dot(taperWeights, amounts)])),
  });
  return {
    estimates: [offset, taper, ...crownEstimate(slots, sized), ...otherView([offset], setup, 'spindle')],
    notes,
    fits: cutFits(slots, shape, corrections, ['offsetHorizontal', 'spindleOffsetHorizontal', 'taper']),
  };
}

function faults(setup: Setup, readings: readonly Reading<CutKeys>[]): Fault[] {
  const found: Fault[] = [
    ...strayPads(readings),
    ...readings.flatMap(({ at }, i): Fault[] =>
      at < 0 || at > setup.centreDistance
        ? [
            {
              path: `readings[${i}].at`,
              message: `is beyond the work: it is measured from the headstock end and must be 0 to ${setup.centreDistance} mm`,
              example: '50 mm',
            },
          ]
        : [],
    ),
  ];
  const missing = readings.findIndex((entry) => entry.temperature === undefined);
  if (missing >= 0 && readings.some((entry) => entry.temperature !== undefined)) {
    found.push({
      path: `readings[${missing}].temperature`,
      message: 'is missing: some readings have one, so every reading needs it',
      example: '20 C',
    });
  }
  return found;
}

function plannedSlots(setup: Setup, { stations = 2, reach = 'whole', places: own }: z.output<typeof plan>): PlannedSlot[] {
  const all = spread(setup.centreDistance, reach === 'middle' ? 2 * stations - 1 : stations);
  const places = own ?? (reach === 'middle' ? all.slice(stations - 1) : all);
  const last = places.length - 1;
  return places.map((at, i) => ({
    keys: { at },
    label:
      i === 0 && reach === 'whole'
        ? 'Diameter of the pad at the headstock'
        : i === last
          ? 'Diameter of the pad at the tailstock'
          : i === 0
            ? 'Diameter of the pad in the middle'
            : `Diameter of pad ${i + 1}`,
    movable: 'places',
    ask: i === 0 ? 'Turn all pads in one pass without touching the cross slide. Let them cool, then measure.' : undefined,
  }));
}

export const tailstockTestCut = defineCheck({
  id: 'tailstock-test-cut',
  family: 'test-cut',
  title: 'Test cut',
  question: 'Does it turn parallel between centres?',
  choose: 'The truth for turning. It is blind to height and to an even twist of the bed.',
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  setup,
  reading,
  plan,
  conditions: z.strictObject(tailstockConditions()),
  slotKeys: ['at'],
  cuts: true,
  // Held in a chuck the work bends: the part of its bend between the pads counts, not their distance.
  reach: (_quantity, { centreDistance, held }, slots) => {
    const carried = carriedFrom(
      centreDistance,
      slots.map(({ keys }) => keys.at),
    );
    if (!carried || held !== 'chuck') return carried;
    const shape = deflectedShape(centreDistance);
    const parts = slots.map(({ keys }) => shape(keys.at));
    const part = Math.max(...parts) - Math.min(...parts);
    return part > 0 ? { ...carried, factor: 1 / part } : undefined;
  },
  beside: [
    { key: 'temperature', stays: true },
    { key: 'toolSetting', stays: true },
  ],
  reads: 'size',
  spokenOver: ({ base }) => base,
  turnedFrom: ({ bar }) => bar?.diameter,
  quantities: {
    offsetHorizontal: TAILSTOCK_QUANTITIES.offsetHorizontal,
    spindleOffsetHorizontal: viewQuantities('spindle')['spindleOffsetHorizontal'],
    taper: unlimited('Taper of the work, on diameter', 'slope', 'um/m', {
      words: { plus: 'bigger at the tailstock', minus: 'smaller at the tailstock', movePlus: '', moveMinus: '' },
    }),
    crown: unlimited('Middle against the ends, on diameter', 'deviation', 'um', {
      words: { plus: 'bigger in the middle', minus: 'smaller in the middle', movePlus: '', moveMinus: '' },
    }),
  },
  slots: plannedSlots,
  faults,
  estimate,
  corrections: { offsetHorizontal: TAILSTOCK_CORRECTIONS['offsetHorizontal'] },
  part: TAILSTOCK,
  watch: () => ({ where: QUILL_SPOTS.near, sense: 1, now: 0, scale: 1 }),
  view: 'carriage',
  proves: true,
  picture: { drawing: 'turned-bar', bends: { h: 'offsetHorizontal' } },
  hangsOn: ['bed-twist', 'way-straightness', 'tailstock-way-parallelism', 'centre-runout', 'spindle-axis', 'quill-parallelism'],
  rests: ['headstock', 'tailstock', 'saddle'],
  after: ['tailstock-sweep'],
  knows: [{ quantity: 'offsetHorizontal', name: 'tailH' }],
  sameQuestion: 'tailstock',
  fromJob: {
    taper: taperBetweenCentres,
    // It is blind to height: a reamed hole takes its share sideways only.
    'reamed-hole': (work) => REAMED(work).filter(({ quantity }) => quantity === 'offsetHorizontal'),
  },
  helps: [DEAD_CENTRE, MORE_SET_UPS],
  reseat: 'Take another light cut and measure again',
  trusts: ['the pads were measured at one temperature', 'the tool did not move between the pads', 'the bed is not twisted unevenly'],
  counting: 'Half the difference of the diameters, carried on to the tail centre: a diameter shows an offset twice.',
  cautions: [...TAILSTOCK_CAUTIONS, 'Chuck key out of the chuck. Turned pads are hot and measure big: let them cool.'],
  cannotSee: [
    'The height of the tail centre.',
    'An even twist of the bed: tool and tailstock roll together.',
    'The tailstock anywhere but where it stood for the cut.',
  ],
  advice: [
    'Sharp tool, light finishing cut, the same feed over all pads.',
    'Measure the pads at the same temperature, or give the temperature of each.',
    'If the tool had to be re-set for the second pad, give both settings.',
  ],
});
