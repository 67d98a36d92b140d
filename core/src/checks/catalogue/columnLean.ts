import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckInput, type Note, type Words } from '../define.js';
import { linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { ISOLATE, stationPlan, stepped, tooFew } from '../common.js';
import { certificate, legSlope, SQUARE_DOUBT } from '../square.js';
import { unlimited } from '../tailstock.js';
import { COLUMN } from '../../moves/parts.js';

const leanSetup = z.strictObject({
  squareError: z.strictObject({ x: certificate('Error of the square, x'), y: certificate('Error of the square, y') }).optional(),
  head: choice({
    label: 'Head',
    choices: [
      { value: 'on', label: 'on' },
      { value: 'off', label: 'off' },
    ],
  }),
  // One word is enough where one axis is read: it tells which.
  side: z
    .preprocess(
      (raw) => (raw === 'right' || raw === 'left' ? { x: raw } : raw === 'operator' || raw === 'column' ? { y: raw } : raw),
      z.strictObject(
        {
          x: z.enum(['right', 'left'], { error: 'must be "right" or "left"' }).optional(),
          y: z.enum(['operator', 'column'], { error: 'must be "operator" or "column"' }).optional(),
        },
        { error: 'must be { "x": "right" or "left", "y": "operator" or "column" }' },
      ),
    )
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
  casting: 'column',
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
      variants: [{ key: 'head-off', label: 'with the head off', limit: [-65, 0], applies: (setup) => setup['head'] === 'off' }],
    },
    squareErrorX: unlimited('Error of the square, x', 'slope', 'um/m'),
    squareErrorY: unlimited('Error of the square, y', 'slope', 'um/m'),
  },
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
  part: COLUMN,
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
