import * as z from 'zod';
import { count, optionalMeasure } from '../input/fields.js';
import { overDistance } from './angles.js';
import { maybe } from './answer.js';
import { defineMove } from './define.js';
import { jointDrawing } from './drawing.js';
import { footCard, footWay, footWays, footWaysSchema } from './foot.js';
import { chooseLeaves, leavesAnswer, leavesWords, stockSchema } from './leaves.js';
import { shimSteps } from './shimSteps.js';

/** Thickness of a shim that gives a slope, µm/m, over the distance between the supports, mm. */
const thicknessFor = (slope: number | undefined, over: number | undefined): number =>
  overDistance(
    slope,
    over,
    ['thickness', 'is missing: give the thickness, or the slope and over what distance', '0.12 mm'],
    ['over', 'is missing: give the distance between the supports, which turns the angle into a thickness', '320 mm'],
  );

/** Leaves out of the user's stock for a thickness. */
export const shimLeaves = defineMove({
  kind: 'shim-leaves',
  title: 'Put shims under',
  name: 'shims out of the drawer',
  verb: 'Shim it',
  amountKey: 'thickness',
  slopeKey: 'slope',
  overKey: 'over',
  leaves: true,
  input: z.strictObject({
    thickness: optionalMeasure('deviation', { label: 'Thickness', above: 0, example: '0.12 mm', engraved: true }),
    slope: optionalMeasure('slope', { label: 'Angle to give', above: 0, example: '80 um/m' }),
    over: optionalMeasure('length', { label: 'Between the supports', above: 0, example: '320 mm' }),
    /** The same for each quantity of a check: a foot is not as long as it is wide. */
    ways: footWaysSchema.optional(),
    tolerance: optionalMeasure('deviation', { label: 'Tolerance ±', min: 0, example: '5 um' }),
    stock: stockSchema,
    maxLeaves: count({ label: 'Most leaves', min: 1, max: 6, example: '4' }),
  }),
  plan: ({ thickness, slope, over, stock, tolerance, maxLeaves }) => {
    const straight = thickness ?? thicknessFor(slope, over);
    return { ...(thickness === undefined && { thickness: straight }), ...chooseLeaves(straight, stock, tolerance, maxLeaves) };
  },
  answer: z.object({ thickness: maybe('deviation', 'Thickness, where an angle asked for it'), ...leavesAnswer }),
  does: ({ thickness }, { total, error = 0, thickness: wanted = thickness ?? 0 }) => (total === undefined ? wanted : total - error),
  sees: footCard,
  fill: ({ quantity, given }) => footWay(given, quantity, 'over'),
  hardware: ({ card, part, stock }) => {
    const ways = footWays(card, part);
    return stock && { stock, ...(ways && { ways }) };
  },
  drawing: (facts) => jointDrawing(facts, false),
  steps: (facts) => shimSteps(facts, { leaves: leavesWords(facts.plan, facts.words) }),
  example: { thickness: '0.12 mm', stock: [{ thickness: '0.05 mm', count: 4 }] },
});
