import * as z from 'zod';
import { fieldRegistry, measure } from '../input/fields.js';
import { figure, listOf, maybe } from './answer.js';
import type { PlanOf } from './define.js';
import type { PlanWords } from './jobSteps.js';
import { chooseLeaves, stockSchema, type Stock } from './leaves.js';

/**
 * What a shim at one end of a guided side is asked.
 *
 * @param between what lies between its ends. @param shoulder what the side is the side of, for its error.
 */
export const oneEndInput = (between: string, shoulder: string) =>
  z.strictObject({
    slope: measure('slope', { label: 'Angle to give', example: '-130 um/m' }),
    spacing: measure('length', { label: between, above: 0, max: 20_000, example: '300 mm' }),
    shoulder: z.enum(['left', 'right'], { error: `must be "left" or "right": ${shoulder}` }),
    stock: stockSchema.optional(),
  });
type OneEnd = z.output<ReturnType<typeof oneEndInput>>;

/** A shim at one end, with the leaves that make it. */
export const endShimAnswer = {
  shim: figure('deviation', 'Thickness of the shim'),
  finest: maybe('slope', 'What the thinnest leaf in the drawers does'),
  leaves: listOf(figure('deviation', 'Leaf'), 'Leaves, thickest first').optional(),
  residual: maybe('slope', 'What they leave over'),
};

const { shim, ...withLeaves } = endShimAnswer;
export const oneEndAnswer = z.object({
  shim,
  truck: z.enum(['front', 'rear']).register(fieldRegistry, { label: 'Which end it goes in at' }),
  ...withLeaves,
});
type Plan = PlanOf<typeof oneEndAnswer>;

interface EndShim {
  readonly shim?: number | undefined;
  readonly leaves?: readonly number[] | undefined;
  readonly finest?: number | undefined;
}

/** What goes in, in words; and what the thinnest leaf in the drawers would do, '' where nobody knows. */
export function endShimWords({ shim, leaves, finest }: EndShim, words: PlanWords) {
  const pile = leaves?.map(words.size).join(' + ');
  return {
    shims: pile ?? (shim === undefined ? 'the shim' : words.size(shim)),
    finest:
      finest === undefined ? '' : ` The thinnest shim in the drawers turns it by ${words.slope(finest)}: a smaller step is not possible.`,
  };
}

/** What goes in at which end, in words; and what the thinnest leaf in the drawers would do, '' where nobody knows. */
export const oneEndWords = ({ truck, ...plan }: Plan, words: PlanWords) => ({ truck, ...endShimWords(plan, words) });

/** The slope that a shim gives at its end, µm/m. */
export const oneEndDoes = ({ spacing, shoulder }: OneEnd, { shim, truck }: z.output<typeof oneEndAnswer>): number =>
  ((truck === 'rear') === (shoulder === 'left') ? -1 : 1) * ((1000 * shim) / spacing);

/** The shim at one end of a guided side, and which end: both for trucks against a shoulder and for a strip bolted to a slide. */
export function oneEnd({ slope, spacing, shoulder, stock: drawer }: OneEnd) {
  // What is to be taken away is an obtuse angle where the change is negative.
  const obtuse = slope < 0;
  const truck: 'front' | 'rear' = obtuse === (shoulder === 'left') ? 'rear' : 'front';
  return { ...endShim(slope, spacing, drawer), truck };
}

/** The shim that turns something by a slope, µm/m, at one end of a spacing, mm; with the leaves of a drawer that come nearest. */
export function endShim(slope: number, spacing: number, drawer: readonly Stock[] = []) {
  const shim = (Math.abs(slope) * spacing) / 1000;
  const there = drawer.filter(({ count }) => count > 0);
  const finest = there.length ? (1000 * Math.min(...there.map(({ thickness }) => thickness))) / spacing : undefined;
  const pile = there.length && shim > 0 ? pileFor(shim, there) : undefined;
  return {
    shim,
    ...(finest !== undefined && { finest }),
    ...(pile && { leaves: pile, residual: (1000 * (shim - pile.reduce((sum, leaf) => sum + leaf, 0))) / spacing }),
  };
}

/** The pile nearest to a thickness; undefined where the stock makes none. */
function pileFor(thickness: number, there: readonly Stock[]): readonly number[] | undefined {
  const found = chooseLeaves(thickness, there, 0);
  if (found.leaves) return found.leaves;
  const piles = [found.below, found.above].flatMap((pile) => pile ?? []);
  return piles.sort((one, other) => Math.abs(one.error) - Math.abs(other.error)).at(0)?.leaves;
}
