import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { heldPush, heldSag } from '../../gravity/bars.js';
import { dot } from '../../fit/line.js';
import { AXIS, defineCheck, type CheckInput, type Estimates } from '../define.js';
import { linearEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, shortBase, sideField, stationPlan, stepped, tooFew } from '../common.js';
import { centresBar } from '../setupFields.js';
import { traverseLine } from '../traverse.js';
import { TAILSTOCK } from '../../moves/parts.js';

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
    slopeH: { label: 'Quill sideways', subject: 'The quill', dimension: 'slope', unit: 'um/m', limit: [0, 100], words: AXIS },
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
