import * as z from 'zod';
import { fieldRegistry, measure } from '../input/fields.js';
import { defineMove, type PlanOf } from './define.js';
import { jointDrawing } from './drawing.js';
import { after, partOf, watchClosed, type JobStep, type StepFacts } from './jobSteps.js';
import { stockSchema } from './leaves.js';
import { endShim, endShimAnswer, endShimWords } from './oneEnd.js';
import { HOLD_SLIDE, truckCard, type TruckCard } from './trucks.js';

/** Which end comes up where the slope is to grow: rails along x run to the right, along y to the column. */
const ENDS = { x: { plus: 'right', minus: 'left' }, y: { plus: 'rear', minus: 'front' } } as const;

const RAILS = [
  { value: 'x', label: 'those along the table: left and right ends' },
  { value: 'y', label: 'those toward the column: front and rear ends' },
] as const;

const { shim, ...withLeaves } = endShimAnswer;
const answer = z.object({
  shim,
  end: z.enum(['left', 'right', 'front', 'rear']).register(fieldRegistry, { label: 'Which end comes up' }),
  ...withLeaves,
});

function steps(facts: StepFacts<PlanOf<typeof answer>, TruckCard>): JobStep[] {
  const { end = 'one' } = facts.plan;
  const { shims, finest } = endShimWords(facts.plan, facts.words);
  const { torque } = facts.card.trucks ?? {};
  const body = partOf(facts).onTrucks?.body ?? partOf(facts).name;
  return [
    HOLD_SLIDE,
    watchClosed(facts),
    { text: `Loosen the bolts of the ${body} to snug on every truck, then take up the ${end} end just far enough for the shim.` },
    {
      text: `Lay ${shims} between the ${body} and each of the trucks at its ${end} end, as large as the truck, burrs off and faces clean. A truck between the ends gets its part: half of it in the middle.${finest}`,
      caution: 'Shim edges cut. Jack it, never pry it: hands stay out of the gap.',
      leaves: true,
    },
    {
      text: `Let it down and tighten it${torque ? ` to ${torque}` : ''} in the order of the builder's manual, the trucks of the master rail first.`,
      needle: true,
    },
    { text: 'Run the slide over its whole travel by hand: it must go as light as before. A truck that is now twisted binds.' },
    ...after,
  ];
}

/**
 * A table that does not run level on linear guides is brought up at one end by shims between it and the trucks there: slope ×
 * spacing of the trucks along the travel. Nothing of it is scraped, and no rail is touched.
 *
 * @returns `shim` µm, the `end` that takes it, `leaves` and what they leave over, `residual` µm/m, where there is stock;
 *   `finest` µm/m, what the thinnest leaf of the stock does.
 * Source: docs/methods/mills.md.
 */
export const truckLift = defineMove({
  kind: 'truck-lift',
  title: 'Shim under the trucks',
  name: 'shims at the trucks',
  verb: 'Shim it',
  amountKey: 'slope',
  slopeKey: 'slope',
  overKey: 'spacing',
  signed: true,
  leaves: true,
  needs: ['trucks'],
  ifEquipped: true,
  input: z.strictObject({
    slope: measure('slope', { label: 'Slope to give', example: '-80 um/m' }),
    spacing: measure('length', { label: 'Between the trucks, along the travel', above: 0, max: 20_000, example: '400 mm' }),
    along: z
      .enum(['x', 'y'], { error: 'must be "x" or "y": the rails that it runs on' })
      .register(fieldRegistry, { label: 'Which rails its trucks run on', choices: RAILS }),
    stock: stockSchema.optional(),
  }),
  answer,
  plan: ({ slope, spacing, along, stock }) => ({
    ...endShim(slope, spacing, stock),
    end: ENDS[along][slope < 0 ? 'minus' : 'plus'],
  }),
  does: ({ spacing }, { shim, end }) => ((end === 'right' || end === 'rear' ? 1 : -1) * 1000 * shim) / spacing,
  handFigures: ['end', 'shim'],
  sees: truckCard,
  hardware: ({ card: { trucks: told }, part, stock, has }) => {
    const along = part?.onTrucks?.along;
    if (!along || !(told || has?.includes('trucks'))) return undefined;
    const spacing = along === 'x' ? told?.tableSpacing : told?.spacing;
    return { along, ...(spacing !== undefined && { spacing }), ...(stock && { stock }) };
  },
  drawing: (facts) => jointDrawing(facts, false),
  steps,
  example: { slope: '-80 um/m', spacing: '400 mm', along: 'x' },
});
