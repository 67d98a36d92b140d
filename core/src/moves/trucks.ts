import * as z from 'zod';
import { choice, fieldRegistry, measure, optionalMeasure } from '../input/fields.js';
import { defineMove, type CardOf, type PlanOf } from './define.js';
import { after, ISOLATE, watchClosed, type JobStep, type StepFacts } from './jobSteps.js';
import { oneEnd, oneEndAnswer, oneEndDoes, oneEndInput, oneEndWords } from './oneEnd.js';

/** Linear guides on a machine card. */
export const truckCard = {
  trucks: z
    .strictObject({
      spacing: measure('length', { label: 'Between the trucks of a rail', above: 0, max: 20_000, example: '300 mm' }),
      tableSpacing: optionalMeasure('length', {
        label: 'Between the trucks under the table',
        above: 0,
        max: 20_000,
        example: '400 mm',
        help: 'From left to right. A table that does not run level along x is shimmed there.',
      }),
      shoulder: choice({
        label: 'Shoulder of the master rail’s trucks',
        choices: [
          { value: 'left', label: 'on their left' },
          { value: 'right', label: 'on their right' },
        ],
        help: 'Of the slide that carries the table, seen by the operator.',
      }),
      torque: z
        .string({ error: 'must be a text' })
        .max(40, 'must be 40 letters or fewer')
        .optional()
        .register(fieldRegistry, { label: 'Truck bolts are tightened to', example: '30 N·m' }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Linear guides', group: true }),
};

/** What a machine card says of its linear guides. */
export type TruckCard = CardOf<typeof truckCard>;

/** How every card that opens a slide on linear guides begins. */
export const HOLD_SLIDE: JobStep = {
  text: 'Hold the slide so that it cannot run or drop; covers and wipers off. Mark every truck before a bolt is touched.',
  caution: ISOLATE,
};

function steps(facts: StepFacts<PlanOf<typeof oneEndAnswer>, TruckCard>): JobStep[] {
  const { truck = 'one', shims, finest } = oneEndWords(facts.plan, facts.words);
  const { torque } = facts.card.trucks ?? {};
  return [
    HOLD_SLIDE,
    watchClosed(facts),
    { text: 'Loosen the bolts of the trucks on the other rail to snug: they must not fight the shim.' },
    { text: `On the master rail loosen the ${truck} truck and open it from its shoulder.` },
    {
      text: `Lay in ${shims} between the ${truck} truck and its shoulder, burrs off and edges clean.${finest}`,
      caution: 'Shim edges cut.',
      leaves: true,
    },
    {
      text: `Press the trucks of the master rail against their shoulder and tighten them${torque ? ` to ${torque}` : ''} in the order of the builder's manual.`,
      needle: true,
    },
    { text: 'Run the slide over its whole travel, then tighten the followers the same way, where it stands.' },
    { text: 'Nothing else may have moved: read the table along both motions again, and how straight they run.' },
    ...after,
  ];
}

/**
 * A slide on linear guides is turned by a shim between one truck and its shoulder: squareness × spacing of the trucks.
 * An obtuse angle with the shoulder on the left of the truck wants it in the rear one, on the right in the front one;
 * an acute angle the other one. Master rail first, followers last.
 *
 * @returns `shim` µm, the `truck` that takes it, `leaves` and what they leave over, `residual` µm/m, where there is stock;
 *   `finest` µm/m, what the thinnest leaf of the stock does.
 * Source: docs/methods/moves.md.
 */
export const trucks = defineMove({
  kind: 'trucks',
  title: 'Shim a truck',
  name: 'shim a truck',
  verb: 'Turn it',
  amountKey: 'slope',
  slopeKey: 'slope',
  overKey: 'spacing',
  signed: true,
  leaves: true,
  needs: ['trucks'],
  input: oneEndInput('Between the trucks', 'the side of the truck on which its shoulder is'),
  plan: oneEnd,
  card: truckCard,
  answer: oneEndAnswer,
  does: oneEndDoes,
  handFigures: ['truck', 'shim'],
  hardware: ({ card: { trucks: told }, stock: drawer, has }) => {
    if (!told) return has?.includes('trucks') ? {} : undefined;
    // On which side the shoulder is decides which truck takes the shim: never assumed.
    return { spacing: told.spacing, ...(told.shoulder && { shoulder: told.shoulder }), ...(drawer && { stock: drawer }) };
  },
  drawing: ({ plan: { truck }, card: { trucks: guide } }) =>
    truck && guide?.shoulder ? { shows: 'guide', end: truck, side: guide.shoulder } : undefined,
  steps,
  example: { slope: '-130 um/m', spacing: '300 mm', shoulder: 'left' },
});
