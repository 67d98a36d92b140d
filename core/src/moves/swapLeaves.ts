import * as z from 'zod';
import { count, optionalMeasure, quantitySchema } from '../input/fields.js';
import { figure, listOf } from './answer.js';
import { defineMove } from './define.js';
import { chooseLeaves, leavesAnswer, leavesWords, stockSchema } from './leaves.js';
import { shimSteps } from './shimSteps.js';

/** ± µm. */
const USUAL = 5;

const sum = (leaves: readonly number[]): number => leaves.reduce((total, leaf) => total + leaf, 0);

/**
 * Other leaves in the place of those that went in: where shims raised something too far, a thinner pile lowers it again, and
 * nothing has to be scraped. µm; what comes out may go in again.
 */
export const swapLeaves = defineMove({
  kind: 'swap-leaves',
  title: 'Put thinner shims in',
  name: 'thinner shims: some went in too thick',
  verb: 'Put thinner shims in:',
  amountKey: 'by',
  leaves: true,
  input: z.strictObject({
    by: optionalMeasure('deviation', { label: 'Thinner by', above: 0, example: '0.02 mm' }),
    out: z
      .array(quantitySchema('deviation', { above: 0 }, '0.05 mm'))
      .min(1, { error: 'must have the leaves that come out' })
      .max(12, { error: 'must have at most 12 leaves' }),
    stock: stockSchema,
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    maxLeaves: count({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
  }),
  plan: ({ by = 0, out, stock, tolerance, maxLeaves }) => {
    const wanted = sum(out) - by;
    const there = [...stock, ...out.map((thickness) => ({ thickness, count: 1 }))];
    // Less than half the thinnest leaf: nothing goes in again.
    const thinnest = Math.min(...there.flatMap(({ thickness, count: many }) => (many > 0 ? [thickness] : [])));
    if (wanted <= thinnest / 2) return { out, thickness: Math.max(0, wanted), leaves: [], total: 0, error: -wanted };
    // Off by less than half of what is wanted: the same leaves never go in again.
    return { out, thickness: wanted, ...chooseLeaves(wanted, there, Math.min(tolerance ?? USUAL, by / 2), maxLeaves) };
  },
  answer: z.object({
    out: listOf(figure('deviation', 'Leaf'), 'Leaves that come out'),
    thickness: figure('deviation', 'Thickness that goes in'),
    ...leavesAnswer,
  }),
  does: (_input, { out, thickness }) => sum(out) - thickness,
  carries: ({ out = [] }, total) => sum(out) - total,
  steps: (facts) => {
    const { out = [] } = facts.plan;
    const leaves = leavesWords(facts.plan, facts.words, (total) => sum(out) - total);
    return shimSteps(facts, { leaves, out: out.map(facts.words.size).join(' + ') });
  },
  example: { by: '0.025 mm', out: ['0.075 mm'], stock: [{ thickness: '0.05 mm', count: 4 }] },
});
