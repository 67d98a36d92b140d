import * as z from 'zod';
import { count, measure, optionalMeasure } from '../input/fields.js';
import { ANY_PART } from '../checks/parts.js';
import { figure, maybe } from './answer.js';
import { defineMove, refuse, type CardOf, type PlanOf } from './define.js';
import { jointDrawing } from './drawing.js';
import { footCard } from './foot.js';
import { after, RATED, watch, type JobStep, type StepFacts } from './jobSteps.js';
import { chooseLeaves, leavesAnswer, leavesWords, stockSchema } from './leaves.js';

const BACK = 'Put it back where it stood.';

const answer = z.object({
  stack: figure('deviation', 'What is laid under one roll; + under the roll that the slope rises toward'),
  ...leavesAnswer,
  residual: maybe('slope', 'What the leaves leave over'),
});

function steps(facts: StepFacts<PlanOf<typeof answer>, CardOf<typeof footCard>>): JobStep[] {
  const { size, direction, lower = 'the side that has to come down', part = ANY_PART, plan, words } = facts;
  const dowels = part.foot ? facts.card.foot?.dowels : undefined;
  const stack = plan.stack === undefined ? undefined : words.size(Math.abs(plan.stack));
  const leftOver = plan.residual === undefined ? undefined : words.slope(plan.residual);
  const pile = [stack, leavesWords(plan, words)].filter(Boolean).join(': ') || 'what the slope comes to between the rolls';
  const back =
    dowels === true
      ? `${BACK} Dowels first, then the bolts in order, a little each.`
      : `${BACK} ${dowels === false ? 'There are no dowels' : 'Where there are no dowels'}: clamp it to parallels laid along the machined sides before a bolt is touched, then draw the bolts down in order. How it was clamped is part of the doubt: undo, clamp and read once more.`;
  return [
    { text: 'Read again before any metal goes: what does not repeat is not ground.' },
    { text: part.off ?? 'Take off everything mounted on it, and lift it with rated gear.', caution: RATED },
    {
      text: 'Clean plate, rolls and table: a chip under a roll is an angle. Close the plate, lay a parallel block on it and run an indicator along the block. Write down what it reads at the end that will be raised: its own error comes off the stack.',
    },
    {
      text: `Raise the roll under ${lower}: ${pile}.${leftOver ? ` That leaves over ${leftOver}.` : ''} Squeeze the leaves flat, burrs off.`,
      caution: 'Shim edges cut: gloves.',
    },
    {
      text: `Lay the ${part.name} on it with its ${part.faces} up, ${lower} over the raised roll, and clamp it. Light cuts until the whole face is clean: the most comes off at ${lower}. It then stands ${size} further ${direction}.`,
      caution: 'Wheel guarded, eyes covered. A grinding wheel is mounted and run by people trained for it.',
    },
    { text: back, caution: RATED },
    watch(facts),
    { text: 'Bolt it down as in normal use and read.', needle: true },
    ...after,
  ];
}

/**
 * Stack under one roll of a sine plate: (slope − zeroSlope) × distance between the rolls, µm, signed: + raises the
 * roll that the slope rises toward. `zeroSlope` is what the block reads with the plate closed.
 *
 * @returns `stack`; with a stock the leaves that make it and the slope they leave over, µm/m.
 */
export const sineStack = defineMove({
  kind: 'sine-stack',
  title: 'Set a sine plate',
  name: 'on a sine plate',
  verb: 'Set it over by',
  slopeKey: 'slope',
  signed: true,
  metal: true,
  panel: 'sine-plate',
  sees: footCard,
  answer,
  does: ({ zeroSlope = 0, rolls }, { stack }) => (1000 * stack) / rolls + zeroSlope,
  handFigures: ['stack'],
  drawing: (facts) => jointDrawing(facts, true),
  steps,
  input: z.strictObject({
    slope: optionalMeasure('slope', { label: 'Slope', example: '120 um/m' }),
    error: optionalMeasure('deviation', { label: 'Error', example: '24 um' }),
    over: optionalMeasure('length', { label: 'Over', above: 0, example: '200 mm' }),
    zeroSlope: optionalMeasure('slope', {
      label: 'The block reads with the plate closed',
      example: '0',
      help: '+ the same way as the slope.',
    }),
    rolls: measure('length', { label: 'Between the rolls', above: 0, example: '100 mm' }),
    stock: stockSchema.optional(),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    maxLeaves: count({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
  }),
  plan: ({ slope, error, over, zeroSlope = 0, rolls, stock, tolerance, maxLeaves }) => {
    const given = error !== undefined && over !== undefined ? (error * 1000) / over : undefined;
    const tilt = slope ?? given;
    if (tilt === undefined || (slope !== undefined && given !== undefined)) {
      return refuse('slope', 'give either the slope, or an error and the length it is over', '120 um/m');
    }
    const stack = ((tilt - zeroSlope) * rolls) / 1000;
    if (!stock || stack === 0) return { stack };
    const pile = chooseLeaves(Math.abs(stack), stock, tolerance, maxLeaves);
    const residual = (total: number): number => tilt - zeroSlope - (Math.sign(stack) * total * 1000) / rolls;
    return { stack, ...pile, ...(pile.leaves && { residual: residual(pile.total) }) };
  },
  example: { slope: '120 um/m', rolls: 100 },
});
