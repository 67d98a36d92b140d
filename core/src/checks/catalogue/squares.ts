import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { slopeWeights } from '../../fit/line.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Note, type Words } from '../define.js';
import { linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { ISOLATE, shortBase, stationPlan, stepped, tooFew } from '../common.js';
import type { Zone } from '../../calls/verdict.js';
import type { MoveKind } from '../../moves/kinds.js';
import { unlimited } from '../tailstock.js';

const SQUARE_DOUBT = 5 / Math.sqrt(3);
const certificate = (label = 'Error of the square') =>
  optionalMeasure('slope', { label, example: '-12 um/m', help: 'From its certificate, + obtuse, as it stands.' });

const squareSetup = z.strictObject({
  squareError: certificate(),
  stylus: z
    .strictObject({
      reference: z.enum(['+B', '-B'], { error: 'must be "+B" or "-B"' }).optional(),
      test: z.enum(['+A', '-A'], { error: 'must be "+A" or "-A"' }).optional(),
    })
    .optional(),
});
/** On a reading: the sides of both legs, or just the side of the leg that is read. */
const ownSide = z
  .union([z.enum(['+A', '-A', '+B', '-B']), squareSetup.shape.stylus.unwrap()], {
    error: 'must be a side like "+B", or { "reference": "+B", "test": "+A" }',
  })
  .optional();
const squareReading = z.strictObject({
  leg: z.enum(['reference', 'test'], { error: 'must be "reference" or "test"' }),
  at: measure('length', { label: 'Place touched on the leg', example: '100 mm' }),
  flip: z.boolean({ error: 'must be true or false' }).optional(),
  stylus: ownSide,
});

/** Slope of some slots along `at` as weights on all, µm/m. */
function legSlope(slots: readonly Slot[], use: (slot: Slot) => boolean): number[] | undefined {
  const indices = slots.flatMap((slot, i) => (use(slot) ? [i] : []));
  const places = indices.map((i) => slots[i].keys['at'] as number);
  if (new Set(places).size < 2) return undefined;
  const weights = new Array<number>(slots.length).fill(0);
  slopeWeights(places).forEach((weight, k) => (weights[indices[k]] = 1000 * weight));
  return weights;
}

type Leg = 'reference' | 'test';

/** Which side of a leg the stylus stands on: what its readings say, else the set-up; the + side when neither does. */
function sideOf(leg: Leg, readings: readonly Slot[], setup: z.output<typeof squareSetup>): 1 | -1 {
  const told = readings.flatMap((slot) => {
    const own = slot.keys['stylus'] as z.output<typeof ownSide>;
    const side = typeof own === 'string' ? (slot.keys['leg'] === leg ? own : undefined) : own?.[leg];
    return side ? [side] : [];
  });
  return (told[0] ?? setup.stylus?.[leg])?.startsWith('-') ? -1 : 1;
}

/** p + q for one way the square lies: drift of each leg toward the other axis. */
function sideSum(slots: readonly Slot[], setup: z.output<typeof squareSetup>, flip: boolean): number[] | undefined {
  const here = slots.filter((slot) => ((slot.keys['flip'] as boolean | undefined) ?? false) === flip);
  const p = legSlope(slots, (slot) => slot.keys['leg'] === 'reference' && here.includes(slot));
  const q = legSlope(slots, (slot) => slot.keys['leg'] === 'test' && here.includes(slot));
  if (!p || !q) return undefined;
  // A dial reads + when the leg comes toward it: a drift toward the side it stands on.
  const [a, b] = [sideOf('reference', here, setup), sideOf('test', here, setup)];
  return p.map((weight, i) => a * weight + b * q[i]);
}

function squareEstimate({ setup, slots, instrument }: CheckInput<z.output<typeof squareSetup>>): Estimates {
  const [plain, flipped] = [sideSum(slots, setup, false), sideSum(slots, setup, true)];
  const places = slots.map((slot) => slot.keys['at'] as number);
  const notes: Note[] = instrument && places.length ? shortBase(Math.max(...places)) : [];
  if (plain && flipped) {
    const mean = linearEstimate(
      'squareness',
      plain.map((weight, i) => (weight + flipped[i]) / 2),
    );
    return {
      estimates: [
        mean,
        linearEstimate(
          'squareError',
          plain.map((weight, i) => (flipped[i] - weight) / 2),
        ),
      ],
      notes,
    };
  }
  const one = plain ?? flipped;
  if (!one) return { estimates: [], notes: [tooFew('two places on each leg of the square')] };
  const known = setup.squareError ?? 0;
  if (setup.squareError === undefined)
    notes.push({
      code: 'square-unknown',
      severity: 'warning',
      text: 'The error of the square is not known and is still in the result. Flip it over and read again: then it drops out.',
    });
  const doubts: Doubt[] = [{ source: 'the square', u: SQUARE_DOUBT }];
  return { estimates: [linearEstimate('squareness', one, { terms: { squareError: known }, doubts })], notes };
}

function squareCheck(
  facts: Pick<CheckDefinition, 'id' | 'title' | 'question' | 'choose' | 'machines' | 'upsets' | 'cannotSee'> & {
    readonly limit: Zone;
    readonly moves: readonly MoveKind[];
  },
): CheckDefinition {
  const { limit, moves, ...own } = facts;
  return defineCheck({
    ...own,
    family: 'square',
    setup: squareSetup,
    reading: squareReading,
    slotKeys: ['leg', 'at', 'flip'],
    valueKind: 'indicator',
    quantities: {
      squareness: {
        label: own.title,
        dimension: 'slope',
        unit: 'um/m',
        limit,
        words: {
          plus: 'obtuse between the + directions',
          minus: 'acute between the + directions',
          movePlus: 'so that the angle opens',
          moveMinus: 'so that the angle closes',
        },
      },
      squareError: unlimited('Error of the square itself', 'slope', 'um/m'),
    },
    plan: stationPlan('Places on each leg', 2),
    conditions: z.strictObject({}),
    slots: (_setup, { stations = 2 }) =>
      [false, true].flatMap((flip) =>
        (['reference', 'test'] as const).flatMap((leg) =>
          stepped(stations, 200 / (stations - 1)).map((at, i) => ({
            keys: { leg, at, flip },
            label: `${leg === 'reference' ? 'Reference' : 'Test'} leg, ${at} mm`,
            ask: i === 0 && flip && leg === 'reference' ? 'Flip the square over and set it up again.' : undefined,
          })),
        ),
      ),
    estimate: squareEstimate,
    corrections: { squareness: { plus: moves, minus: moves } },
    counting: 'Both drifts add up; flipped over, the square’s own error drops out of the mean.',
    cautions: [ISOLATE],
    advice: ['Give the place touched on the leg, not the handwheel.', 'Flip the square and read again.'],
  });
}

export const axisSquareness = squareCheck({
  id: 'axis-squareness',
  title: 'Squareness of the axes',
  question: 'Are the two table motions square to each other?',
  choose: 'After the gibs: slack looks like an angle.',
  machines: ['mill'],
  limit: [-65, 65],
  moves: ['scrape'],
  upsets: ['slot-parallelism', 'head-tram', 'vice-parallelism'],
  cannotSee: ['Play of the gibs.'],
});
export const saddleSquareness = squareCheck({
  id: 'saddle-squareness',
  title: 'Squareness of the saddle',
  question: 'Is the cross slide square to the carriage?',
  choose: 'Tells what a headstock move will do to facing, before anything is scraped.',
  machines: ['lathe'],
  limit: [-20, 20],
  moves: ['scrape'],
  upsets: ['cross-slide-squareness', 'dovetail-over-pins'],
  cannotSee: ['Where the spindle points.'],
});

const leanSetup = z.strictObject({
  squareError: z.strictObject({ x: certificate('Error of the square, x'), y: certificate('Error of the square, y') }).optional(),
  head: choice({
    label: 'Head',
    choices: [
      { value: 'on', label: 'on' },
      { value: 'off', label: 'off' },
    ],
  }),
  side: z
    .strictObject({
      x: z.enum(['right', 'left'], { error: 'must be "right" or "left"' }).optional(),
      y: z.enum(['operator', 'column'], { error: 'must be "operator" or "column"' }).optional(),
    })
    .optional(),
});
const leaf = (label: string) => optionalMeasure('length', { label, min: 0, example: '0.10 mm' });
const leanReading = z.strictObject({
  axis: z.enum(['x', 'y'], { error: 'must be "x" or "y"' }),
  at: measure('length', { label: 'Height', example: '200 mm' }),
  go: leaf('Thickest leaf that enters'),
  noGo: leaf('Thinnest leaf that does not'),
  flip: z.boolean({ error: 'must be true or false' }).optional(),
});

const gapOf = ({ go, noGo }: Readonly<Record<string, unknown>>): number | undefined =>
  typeof go === 'number' && typeof noGo === 'number' ? (1000 * (go + noGo)) / 2 : undefined;
const isGap = (slot: Slot): boolean => gapOf(slot.keys) !== undefined;

function leanOf(axis: 'x' | 'y', { setup, slots }: CheckInput<z.output<typeof leanSetup>>): Estimate[] {
  const ways = [false, true].flatMap((flip) => {
    const use = (slot: Slot) => slot.keys['axis'] === axis && ((slot.keys['flip'] as boolean | undefined) ?? false) === flip;
    const slope = legSlope(slots, use);
    return slope ? [{ slope, gap: slots.some((slot) => use(slot) && isGap(slot)) }] : [];
  });
  if (ways.length === 0) return [];
  const far = setup.side?.[axis] === 'left' || setup.side?.[axis] === 'column' ? -1 : 1;
  // A dial: lean = −rise/height on the right (operator's) side. A gap to a reference on the column grows with the lean.
  const forms = ways.map(({ slope, gap }) => slope.map((weight) => (gap ? 1 : -1) * far * weight));
  const weights = forms[0].map((_, i) => forms.reduce((sum, form) => sum + form[i], 0) / forms.length);
  const known = setup.squareError?.[axis];
  const flipped = forms.length === 2;
  const own = axis === 'x' ? -1 : 1;
  const bounds = slots.map((slot) => ((slot.keys['noGo'] as number | undefined) ?? 0) - ((slot.keys['go'] as number | undefined) ?? 0));
  const gapDoubt = Math.sqrt(weights.reduce((sum, weight, i) => sum + (weight * 1000 * bounds[i]) ** 2 / 12, 0));
  const doubts: Doubt[] = [
    { source: 'the square', u: flipped ? 0 : SQUARE_DOUBT },
    { source: 'feeler leaves', u: gapDoubt },
  ];
  const name = axis === 'x' ? 'leanX' : 'leanY';
  const lean = linearEstimate(name, weights, { terms: known !== undefined && !flipped ? { squareError: own * known } : {}, doubts });
  if (!flipped) return [lean];
  return [
    lean,
    linearEstimate(
      `squareError${axis.toUpperCase()}`,
      forms[0].map((weight, i) => (own * (weight - forms[1][i])) / -2),
    ),
  ];
}

const leanWords = (plus: string, minus: string): Words => ({
  plus: `leaning ${plus}`,
  minus: `leaning ${minus}`,
  movePlus: `${plus} at the top`,
  moveMinus: `${minus} at the top`,
});

export const columnLean = defineCheck({
  id: 'column-lean',
  family: 'square',
  title: 'Column',
  question: 'Does the column stand upright to the table?',
  choose: 'With the head off a column is set leaning back: the weight of the head pulls it forward.',
  machines: ['mill'],
  setup: leanSetup,
  reading: leanReading,
  slotKeys: ['axis', 'at', 'flip'],
  valueKind: 'indicator',
  valueFrom: gapOf,
  quantities: {
    leanX: {
      label: 'Column, right or left',
      subject: 'The column',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-65, 65],
      words: leanWords('right', 'left'),
    },
    leanY: {
      label: 'Column, forward or back',
      subject: 'The column',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-65, 65],
      words: leanWords('toward the operator', 'back'),
    },
    squareErrorX: unlimited('Error of the square, x', 'slope', 'um/m'),
    squareErrorY: unlimited('Error of the square, y', 'slope', 'um/m'),
  },
  limitFor: (quantity, setup) => (quantity === 'leanY' && setup.head === 'off' ? [-65, 0] : undefined),
  plan: stationPlan('Heights', 3),
  conditions: z.strictObject({}),
  slots: (_setup, { stations = 3 }) =>
    (['x', 'y'] as const).flatMap((axis) =>
      stepped(stations, 300 / (stations - 1)).map((at) => ({
        keys: { axis, at },
        label: `${axis === 'x' ? 'Sideways' : 'Front to back'}, ${at} mm up`,
      })),
    ),
  estimate: (input) => {
    const estimates = [...leanOf('x', input), ...leanOf('y', input)];
    const known = input.setup.squareError !== undefined || estimates.some((entry) => entry.name.startsWith('squareError'));
    const notes: Note[] =
      known || estimates.length === 0
        ? []
        : [{ code: 'square-unknown', severity: 'warning', text: 'The error of the square is not known and is still in the result.' }];
    return { estimates, notes: estimates.length ? notes : [tooFew('two heights')] };
  },
  corrections: {
    leanX: { plus: ['supports', 'shim-leaves'], minus: ['supports', 'shim-leaves'] },
    leanY: { plus: ['supports', 'shim-leaves'], minus: ['supports', 'shim-leaves'] },
  },
  counting: 'The whole change over the height.',
  upsets: ['head-tram'],
  cautions: [
    ISOLATE,
    'Columns are lifted with rated gear, never by hand over an edge.',
    'A head swings when the last bolt lets go: loosen to snug, never free.',
  ],
  cannotSee: ['The square, unless it is flipped.'],
  advice: ['Say which side of the blade the stylus stands on: the sign hangs on it.'],
});
