import * as z from 'zod';
import { choice, fieldRegistry } from '../../input/fields.js';
import type { SizeWriter } from '../../units/said.js';
import type { CheckDefinition, Picture, QuantityInfo } from '../define.js';
import { defineTraverse } from '../generalTraverse.js';
import { TURRET } from '../parts.js';
import { inBothPersons } from '../persons.js';

/** How a flat is read: what of it that tells, and whether the stylus stands on the far side of it. */
interface View {
  readonly value: 'operator' | 'rear' | 'headstock' | 'tail' | 'above';
  readonly label: string;
  readonly quantity: 'slope' | 'faceSlope' | 'tipSlope';
  readonly far?: true;
  /** From which end of the flat places are counted. */
  readonly from: string;
}
const ALONG = 'the headstock end of the flat';
const VIEWS: readonly View[] = [
  { value: 'operator', label: 'along the spindle, from your side', quantity: 'slope', from: ALONG },
  { value: 'rear', label: 'along the spindle, from its rear', quantity: 'slope', far: true, from: ALONG },
  { value: 'above', label: 'along the spindle, square to the slide, from above', quantity: 'tipSlope', from: ALONG },
  { value: 'headstock', label: 'along the slide, from the headstock', quantity: 'faceSlope', from: 'the rear end of the flat' },
  { value: 'tail', label: 'along the slide, from the other end', quantity: 'faceSlope', far: true, from: 'the rear end of the flat' },
];
const viewOf = ({ side }: { readonly side?: View['value'] }): View => VIEWS.find(({ value }) => value === side) ?? VIEWS[0];

/** Where the needle is looked at: the flat is run over its length, as it was read. */
const FAR_END = 'at the end of the flat, zeroed where its reading begins';

/** Places grow away from the headstock along the spindle, toward the operator along the slide. */
const base = defineTraverse({
  id: 'turret-face',
  title: 'Turret face',
  question: 'Does a ground flat of the turret run parallel to the travel?',
  choose: 'Before its pockets: a turret that is turned tips every pocket.',
  machines: ['turning-centre'],
  needs: ['turret'],
  subject: 'Turret face',
  words: inBothPersons(({ who }) => ({
    plus: `with the end away from the headstock toward ${who}`,
    minus: `with the end away from the headstock away from ${who}`,
    movePlus: `so that the end away from the headstock comes toward ${who}`,
    moveMinus: `so that the end away from the headstock goes away from ${who}`,
  })),
  conditions: z.strictObject({
    flat: z
      .string({ error: 'must be a text' })
      .max(60)
      .optional()
      .register(fieldRegistry, { label: 'Ground flat that is read', example: 'front of station 3' }),
  }),
  slope: [-50, 50],
  part: TURRET,
  moves: ['nudge', 'shim-leaves'],
  hangsOn: ['bed-twist', 'spindle-axis'],
  after: ['chuck-test-cut'],
  cautions: ['A turret indexes without warning: lock out before hands go in.'],
  cannotSee: ['An error of the indexing itself: read more than one face.', 'Where the turret is: only how it is turned.'],
  advice: [
    'Index away and back before reading, as it is used.',
    'A flat that faces along the slide and the face that faces the headstock show the same turn of the turret; one that faces square to the slide shows whether it tips.',
  ],
});

const told = (label: string, words: QuantityInfo['words']): QuantityInfo => ({
  ...base.quantities['slope'],
  label,
  ...(words && { words }),
});

export const turretFace: CheckDefinition = {
  ...base,
  setup: z.strictObject({
    side: choice({
      label: 'The flat is read',
      asked: true,
      help: 'The direction depends on it.',
      choices: VIEWS.map(({ value, label }) => ({ value, label })),
    }),
  }),
  // There is no reference to be turned: the travel itself is what it is read against.
  plan: base.plan.omit({ turned: true }),
  apart: ['flat'],
  quantities: {
    ...base.quantities,
    faceSlope: told(
      'Turret face, along the slide',
      inBothPersons(({ nearEnd }) => ({
        plus: `with ${nearEnd} toward the headstock`,
        minus: `with ${nearEnd} away from the headstock`,
        movePlus: `so that ${nearEnd} comes toward the headstock`,
        moveMinus: `so that ${nearEnd} goes away from the headstock`,
      })),
    ),
    tipSlope: told('Turret face, square to the slide', {
      plus: 'with the end away from the headstock high',
      minus: 'with the end away from the headstock low',
      movePlus: 'so that the end away from the headstock comes up',
      moveMinus: 'so that the end away from the headstock goes down',
    }),
  },
  slots: (setup, plan) => {
    const { from } = viewOf(setup);
    return base
      .slots(setup, plan)
      .map((slot) => ({ ...slot, label: (size: SizeWriter) => `${size(Number(slot.keys['at']), 'length')} from ${from}` }));
  },
  profile: (setup, slots) => base.profile?.({ ...setup, side: viewOf(setup).far ? 'rear' : 'operator' }, slots) ?? [],
  estimate: (input) => {
    const { quantity, far } = viewOf(input.setup);
    const { estimates, notes, fits = [] } = base.estimate({ ...input, setup: { ...input.setup, side: far ? 'rear' : 'operator' } });
    return {
      estimates: estimates.map((entry) => (entry.name === 'slope' ? { ...entry, name: quantity } : entry)),
      notes,
      fits: fits.map((fit) => ({ ...fit, widens: [quantity] })),
    };
  },
  corrections: {
    ...base.corrections,
    faceSlope: base.corrections['slope'],
    // On its bolts it is turned, not tipped.
    tipSlope: { plus: ['shim-leaves'], minus: ['shim-leaves'] },
  },
  // Run along the flat after each tap: what its end reads more than its beginning is what is turned.
  watch: (quantity, setup, slots) => {
    const { quantity: own, far } = viewOf(setup);
    const ordered = [...slots].sort((one, other) => Number(one.keys['at']) - Number(other.keys['at']));
    const [first, last] = [ordered[0], ordered.at(-1)];
    const over = last ? Number(last.keys['at']) - Number(first.keys['at']) : 0;
    if (quantity !== own || !(over > 0) || !last) return undefined;
    return { sense: far ? -1 : 1, scale: over / 1000, now: last.value - first.value, where: FAR_END };
  },
  picture: { drawing: 'turret-flat' } satisfies Picture,
};
