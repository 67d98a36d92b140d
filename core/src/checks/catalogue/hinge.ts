import * as z from 'zod';
import { measure } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import { slotsWhere, type Reading, type Slot } from '../../instruments/slots.js';
import type { Said } from '../../units/said.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { gripOf } from '../grips.js';
import { tooFew } from '../notes.js';
import { unlimited } from '../quantities.js';

const setup = z.strictObject({ length: measure('length', { label: 'Length that bears', above: 0, example: '400 mm' }) });
const reading = z.strictObject({
  push: z.enum(['A', 'B'], { error: 'must be "A" or "B": the end that was pushed' }),
  pivot: measure('length', { label: 'It turned at, from end A', min: 0, example: '120 mm' }),
});
type Keys = z.output<typeof reading>;

/** Part of the length by which two tries at one end may differ. */
const ROCKS = 0.1;

/** Pivot of a push as an indicator would give it, µm: so that scatter of tries is scatter of readings. */
const asValue = ({ pivot }: Keys): number => pivot * 1000;

function estimate({ setup: { length }, slots }: CheckInput<z.output<typeof setup>, Keys>): Estimates {
  const [a, b] = (['A', 'B'] as const).map((push) => slotsWhere(slots, ({ keys }) => keys.push === push));
  if (a.length === 0 || b.length === 0) return { estimates: [], notes: [tooFew('a push at end A and one at end B')] };
  const weights = (plus: number, minus: number): number[] => {
    const all = new Array<number>(slots.length).fill(0);
    for (const i of a) all[i] = plus / a.length / 1000;
    for (const i of b) all[i] = minus / b.length / 1000;
    return all;
  };
  const values = slots.map((slot) => slot.value);
  const grip = linearEstimate('grip', weights(1 / length, -1 / length));
  const centre = linearEstimate('centre', weights(0.5, 0.5));
  const now = grip.evaluate(values);
  const kind = gripOf(now);
  const notes: Note<Said>[] = [
    {
      code: kind.code,
      severity: 'info',
      quantity: 'grip',
      text: (size) => `${kind.text} It bears about ${size(Math.round(centre.evaluate(values)), 'length')} from end A.`,
    },
  ];
  if ([a, b].some((tries) => spread(slots, tries) > ROCKS * length))
    notes.push({
      code: 'hinge-rocks',
      severity: 'warning',
      text: 'Two tries at one end pivoted at different places: it rocks, or there is something under it. Wipe both faces and try again.',
    });
  return { estimates: [grip, centre], notes };
}

function spread(slots: readonly Slot<Keys>[], tries: readonly number[]): number {
  const pivots = tries.map((i) => slots[i].keys.pivot);
  return Math.max(...pivots) - Math.min(...pivots);
}

const faults = ({ length }: z.output<typeof setup>, readings: readonly Reading<Keys>[]): Fault[] =>
  readings.flatMap(({ pivot }, i) =>
    pivot > length
      ? [
          {
            path: `readings[${i}].pivot`,
            message: `is beyond the bearing, which is ${length} mm long from end A`,
            example: `${Math.round(length / 3)} mm`,
          },
        ]
      : [],
  );

export const hinge = defineCheck({
  id: 'hinge',
  family: 'contact',
  title: 'Hinge',
  question: 'Where does a straightedge turn when it is pushed at its ends?',
  choose: 'Between prints: it shows high, crowned, even and hollow without blue.',
  machines: [],
  setup,
  reading,
  plan: z.strictObject({}),
  conditions: z.strictObject({}),
  slotKeys: ['push', 'pivot'],
  reads: 'none',
  valueFrom: asValue,
  quantities: {
    grip: unlimited('Grip', 'number', '1'),
    centre: unlimited('It bears at, from end A', 'length', 'mm'),
  },
  slots: ({ length }) =>
    (['A', 'B'] as const).map((push) => ({
      keys: { push, pivot: length / 2 },
      label: `Pushed sideways at end ${push}: where does it turn?`,
    })),
  faults,
  estimate,
  corrections: {},
  picture: { drawing: 'places' },
  hangsOn: [],
  counting: 'The distance between the two pivots over the length is the grip; even pressure turns at 0.29 of the length from the far end.',
  cautions: [ISOLATE, 'A straightedge is heavy and brittle: two people, and never over an edge by hand.'],
  cannotSee: ['Two bands from an even bearing: blue it.'],
  advice: ['Two tries at each end. Push level with the face, with one finger.'],
});
