import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { heldPush, heldSag } from '../../gravity/bars.js';
import { dot } from '../../fit/line.js';
import { defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, plannedPlaces, shortBase, sideField, stationPlan, stepped, tooFew } from '../common.js';
import { centresBar, cutBar } from '../setupFields.js';
import { cutCorrections, cutWeights } from '../testCut.js';
import { traverseLine } from '../traverse.js';
import { unlimited } from '../tailstock.js';
import { HEADSTOCK, SADDLE, TAILSTOCK } from '../../moves/parts.js';

const axisWords = {
  plus: 'pointing toward the operator',
  minus: 'pointing away from the operator',
  movePlus: 'toward the operator at its free end',
  moveMinus: 'away from the operator at its free end',
};

const chuckSetup = z.strictObject({
  tool: choice({
    label: 'Tool stands',
    choices: [
      { value: 'operator', label: "on the operator's side" },
      { value: 'rear', label: 'behind the work' },
    ],
  }),
  bar: cutBar(),
  twistPerMetre: optionalMeasure('twist', { label: 'Bed twist', from: 'bed-twist/twistPerMetre', example: '0' }),
  heightAboveWays: optionalMeasure('length', { label: 'Spindle above the ways', min: 0, example: '180 mm' }),
});
const cutReading = z.strictObject({
  at: measure('length', { label: 'From the chuck', min: 0, example: '10 mm' }),
  temperature: optionalMeasure('temperature', { label: 'Work temperature', min: -40, max: 400, example: '20 C' }),
  toolSetting: optionalMeasure('length', { label: 'Tool setting', example: '0.05 mm' }),
});

function chuckEstimate({ setup, slots }: CheckInput<z.output<typeof chuckSetup>>): Estimates {
  const slope = cutWeights(slots.map((slot) => slot.keys['at'] as number));
  const known = setup.twistPerMetre !== undefined && setup.heightAboveWays !== undefined;
  const notes: Note[] = known
    ? []
    : [
        {
          code: 'twist-unknown',
          severity: 'info',
          text: 'Bed twist is not known: it leaks into this cut by the twist per metre times the height above the ways.',
        },
      ];
  const length = Math.max(0, ...slots.map((slot) => slot.keys['at'] as number));
  if (setup.bar && length / setup.bar.diameter > 4)
    notes.push({
      code: 'slender-bar',
      severity: 'warning',
      text: `The bar stands out ${(length / setup.bar.diameter).toFixed(0)} diameters: it bends away from the tool and comes out big at its free end. Take light cuts, or a stouter bar.`,
    });
  if (!slope) return { estimates: [], notes: [tooFew('two diameters'), ...notes] };
  const tool = setup.tool === 'rear' ? -1 : 1;
  const weights = slope.map((weight) => -500 * tool * weight);
  const terms = Object.fromEntries(
    Object.entries(cutCorrections(slots, { bar: setup.bar, shape: () => 0 })).map(([name, amounts]) => [name, dot(weights, amounts)]),
  );
  const twist = known ? (-(setup.twistPerMetre ?? 0) * (setup.heightAboveWays ?? 0)) / 1000 : 0;
  const estimates = [
    linearEstimate('slopeH', weights, { terms: { ...terms, ...(twist !== 0 && { twist }) } }),
    linearEstimate(
      'taper',
      slope.map((weight) => 1000 * weight),
    ),
  ];
  return { estimates, notes };
}

export const chuckTestCut = defineCheck({
  id: 'chuck-test-cut',
  family: 'test-cut',
  title: 'Cut in the chuck',
  question: 'Does it turn parallel without the tailstock?',
  choose: 'The truth for short work: where the spindle axis points to the carriage, under a cut.',
  machines: ['lathe'],
  setup: chuckSetup,
  reading: cutReading,
  slotKeys: ['at'],
  valueKind: 'size',
  quantities: {
    slopeH: {
      label: 'Spindle axis sideways',
      subject: 'The axis',
      dimension: 'slope',
      unit: 'um/m',
      limit: [0, 50],
      words: axisWords,
      work: { perUnit: 0.2, what: 'taper on diameter over 100 mm' },
    },
    taper: unlimited('Taper of the work, on diameter', 'slope', 'um/m'),
  },
  plan: stationPlan('Pads turned', 2),
  conditions: z.strictObject({}),
  slots: (_setup, { stations = 2 }) => plannedPlaces(stepped(stations, 150 / (stations - 1)), (at) => `Diameter ${at} mm from the chuck`),
  casting: 'headstock',
  estimate: chuckEstimate,
  corrections: { slopeH: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] } },
  part: HEADSTOCK,
  counting: 'Half the difference of the diameters.',
  upsets: [],
  cautions: [ISOLATE, 'Chuck key out of the chuck. Hot work burns and measures big.'],
  cannotSee: ['The height of the axis.', 'Bed twist, unless it is known.', 'A bar that bends under the tool.'],
  advice: ['Stout bar, sharp tool, light cut.', 'Never smaller at the chuck.'],
});

const quillSetup = z.strictObject({
  side: sideField(),
  bar: centresBar(),
  freeLength: optionalMeasure('length', { label: 'Bar stands out', above: 0, example: '200 mm' }),
});
const quillReading = z.strictObject({
  plane: z.enum(['h', 'v'], { error: 'must be "h" (side) or "v" (top)' }),
  at: measure('length', {
    label: 'Along the quill',
    help: 'From where it leaves the tailstock, growing toward its free end.',
    example: '0 mm',
  }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
});

function quillEstimate({ setup, slots, instrument }: CheckInput<z.output<typeof quillSetup>>): Estimates {
  const estimates = (['h', 'v'] as const).flatMap((plane): Estimate[] => {
    const line = traverseLine(slots, ['turn'], (slot) => slot.keys['plane'] === plane);
    if (!line) return [];
    const side = plane === 'h' && setup.side === 'rear' ? -1 : 1;
    const weights = line.weights.map((weight) => 1000 * side * weight);
    const { bar, freeLength } = setup;
    const over = (correction: (at: number) => number) =>
      dot(
        weights,
        slots.map((slot) => correction(Math.min(Math.abs(slot.keys['at'] as number), freeLength ?? 0))),
      );
    const sag = bar && freeLength && plane === 'v' ? over((at) => heldSag(bar, freeLength, at)) : 0;
    const push = bar && freeLength && instrument?.contactForce ? over((at) => heldPush(bar, instrument.contactForce, at)) : 0;
    const terms = { ...(sag !== 0 && { sag }), ...(push !== 0 && { push }) };
    return [
      linearEstimate(plane === 'h' ? 'slopeH' : 'slopeV', weights, {
        terms,
        doubts: [{ source: 'droop of the bar', u: 0.05 * Math.abs(sag) }],
      }),
    ];
  });
  const places = slots.map((slot) => slot.keys['at'] as number);
  return {
    estimates,
    notes: estimates.length ? shortBase(Math.max(...places) - Math.min(...places)) : [tooFew('two places along the quill')],
  };
}

export const quillParallelism = defineCheck({
  id: 'quill-parallelism',
  family: 'traverse',
  title: 'Quill',
  question: 'Does the quill run parallel to the carriage?',
  choose: 'When drilling and reaming matter: a quill that slopes leaves the axis as it comes out.',
  machines: ['lathe'],
  setup: quillSetup,
  reading: quillReading,
  slotKeys: ['plane', 'at', 'turn'],
  valueKind: 'indicator',
  quantities: {
    slopeH: { label: 'Quill sideways', subject: 'The quill', dimension: 'slope', unit: 'um/m', limit: [0, 100], words: axisWords },
    slopeV: {
      label: 'Quill in height',
      subject: 'The quill',
      dimension: 'slope',
      unit: 'um/m',
      limit: [0, 100],
      words: {
        plus: 'rising toward its free end',
        minus: 'drooping toward its free end',
        movePlus: 'raise its free end',
        moveMinus: 'lower its free end',
      },
    },
  },
  plan: stationPlan('Places along the quill', 2),
  conditions: z.strictObject({
    quillLock: choice({
      label: 'Quill lock',
      choices: [
        { value: 'on', label: 'locked' },
        { value: 'off', label: 'free' },
      ],
    }),
  }),
  slots: (_setup, { stations = 2 }) =>
    (['h', 'v'] as const).flatMap((plane) =>
      stepped(stations, 100 / (stations - 1)).map((at) => ({
        keys: { plane, at },
        label: `${plane === 'h' ? 'Side' : 'Top'}, ${at === 0 ? 'where it leaves the tailstock' : `${at} mm toward its free end`}`,
      })),
    ),
  estimate: quillEstimate,
  corrections: {
    slopeV: { plus: ['base-shims', 'scrape'], minus: ['base-shims', 'scrape'] },
    slopeH: { plus: ['scrape'], minus: ['scrape'] },
  },
  part: TAILSTOCK,
  counting: 'The whole difference counts: nothing has been turned.',
  upsets: ['tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut'],
  cautions: [ISOLATE],
  cannotSee: ['Slack of the quill: lock it as it is used.'],
  advice: ['Read the quill itself, well out and locked, or a bar in its taper turned half round.'],
});

const facingSetup = z.strictObject({
  method: choice({
    label: 'Method',
    choices: [
      { value: 'faced-disc', label: 'a disc faced here, read past its centre' },
      { value: 'reversed-disc', label: 'a disc turned half round' },
    ],
  }),
});
const facingReading = z.strictObject({
  at: measure('length', { label: 'Past the centre', example: '60 mm' }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
});

function facingEstimate({ setup, slots, instrument }: CheckInput<z.output<typeof facingSetup>>): Estimates {
  const line = traverseLine(slots, ['turn']);
  if (!line) return { estimates: [], notes: [tooFew('the centre and the rim beyond it')] };
  // Past the centre a faced disc shows the slide's error twice; a disc turned half round shows it once.
  const factor = setup.method === 'reversed-disc' ? 1000 : 500;
  const estimates = [
    linearEstimate(
      'slope',
      line.weights.map((weight) => factor * weight),
    ),
  ];
  if (setup.method === 'reversed-disc' && line.byWay.length === 2) {
    const [a, b] = line.byWay;
    estimates.push(
      linearEstimate(
        'discSlope',
        a.map((weight, i) => 500 * (weight - b[i])),
      ),
    );
  }
  const notes: Note[] =
    setup.method === 'reversed-disc' && line.byWay.length < 2
      ? [
          {
            code: 'disc-not-reversed',
            severity: 'warning',
            text: 'The disc has been read one way only: its own wobble is still in the result.',
          },
        ]
      : [];
  const places = slots.map((slot) => slot.keys['at'] as number);
  return { estimates, notes: [...notes, ...(instrument ? shortBase(2 * (Math.max(...places) - Math.min(...places))) : [])] };
}

export const crossSlideSquareness = defineCheck({
  id: 'cross-slide-squareness',
  family: 'traverse',
  title: 'Cross slide',
  question: 'Does it face flat, or a little hollow?',
  choose: 'Last of all: headstock and saddle both go into it.',
  machines: ['lathe', 'turning-centre'],
  setup: facingSetup,
  reading: facingReading,
  slotKeys: ['at', 'turn'],
  valueKind: 'indicator',
  quantities: {
    slope: {
      label: 'Facing',
      subject: 'The cross slide',
      dimension: 'slope',
      work: { perUnit: 0.1, what: 'hollow in a faced disc of 200 mm' },
      unit: 'um/m',
      limit: [0, 67],
      words: {
        plus: 'facing hollow',
        minus: 'facing crowned',
        movePlus: 'so that it faces more hollow',
        moveMinus: 'so that it faces less hollow',
      },
    },
    discSlope: unlimited('The disc itself', 'slope', 'um/m'),
  },
  plan: stationPlan('Places from centre to rim', 3),
  conditions: z.strictObject({}),
  slots: ({ method }, { stations = 3 }) =>
    method === 'reversed-disc'
      ? ([0, 180] as const).flatMap((turn) =>
          stepped(stations, 120 / (stations - 1)).map((at, i) => ({
            keys: { at, turn },
            label: `${at} mm toward the rear`,
            ask: i === 0 && turn === 180 ? 'Turn the spindle half round by hand.' : undefined,
          })),
        )
      : plannedPlaces(stepped(stations, 90 / (stations - 1)), (at) => `${at} mm past the centre`),
  estimate: facingEstimate,
  corrections: { slope: { plus: ['scrape'], minus: ['scrape'] } },
  part: SADDLE,
  counting: 'On a faced disc the rim beyond the centre shows the error twice; where the tool itself went it shows nothing.',
  upsets: [],
  cautions: [ISOLATE, 'Feed override at minimum for the first approach of any powered alignment.'],
  cannotSee: ['Whether the headstock or the saddle is to blame: facing hollow = axis − saddle squareness.'],
  advice: ['Read from the centre to the rim beyond it, not over the part the tool has travelled.'],
});
