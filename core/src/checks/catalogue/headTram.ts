import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../input/fields.js';
import { harmonicWeights } from '../../fit/harmonic.js';
import type { Slot } from '../../instruments/slots.js';
import type { SizeWriter } from '../../units/said.js';
import { BY_HAND, HEAD_SWINGS, ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type JobRules, type Note, type Watch } from '../define.js';
import { linearEstimate, type Estimate } from '../estimate.js';
import { roundFit } from '../fits.js';
import { MORE_SET_UPS, longerBase } from '../helps.js';
import { tooFew } from '../notes.js';
import { HEAD } from '../parts.js';
import { locksField, roundAngle, zeroKey } from '../setupFields.js';
import { closed } from '../stations.js';
import { say } from '../sums.js';
import { inBothPersons, spot } from '../persons.js';

const setup = z.strictObject({
  radius: measure('length', { label: 'Radius of the sweep', above: 0, example: '110 mm' }),
  pivotDistance: optionalMeasure('length', {
    label: 'Nod pivot behind the spindle',
    above: 0,
    example: '450 mm',
    help: 'From the machine card, or learned from one classic round.',
  }),
});
const reading = z.strictObject({
  angle: roundAngle({ label: 'Angle', example: '90' }),
  zero: zeroKey(),
});
const plan = z.strictObject({
  angles: choice({
    label: 'Read at',
    choices: [
      { value: '4', label: '4 places' },
      { value: 'pairs', label: 'two pairs, zeroed for each' },
      { value: '8', label: '8 places' },
    ],
  }),
});

type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;
type Slots = readonly Slot<Keys>[];

/** Readings of one zero of the dial: half differences of opposite sides, or the plane through three or more. */
interface ZeroFit {
  readonly tilt?: readonly number[];
  readonly nod?: readonly number[];
}

function fitOf(slots: Slots, indices: readonly number[]): ZeroFit {
  const angles = indices.map((i) => slots[i].keys.angle);
  const place = (weights: readonly number[]): number[] => {
    const all = new Array<number>(slots.length).fill(0);
    indices.forEach((index, k) => (all[index] = weights[k]));
    return all;
  };
  const pair = (plus: number, minus: number): number[] | undefined => {
    const [a, b] = [angles.indexOf(plus), angles.indexOf(minus)];
    return a < 0 || b < 0 ? undefined : place(angles.map((_, i) => (i === a ? 0.5 : i === b ? -0.5 : 0)));
  };
  const fit = harmonicWeights(angles);
  // 0 right, 90 column side, 180 left, 270 operator's side; + = surface closer.
  if (!fit) return { tilt: pair(0, 180), nod: pair(270, 90) };
  return {
    tilt: place(fit.cosine),
    nod: place(fit.sine.map((weight) => -weight)),
  };
}

/** Slots by the zero of the dial, in order: only readings of one zero are compared or share a residual. */
function zerosOf(slots: Slots): number[][] {
  const zeros = new Map<number, number[]>();
  slots.forEach(({ keys: { zero = 1 } }, i) => zeros.set(zero, [...(zeros.get(zero) ?? []), i]));
  return [...zeros].sort(([a], [b]) => a - b).map(([, indices]) => indices);
}

/** The latest zero that tells an angle counts. */
const fitsOf = (slots: Slots): ZeroFit[] => zerosOf(slots).map((indices) => fitOf(slots, indices));

function estimate({ setup, slots }: CheckInput<Setup, Keys>): Estimates {
  const fits = fitsOf(slots);
  const factor = 1000 / setup.radius;
  const estimates = (['tilt', 'nod'] as const).flatMap((name): Estimate[] => {
    const form = fits
      .map((fit) => fit[name])
      .filter((weights) => weights !== undefined)
      .at(-1);
    return form
      ? [
          linearEstimate(
            name,
            form.map((weight) => weight * factor),
            { detail: { overSweep: 2 * setup.radius } },
          ),
        ]
      : [];
  });
  if (estimates.length === 0) return { estimates, notes: [tooFew('right and left, or operator’s side and column side')] };
  const notes: Note[] = [];
  if (setup.pivotDistance === undefined && estimates.some(({ name }) => name === 'nod'))
    notes.push({
      code: 'pivot-unknown',
      severity: 'info',
      text: 'The nod pivot is not known. Do one classic round (operator’s side to zero by the screw, column side to zero by the table): the two differences give it, and then one move is enough.',
    });
  const planes = zerosOf(slots).flatMap((indices) => roundFit('plane', indices, (i) => slots[i].keys, ['tilt', 'nod']));
  return { estimates, notes, fits: planes };
}

const NOD_SPOT = spot(({ side }) => `on ${side}, the table left alone`);

/**
 * Where the watched side must stop. Tilt: both sides change equally and oppositely, so half-way. Nod:
 * the pivot lies P behind the spindle, so the operator's side must read operatorSide − nod·(P + R),
 * the table left alone.
 */
function watch(quantity: string, setup: Setup, slots: Slots): Watch | undefined {
  const place = quantity === 'tilt' ? 0 : 270;
  const seen = slots.filter((slot) => slot.keys.angle === place).at(-1);
  if (!seen) return undefined;
  if (quantity === 'tilt') return { where: 'on the right', sense: 1, now: seen.value, scale: setup.radius / 1000 };
  if (setup.pivotDistance === undefined) return undefined;
  return {
    where: NOD_SPOT,
    sense: 1,
    now: seen.value,
    scale: (setup.pivotDistance + setup.radius) / 1000,
  };
}

const faceMilling: JobRules['face-milling'] = ({ flatness, diameter }) => {
  // Tipped along the feed it cuts hollow by tilt·D/2; tipped across it leaves steps of tilt·D: the steps are the worse.
  const slope = (1000 * flatness) / diameter;
  const sum = `tipped across the feed, a cutter ${say(diameter)} mm wide leaves steps of tilt × ${say(diameter)} mm (hollow along it is half of that): ${say(flatness)} µm / ${say(diameter)} mm = ${say(slope)} µm/m`;
  return ['tilt', 'nod'].map((quantity) => ({ quantity, zone: [-slope, slope] as const, sum }));
};

const NAMES: Readonly<Record<number, string>> = { 0: 'Right', 90: 'Column side', 180: 'Left', 270: 'Operator’s side' };
const WORK = { perUnit: 0.1, what: (size: SizeWriter) => `of step or hollow behind a cutter of ${size(100, 'length')}, at most` };

export const headTram = defineCheck({
  id: 'head-tram',
  family: 'tram',
  title: 'Head tram',
  question: 'Is the spindle square to the table?',
  choose: 'After table and column. One move for each way, not the round and round.',
  machines: ['mill'],
  setup,
  reading,
  plan,
  conditions: z.strictObject({ locks: locksField('Slides and quill', 'Whatever holds knee, saddle and quill: locking tips the head.') }),
  slotKeys: ['angle', 'zero'],
  reads: 'indicator',
  quantities: {
    tilt: {
      follows: { tilt: 1 },
      label: 'Head tilt',
      subject: 'The head',
      dimension: 'slope',
      work: WORK,
      unit: 'um/m',
      limit: [-65, 65],
      spokenOver: 300,
      words: {
        plus: 'leaning right',
        minus: 'leaning left',
        movePlus: 'right at the top',
        moveMinus: 'left at the top',
        arrow: ['right', 'left'],
      },
    },
    nod: {
      follows: { nod: 1 },
      label: 'Head nod',
      subject: 'The head',
      dimension: 'slope',
      work: WORK,
      unit: 'um/m',
      limit: [-65, 65],
      spokenOver: 300,
      words: inBothPersons(({ who }) => ({
        plus: `nodding toward ${who}`,
        minus: 'nodding back',
        movePlus: `toward ${who} at the top`,
        moveMinus: 'back at the top',
        arrow: ['toward', 'away'],
      })),
    },
  },
  slots: (_setup, { angles = '4' }) => {
    const slot = (angle: number, zero?: number) => ({
      keys: { angle, ...(zero && { zero }) },
      label: NAMES[angle] ?? `${angle}° round`,
    });
    if (angles === 'pairs')
      return closed(
        [slot(0, 1), slot(180, 1), { ...slot(90, 2), ask: 'Zero the dial again: this pair is for the nod.' }, slot(270, 2)],
        ({ zero }) => String(zero),
      );
    const number = Number(angles);
    return closed(Array.from({ length: number }, (_, i) => slot((360 * i) / number)));
  },
  estimate,
  corrections: { tilt: { plus: ['adjuster'], minus: ['adjuster'] }, nod: { plus: ['adjuster'], minus: ['adjuster'], noGain: true } },
  part: HEAD,
  watch,
  picture: { drawing: 'head-over-table', bends: { h: 'tilt', v: 'nod' } },
  hangsOn: [
    'table-level',
    'knee-gib-play',
    'saddle-gib-play',
    'table-gib-play',
    'table-parallelism-x',
    'table-parallelism-y',
    'axis-squareness',
    'column-lean',
  ],
  rests: ['column', 'saddle'],
  after: ['spindle-runout'],
  knows: [
    { quantity: 'tilt', name: 'tilt' },
    { quantity: 'nod', name: 'nod' },
  ],
  fromJob: { 'face-milling': faceMilling },
  helps: [longerBase('sweep at twice the radius'), MORE_SET_UPS],
  reseat: 'Take the holder off, set it up again and sweep once more',
  counting: 'The difference of two sides over the whole diameter.',
  cautions: [ISOLATE, HEAD_SWINGS, BY_HAND],
  cannotSee: ['A table that is not flat.', 'What locking the quill and knee does: read with the locks as they are used.'],
  advice: ['Carry the same block from side to side, or a matched pair.', 'Locks of knee, saddle and quill on, as it is used.'],
});
