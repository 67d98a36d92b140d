import * as z from 'zod';
import { choice, count, measure, optionalMeasure } from '../../fields.js';
import type { Fault } from '../../faults.js';
import { dot } from '../../fit/line.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot } from '../define.js';
import { linearEstimate, type Doubt } from '../estimate.js';
import { axisFields, centreDistance, centreKind, cutBar, toolField } from '../setupFields.js';
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
import { couldHeightMatter, cutCorrections, cutWeights, deflectedShape } from '../testCut.js';
import { spread } from './tailstockTraverse.js';
import { TAILSTOCK } from '../../moves/parts.js';

const setup = z.strictObject({
  centreDistance: centreDistance(),
  held: choice({
    label: 'Head end held',
    choices: [
      { value: 'centres', label: 'between centres' },
      { value: 'chuck', label: 'in the chuck' },
    ],
    help: 'Between centres the work swings; held in a chuck it bends.',
  }),
  tool: toolField(),
  bar: cutBar(),
  heightError: optionalMeasure('deviation', {
    label: 'Known height of the tail centre',
    example: '12 um',
    rare: true,
    help: '+ high. From another check; it hides in the diameters of thin work.',
  }),
  toolHeight: optionalMeasure('length', {
    label: 'Tool above centre',
    example: '0',
    rare: true,
    help: '+ above the spindle centre, 0 on centre.',
  }),
  centre: centreKind(),
  twistPerMetre: optionalMeasure('twist', {
    label: 'Bed twist',
    from: 'bed-twist/twistPerMetre',
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
    help: 'Dial in diameter, + deeper: only when the tool was re-set between the pads.',
  }),
});

const plan = z.strictObject({
  stations: count({ label: 'Pads turned', min: 2, max: 6, example: '2' }),
  reach: choice({
    label: 'Cut as far as',
    choices: [
      { value: 'whole', label: 'both ends' },
      { value: 'middle', label: 'the middle of the bar' },
    ],
  }),
});

type Setup = z.output<typeof setup>;

function notesFor(setup: Setup, known: boolean): Note[] {
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
  if (!known && setup.bar && couldHeightMatter(setup.bar.diameter, setup.toolHeight ?? 0)) {
    notes.push({
      code: 'height-could-matter',
      severity: 'warning',
      text: 'On work this thin, or with the tool this far off centre, a height error of the tail centre changes the diameter. Measure the height by another check and give it.',
    });
  }
  return notes;
}

function estimate({ setup, slots }: CheckInput<Setup>): Estimates {
  const L = setup.centreDistance;
  const shape = setup.held === 'chuck' ? deflectedShape(L) : (z: number) => z / L;
  const places = slots.map((slot) => slot.keys['at'] as number);
  const slope = cutWeights(places.map(shape));
  const perLength = cutWeights(places);
  const notes = notesFor(setup, setup.heightError !== undefined);
  if (!slope || !perLength) return { estimates: [], notes: [TOO_FEW, ...notes] };
  const tool = setup.tool === 'rear' ? -1 : 1;
  const weights = slope.map((weight) => (-tool * weight) / 2);
  const corrections = cutCorrections(slots, { ...setup, shape });
  const terms = Object.fromEntries(Object.entries(corrections).map(([name, amounts]) => [name, dot(weights, amounts)]));
  const doubts: Doubt[] = [
    ...centreDoubt(setup.centre),
    { source: 'temperature of the pads', u: corrections['temperature'] ? 0.1 * Math.abs(terms['temperature']) : 0 },
  ];
  const offset = linearEstimate('offsetHorizontal', weights, { terms, doubts });
  const taperWeights = perLength.map((weight) => weight * 1000);
  const sized = Object.entries(corrections).filter(([name]) => name !== 'heightError');
  const taper = linearEstimate('taper', taperWeights, {
    terms: Object.fromEntries(sized.map(([name, amounts]) => [name, dot(taperWeights, amounts)])),
  });
  return { estimates: [offset, taper, ...otherView([offset], setup, 'spindle')], notes };
}

function faults(setup: Setup, readings: readonly Readonly<Record<string, unknown>>[]): Fault[] {
  const found: Fault[] = readings.flatMap((entry, i) => {
    const at = entry['at'] as number;
    return at < 0 || at > setup.centreDistance
      ? [
          {
            path: `readings[${i}].at`,
            message: `lies beyond the work: it is measured from the headstock end and must be 0 to ${setup.centreDistance} mm`,
            example: '50 mm',
          },
        ]
      : [];
  });
  const missing = readings.findIndex((entry) => entry['temperature'] === undefined);
  if (missing >= 0 && readings.some((entry) => entry['temperature'] !== undefined)) {
    found.push({
      path: `readings[${missing}].temperature`,
      message: 'is missing: some readings have one, so every reading needs it',
      example: '20 C',
    });
  }
  return found;
}

function plannedSlots(setup: Setup, { stations = 2, reach = 'whole' }: z.output<typeof plan>): PlannedSlot[] {
  const places =
    reach === 'middle' ? spread(setup.centreDistance, 2 * stations - 1).slice(0, stations) : spread(setup.centreDistance, stations);
  return places.map((at, i) => ({
    keys: { at },
    label:
      i === 0
        ? 'Diameter of the pad at the headstock'
        : i === stations - 1 && reach === 'whole'
          ? 'Diameter of the pad at the tailstock'
          : `Diameter of pad ${i + 1}`,
    ask: i === 0 ? 'Turn all pads in one pass without touching the cross slide. Let them cool, then measure.' : undefined,
  }));
}

export const tailstockTestCut = defineCheck({
  id: 'tailstock-test-cut',
  family: 'test-cut',
  title: 'Test cut',
  question: 'Does the lathe turn parallel between centres?',
  choose: 'The truth for turning. It is blind to height and to an even twist of the bed.',
  machines: ['lathe'],
  view: 'carriage',
  trusts: ['the pads were measured at one temperature', 'the tool did not move between the pads', 'the bed is not twisted unevenly'],
  sameQuestion: 'tailstock',
  setup,
  reading,
  slotKeys: ['at'],
  valueKind: 'size',
  quantities: {
    offsetHorizontal: TAILSTOCK_QUANTITIES.offsetHorizontal,
    spindleOffsetHorizontal: viewQuantities('spindle')['spindleOffsetHorizontal'],
    taper: unlimited('Taper of the work, on diameter', 'slope', 'um/m', {
      words: { plus: 'bigger at the tailstock', minus: 'smaller at the tailstock', movePlus: '', moveMinus: '' },
    }),
  },
  plan,
  conditions: z.strictObject(tailstockConditions()),
  slots: plannedSlots,
  estimate,
  faults,
  corrections: { offsetHorizontal: TAILSTOCK_CORRECTIONS['offsetHorizontal'] },
  part: TAILSTOCK,
  watch: () => ({ where: "on the quill, operator's side, zeroed", sense: 1, now: 0, scale: 1 }),
  counting: 'Half the difference of the diameters, carried on to the tail centre: a diameter shows an offset twice.',
  upsets: ['quill-parallelism', 'tailstock-traverse', 'tailstock-sweep'],
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
