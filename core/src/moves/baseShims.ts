import * as z from 'zod';
import { count, fieldRegistry, measure, optionalMeasure, optionalNumber } from '../input/fields.js';
import { figure } from './answer.js';
import { defineMove, refuse } from './define.js';
import { chooseLeaves, leavesAnswer, leavesWords, stockSchema } from './leaves.js';
import { shimSteps } from './shimSteps.js';

/**
 * Thickness under the front (headstock end) and rear of a tailstock base so that its centre comes up
 * by `lift` and the barrel turns by `slope`: equal when the barrel only comes up, different when it turns too.
 *
 * @param lift µm wanted at the centre point, + up; undefined when only the slope matters: then one end
 *   is left on the base and the other comes up, since a shim cannot lower.
 * @param slope change of the barrel's slope, µm/m, + raises its free end.
 * @param length base length between the two shim lines, mm.
 * @param overhang mm from the front shim line forward to the centre point.
 * @returns front and rear thickness, and the lift of the centre that comes with them, µm.
 */
export function baseShimThickness(lift: number | undefined, slope: number, length: number, overhang: number) {
  const wedge = (slope * length) / 1000;
  const front = lift === undefined ? Math.max(0, wedge) : lift - (slope * overhang) / 1000;
  return { front, rear: front - wedge, lift: lift ?? front + (slope * overhang) / 1000 };
}

/** The base of a tailstock, as the machine card has it: what its shims are cut to. Lengths in mm. */
export const baseSchema = z.strictObject({
  length: measure('length', { label: 'Base length', above: 0, max: 5000, example: '160 mm', help: 'Along the bed.' }),
  width: measure('length', { label: 'Base width', above: 0, max: 5000, example: '110 mm', help: 'Across the bed.' }),
  overhang: optionalMeasure('length', {
    label: 'Centre beyond the base',
    min: 0,
    max: 5000,
    example: '60 mm',
    help: 'From the headstock end of the base to the point of the centre.',
  }),
  bolt: optionalMeasure('length', {
    label: 'Clamp bolt',
    above: 0,
    max: 200,
    example: '16 mm',
    help: 'Diameter of the bolts that pass through the base.',
  }),
  bolts: count({ label: 'Clamp bolts', min: 0, max: 4, example: '1', help: 'In a row along the middle of the base.' }),
  handleWidth: optionalMeasure('length', {
    label: 'Handle notch width',
    above: 0,
    max: 1000,
    example: '24 mm',
    rare: true,
    help: 'Room for the clamp lever at the front edge.',
  }),
  handleDepth: optionalMeasure('length', { label: 'Handle notch depth', above: 0, max: 1000, example: '15 mm', rare: true }),
});
export type TailstockBase = z.output<typeof baseSchema>;

/** Shims under the front and the rear of a base. */
export const baseShims = defineMove({
  kind: 'base-shims',
  title: 'Shim the base front and rear',
  name: 'shims, front and rear apart',
  verb: 'Shim it',
  amountKey: 'lift',
  slopeKey: 'slope',
  signed: true,
  leaves: true,
  input: z.strictObject({
    lift: optionalMeasure('deviation', { label: 'Lift at the centre', example: '30 um' }),
    slope: optionalMeasure('slope', { label: 'Change of barrel slope', example: '0' }),
    length: measure('length', { label: 'Base length', above: 0, example: '160 mm' }),
    overhang: optionalMeasure('length', { label: 'Centre beyond the base', min: 0, example: '60 mm' }),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    maxLeaves: optionalNumber({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
    stock: stockSchema.optional(),
  }),
  plan: ({ lift, slope, length, overhang = 0, stock, tolerance, maxLeaves }) => {
    if (lift === undefined && slope === undefined)
      refuse('lift', 'is missing: give the lift of the centre, the change of slope, or both', '30 um');
    const thickness = baseShimThickness(lift, slope ?? 0, length, overhang);
    const { front, rear } = thickness;
    if (front < 0 || rear < 0) {
      refuse(
        'lift',
        `would need ${Math.min(front, rear).toFixed(1)} µm under one end: shims cannot lower it, scrape or grind that end instead`,
        '30 um',
      );
    }
    const leaves = (needed: number) => (stock && needed > 0 ? chooseLeaves(needed, stock, tolerance, maxLeaves) : undefined);
    return { ...thickness, frontLeaves: leaves(front), rearLeaves: leaves(rear) };
  },
  answer: z.object({
    front: figure('deviation', 'Under the front of the base'),
    rear: figure('deviation', 'Under its rear'),
    lift: figure('deviation', 'How far the centre comes up'),
    frontLeaves: z.object(leavesAnswer).optional(),
    rearLeaves: z.object(leavesAnswer).optional(),
  }),
  does: ({ length, overhang = 0 }, { front, rear }) => front + ((front - rear) / length) * overhang,
  handFigures: ['front', 'rear'],
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  card: {
    base: baseSchema.optional().register(fieldRegistry, { label: 'Tailstock base', group: true }),
  },
  hardware: ({ card, stock, part }) => {
    const { base } = card;
    return base && part?.base ? { length: base.length, overhang: base.overhang ?? 0, ...(stock && { stock }) } : undefined;
  },
  drawing: ({ plan: { front, rear } }) =>
    front === undefined || rear === undefined ? undefined : { shows: 'ends', front: front > 0, rear: rear > 0 },
  steps: (facts) => {
    const { lift, frontLeaves, rearLeaves } = facts.plan;
    const ends = [frontLeaves, rearLeaves].map((pile) => pile && leavesWords(pile, facts.words));
    const centreLift = lift === undefined || lift === facts.amount ? undefined : facts.words.size(Math.abs(lift));
    return shimSteps(facts, { front: ends[0], rear: ends[1], centreLift });
  },
  example: { lift: '30 um', length: 160, overhang: 60 },
});
