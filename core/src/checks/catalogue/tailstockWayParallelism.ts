import type * as z from 'zod';
import { choice } from '../../input/fields.js';
import { planeKey } from '../setupFields.js';
import type { CheckDefinition, Words } from '../define.js';
import { defineTraverse } from '../generalTraverse.js';
import { WAY } from '../parts.js';
import { inBothPersons } from '../persons.js';

const base = defineTraverse({
  id: 'tailstock-way-parallelism',
  title: 'Tailstock way',
  question: 'Does the tailstock way run parallel to the carriage way?',
  choose: 'Before the tailstock itself: where its way wanders, it is in line at one place only.',
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  subject: 'Tailstock way',
  slope: [-20, 20],
  range: [null, 10],
  part: WAY,
  moves: ['pull', 'scrape'],
  picture: { drawing: 'tailstock-way' },
  hangsOn: ['bed-twist', 'way-straightness'],
  cannotSee: ['A way and a carriage way that are bent alike.'],
  advice: [
    'Carry the indicator on the carriage, its stylus on the unworn part of the tailstock way first.',
    'Read both the top and the side of the way, each as a round of its own.',
  ],
});

/** Its side, along the bed: it comes toward the operator or goes away, nothing rises. */
const SIDEWAYS: Words = inBothPersons(({ who }) => ({
  plus: `toward ${who} along the travel`,
  minus: `away from ${who} along the travel`,
  movePlus: `toward ${who} at the far end`,
  moveMinus: `away from ${who} at the far end`,
  arrow: ['toward', 'away'],
}));

export const tailstockWayParallelism: CheckDefinition = {
  ...base,
  reading: base.reading.extend({ plane: planeKey().optional() }),
  plan: base.plan.extend({
    face: choice({
      label: 'Read',
      choices: [
        { value: 'top', label: 'the top of the way' },
        { value: 'side', label: 'the side of the way' },
      ],
    }),
  }) as z.ZodObject,
  slotKeys: ['plane', ...base.slotKeys],
  planesApart: true,
  slots: (setup, plan) =>
    base.slots(setup, plan).map((slot) => (plan['face'] === 'side' ? { ...slot, keys: { plane: 'h', ...slot.keys } } : slot)),
  // One round reads one face: what rises and what goes sideways is no one line.
  faults: (_setup, readings) => {
    const [first] = readings;
    return readings.flatMap(({ plane = 'v' }, i) =>
      plane === (first['plane'] ?? 'v')
        ? []
        : [
            {
              path: `readings[${i}].plane`,
              message: 'is another face of the way: read its top and its side as two rounds',
              example: String(first['plane'] ?? 'v'),
            },
          ],
    );
  },
  asRead: (quantity, slots) =>
    quantity !== 'slope'
      ? undefined
      : slots[0]?.keys['plane'] === 'h'
        ? { info: { label: 'Tailstock way, side', words: SIDEWAYS }, correction: { plus: ['pull'], minus: ['pull'] } }
        : { info: {}, correction: { plus: ['scrape'], minus: ['scrape'] } },
};
