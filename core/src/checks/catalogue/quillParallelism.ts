import * as z from 'zod';
import { RESEATED } from '../reseating.js';
import { choice, measure, optionalMeasure } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import { dot } from '../../fit/line.js';
import type { Reading } from '../../instruments/slots.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { diameterDoubt } from '../barDiameters.js';
import { lineFits, type Fit } from '../fits.js';
import { linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { barPush, barRadius, barSag, beyondBar } from '../heldBar.js';
import { MEASURE_BAR, MORE_SET_UPS, SHORTER_BAR, TURN_BAR, longerBase, roomOnBar } from '../helps.js';
import { shortBase, spanOf, tooFew } from '../notes.js';
import { TAILSTOCK } from '../parts.js';
import { barError, centresBar, measuredAt, planeKey, sideField, turnKey } from '../setupFields.js';
import { closed, stationPlan, stepped } from '../stations.js';
import { traverseLine, type TraverseKeys } from '../traverse.js';
import { AXIS } from '../words.js';

const setup = z.strictObject({
  side: sideField(),
  bar: centresBar(),
  freeLength: optionalMeasure('length', { label: 'Bar projects', above: 0, example: '200 mm' }),
});
const reading = z.strictObject({
  plane: planeKey(),
  at: measure('length', {
    label: 'Along the quill',
    help: 'From where it leaves the tailstock, growing toward its free end.',
    example: '0 mm',
  }),
  turn: turnKey(),
});
type Setup = z.output<typeof setup>;

function planeEstimate(
  plane: 'h' | 'v',
  { setup, slots, instrument }: CheckInput<Setup, TraverseKeys>,
): { readonly estimate: Estimate; readonly fits: readonly Fit[] } | undefined {
  const line = traverseLine(slots, ({ keys }) => keys.plane === plane);
  if (!line) return undefined;
  const name = plane === 'h' ? 'slopeH' : 'slopeV';
  const side = plane === 'h' && setup.side === 'rear' ? -1 : 1;
  const weights = line.weights.map((weight) => 1000 * side * weight);
  const { freeLength } = setup;
  const bar = setup.bar && freeLength ? { ...setup.bar, freeLength } : undefined;
  const sagAt = (at: number): number => (bar && plane === 'v' ? barSag(bar, at) : 0);
  const pushAt = (at: number): number => (bar ? barPush(bar, instrument?.contactForce, at) : 0);
  const radiusAt = (at: number): number => (bar ? barRadius(bar, at) : 0);
  const over = (correction: (at: number) => number): number =>
    dot(
      weights,
      slots.map(({ keys }, i) => (weights[i] === 0 ? 0 : correction(keys.at))),
    );
  const [sag, push, diameter] = [over(sagAt), over(pushAt), over(radiusAt)];
  // The quill itself is ground; a bar in it is as even as it was made, and bent unless it was turned.
  const read = slots.flatMap(({ keys }, i) => (weights[i] === 0 ? [] : [{ place: keys.at, weight: weights[i] }]));
  const finish = barError(setup.bar ? (setup.bar.finish ?? 'ground') : 'ground');
  const measured = measuredAt(
    setup.bar?.diameters,
    read.map(({ place }) => place),
  );
  const doubts: Doubt[] = [
    { source: 'bar-droop', u: 0.05 * Math.abs(sag) },
    { source: 'stylus-push', u: 0.03 * Math.abs(push) },
    diameterDoubt(read, measured ? 0.3 : finish),
    { source: 'bar-straightness', u: line.turned.pairs.length ? 0 : (finish * Math.hypot(...weights)) / Math.sqrt(3) },
  ];
  const terms = { ...(sag !== 0 && { sag }), ...(push !== 0 && { push }), ...(diameter !== 0 && { diameter }) };
  const added = (i: number): number => {
    const { at } = slots[i].keys;
    return sagAt(at) + pushAt(at) + radiusAt(at);
  };
  return {
    estimate: linearEstimate(name, weights, { terms, doubts, open: line.open }),
    fits: lineFits(slots, line, { added, form: finish / Math.sqrt(3), widens: [name] }),
  };
}

function estimate(input: CheckInput<Setup, TraverseKeys>): Estimates {
  const planes = (['h', 'v'] as const).flatMap((plane) => planeEstimate(plane, input) ?? []);
  return {
    estimates: planes.map((plane) => plane.estimate),
    notes: planes.length ? shortBase(spanOf(input.slots.map(({ keys }) => keys.at))) : [tooFew('two places along the quill')],
    fits: planes.flatMap((plane) => plane.fits),
  };
}

const faults = ({ freeLength }: Setup, readings: readonly Reading<TraverseKeys>[]): Fault[] => beyondBar(freeLength, readings);

export const quillParallelism = defineCheck({
  id: 'quill-parallelism',
  family: 'traverse',
  title: 'Quill',
  question: 'Does the quill run parallel to the carriage?',
  choose: 'When drilling and reaming matter: a quill that slopes leaves the axis as it comes out.',
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  setup,
  reading,
  plan: stationPlan('How many places along the quill', 2),
  conditions: z.strictObject({
    quillLock: choice({
      label: 'Quill lock',
      choices: [
        { value: 'on', label: 'locked' },
        { value: 'off', label: 'free' },
      ],
    }),
  }),
  slotKeys: ['plane', 'at', 'turn'],
  reads: 'indicator',
  quantities: {
    slopeH: {
      label: 'Quill sideways',
      subject: 'The quill',
      dimension: 'slope',
      unit: 'um/m',
      limit: [0, 100],
      spokenOver: 100,
      words: AXIS,
    },
    slopeV: {
      label: 'Quill in height',
      subject: 'The quill',
      dimension: 'slope',
      unit: 'um/m',
      limit: [0, 100],
      spokenOver: 100,
      words: {
        plus: 'rising toward its free end',
        minus: 'drooping toward its free end',
        movePlus: 'raise its free end',
        moveMinus: 'lower its free end',
        arrow: ['up', 'down'],
      },
    },
  },
  slots: (_setup, { stations = 2, places = stepped(stations, 100 / (stations - 1)) }) =>
    closed(
      (['h', 'v'] as const).flatMap((plane) =>
        places.map((at) => ({
          keys: { plane, at },
          label: (size) =>
            `${plane === 'h' ? 'Side' : 'Top'}, ${at === 0 ? 'where it leaves the tailstock' : `${size(at, 'length')} toward its free end`}`,
          movable: 'places',
        })),
      ),
      ({ plane }) => String(plane),
    ),
  faults,
  estimate,
  corrections: {
    slopeV: { plus: ['base-shims', 'scrape'], minus: ['base-shims', 'scrape'] },
    slopeH: { plus: ['scrape'], minus: ['scrape'] },
  },
  part: TAILSTOCK,
  picture: { drawing: 'quill', bends: { h: 'slopeH', v: 'slopeV' } },
  hangsOn: ['bed-twist', 'way-straightness', 'tailstock-way-parallelism', 'centre-runout', 'spindle-axis'],
  rests: ['tailstock', 'saddle'],
  knows: [
    { quantity: 'slopeH', name: 'quillH' },
    { quantity: 'slopeV', name: 'quillV' },
  ],
  helps: [TURN_BAR, MEASURE_BAR, SHORTER_BAR, longerBase('read over twice the length', roomOnBar), MORE_SET_UPS],
  // The quill itself is read where it is.
  reseatSpreadFor: (_quantity, { bar }) => (bar ? RESEATED : 0),
  reseat: 'Take the bar out of the quill, put it back and read again',
  counting: 'The whole difference counts: nothing has been turned.',
  cautions: [ISOLATE],
  cannotSee: ['Slack of the quill: lock it as it is used.'],
  advice: ['Read the quill itself, well out and locked, or a bar in its taper turned half round.'],
});
