import * as z from 'zod';
import { measure, optionalMeasure } from '../input/fields.js';
import { figure } from './answer.js';
import { defineMove, type PlanOf } from './define.js';
import { feetCard, rollFields, rollOf } from './feet.js';
import { ISOLATE, watch, type JobStep, type StepFacts } from './jobSteps.js';
import { chooseLeaves, leavesAnswer, leavesWords, stockSchema } from './leaves.js';

const answer = z.object({
  raise: figure('deviation', 'By how much one side comes up against the other'),
  ...leavesAnswer,
});

const steps = (facts: StepFacts<PlanOf<typeof answer>>): JobStep[] => [
  { text: 'Set the level where it was out of true and leave it there.', caution: ISOLATE },
  {
    text: `Raise the low feet just clear with a rated jack or bar, over blocks, and lay ${leavesWords(facts.plan, facts.words) ?? 'the shims'} under them: ${facts.direction}.`,
    caution: 'Never a hand under a foot. A machine on three feet can tip; lifting is for rated gear and those who know it.',
  },
  { text: 'Let it down and see that every foot bears: a leaf of feeler must not go in anywhere.', needle: true },
  watch(facts),
  { text: 'Draw the holding-down nuts up in turn and read again after each.', shift: true },
  { text: 'Take a new round, and another after a day: a levelled machine settles.' },
];

/**
 * Shims under the low feet of a machine without levelling screws: the whole raise goes under one side,
 * because a shim cannot lower the other.
 *
 * @returns `raise` across the track (µm, signed like the roll), with the leaves for its size when there is a stock.
 */
export const feetShims = defineMove({
  kind: 'feet-shims',
  title: 'Shim the low feet',
  name: 'shims under the low feet',
  verb: 'Shim it',
  slopeKey: 'roll',
  twistKey: 'twist',
  overKey: 'apart',
  signed: true,
  leaves: true,
  input: z.strictObject({
    ...rollFields,
    track: measure('length', { label: 'Across the feet', above: 0, example: '450 mm' }),
    stock: stockSchema.optional(),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
  }),
  plan: ({ track, stock, tolerance, ...wanted }) => {
    const raise = (rollOf(wanted) * track) / 1000;
    return { raise, ...(stock && raise !== 0 && chooseLeaves(Math.abs(raise), stock, tolerance)) };
  },
  answer,
  does: ({ track }, { raise }) => (1000 * raise) / track,
  sees: feetCard,
  hardware: ({ card, stock }) => {
    const known = card.feet;
    return known && { track: known.track, ...(known.apart !== undefined && { apart: known.apart }), ...(stock && { stock }) };
  },
  steps,
  example: { roll: '40 um/m', track: 450 },
});
