import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { harmonicWeights } from '../../fit/harmonic.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type Watch } from '../define.js';
import { linearEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, tooFew } from '../common.js';
import { HEAD } from '../../moves/parts.js';

const setup = z.strictObject({
  radius: measure('length', { label: 'Radius of the sweep', above: 0, example: '110 mm' }),
  pivotDistance: optionalMeasure('length', {
    label: 'Nod pivot behind the spindle',
    above: 0,
    example: '450 mm',
    help: 'From the machine card, or learned from one classic round.',
  }),
});
const reading = z.strictObject({ angle: measure('angle', { label: 'Angle', min: -360, max: 360, example: '90' }) });
const plan = z.strictObject({
  angles: choice({
    label: 'Read at',
    choices: [
      { value: '4', label: '4 places' },
      { value: '8', label: '8 places' },
    ],
  }),
});

type Setup = z.output<typeof setup>;
const angle = (slot: Slot): number => (((slot.keys['angle'] as number) % 360) + 360) % 360;

/** Half differences of opposite sides where only one pair was read; the plane fit otherwise. 0 right, 90 column, 180 left, 270 operator. */
function estimate({ setup, slots, instrument }: CheckInput<Setup>): Estimates {
  const angles = slots.map(angle);
  const fit = harmonicWeights(angles);
  const factor = 1000 / setup.radius;
  const pair = (plus: number, minus: number): number[] | undefined => {
    const [a, b] = [angles.indexOf(plus), angles.indexOf(minus)];
    return a < 0 || b < 0 ? undefined : angles.map((_, i) => (i === a ? 0.5 : i === b ? -0.5 : 0));
  };
  const tilt = fit?.cosine ?? pair(0, 180);
  const nod = fit?.sine.map((weight) => -weight) ?? pair(270, 90);
  const estimates: Estimate[] = [
    ...(tilt
      ? [
          linearEstimate(
            'tilt',
            tilt.map((weight) => weight * factor),
          ),
        ]
      : []),
    ...(nod
      ? [
          linearEstimate(
            'nod',
            nod.map((weight) => weight * factor),
          ),
        ]
      : []),
  ];
  if (estimates.length === 0) return { estimates, notes: [tooFew('right and left, or operator’s side and column side')] };
  const notes: Note[] = [];
  if (instrument && fit && angles.length > 3) {
    const values = slots.map((slot) => slot.value);
    const part = (weights: readonly number[]) => weights.reduce((sum, weight, i) => sum + weight * values[i], 0);
    const worst = Math.max(
      ...angles.map((degrees, i) =>
        Math.abs(
          values[i] -
            part(fit.mean) -
            part(fit.cosine) * Math.cos((degrees * Math.PI) / 180) -
            part(fit.sine) * Math.sin((degrees * Math.PI) / 180),
        ),
      ),
    );
    if (worst > 2 * instrument.graduation)
      notes.push({
        code: 'not-flat',
        severity: 'warning',
        text: `The sweep leaves a plane by ${worst.toFixed(1)} µm: a burr, a slot under the stylus, or a table that is not flat.`,
      });
  }
  if (setup.pivotDistance === undefined && nod)
    notes.push({
      code: 'pivot-unknown',
      severity: 'info',
      text: 'Where the nod pivot lies is not known. Do one classic round (operator’s side to zero by the screw, column side to zero by the table): the two differences give it, and then one move is enough.',
    });
  return { estimates, notes };
}

/**
 * Where the watched side must stop. Tilt: both sides change equally and oppositely, so half-way. Nod:
 * the pivot lies P behind the spindle, so the operator's side must read operatorSide − nod·(P + R),
 * the table left alone.
 */
function watch(quantity: string, setup: Setup, slots: readonly Slot[]): Watch | undefined {
  const place = quantity === 'tilt' ? 0 : 270;
  const seen = slots.find((slot) => angle(slot) === place);
  if (!seen) return undefined;
  if (quantity === 'tilt') return { where: 'on the right', sense: 1, now: seen.value, scale: setup.radius / 1000 };
  if (setup.pivotDistance === undefined) return undefined;
  return {
    where: "on the operator's side, the table left alone",
    sense: 1,
    now: seen.value,
    scale: (setup.pivotDistance + setup.radius) / 1000,
  };
}

export const headTram = defineCheck({
  id: 'head-tram',
  family: 'tram',
  title: 'Head tram',
  question: 'Does the spindle stand square to the table?',
  choose: 'After table and column. One move for each way, not the round and round.',
  machines: ['mill'],
  setup,
  reading,
  slotKeys: ['angle'],
  valueKind: 'indicator',
  quantities: {
    tilt: {
      label: 'Head tilt',
      subject: 'The head',
      dimension: 'slope',
      work: { perUnit: 0.1, what: 'of step or hollow behind a cutter of 100 mm, at most' },
      unit: 'um/m',
      limit: [-65, 65],
      words: { plus: 'leaning right', minus: 'leaning left', movePlus: 'right at the top', moveMinus: 'left at the top' },
    },
    nod: {
      label: 'Head nod',
      subject: 'The head',
      dimension: 'slope',
      work: { perUnit: 0.1, what: 'of step or hollow behind a cutter of 100 mm, at most' },
      unit: 'um/m',
      limit: [-65, 65],
      words: {
        plus: 'nodding toward the operator',
        minus: 'nodding back',
        movePlus: 'toward the operator at the top',
        moveMinus: 'back at the top',
      },
    },
  },
  plan,
  conditions: z.strictObject({}),
  slots: (_setup, { angles = '4' }) => {
    const names: Readonly<Record<number, string>> = { 0: 'Right', 90: 'Column side', 180: 'Left', 270: 'Operator’s side' };
    return Array.from({ length: Number(angles) }, (_, i) => (360 * i) / Number(angles)).map((degrees) => ({
      keys: { angle: degrees },
      label: names[degrees] ?? `${degrees}° round`,
    }));
  },
  estimate,
  part: HEAD,
  corrections: { tilt: { plus: ['adjuster'], minus: ['adjuster'] }, nod: { plus: ['adjuster'], minus: ['adjuster'] } },
  // Tilting, the pivot lies in the spindle's own plane; nodding it lies behind it, and the whole nose rises or falls.
  amountFor: (_kind, amount, { radius, pivotDistance = 0 }, _slots, quantity) =>
    (amount * (radius + (quantity === 'nod' ? pivotDistance : 0))) / 1000,
  watch,
  counting: 'The difference of two sides over the whole diameter.',
  upsets: [],
  cautions: [ISOLATE, 'A head swings when the last bolt lets go: loosen to snug, never free.', 'Turn the spindle by hand.'],
  cannotSee: ['A table that is not flat.', 'What locking the quill and knee does: read with the locks as they are used.'],
  advice: ['Carry the same block from side to side, or a matched pair.', 'Locks of knee, saddle and quill on, as it is used.'],
});
