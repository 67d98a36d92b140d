import * as z from 'zod';
import { defineMove } from './define.js';
import { ISOLATE, watch, type JobStep, type StepFacts } from './jobSteps.js';
import { truckCard, type TruckCard } from './trucks.js';

function steps(facts: StepFacts<object, TruckCard>): JobStep[] {
  const { card, size } = facts;
  const torque = card.trucks?.torque ? ` to ${card.trucks.torque}` : '';
  return [
    {
      text: 'Hold the slide so that it cannot run or drop; covers and wipers off. Mark both rails and every truck before a bolt is touched.',
      caution: ISOLATE,
    },
    {
      text: 'Loosen the trucks of the second rail to snug and read the motion again, with the master rail alone. If it runs straight now, the two rails were fighting: leave the master rail and go on with the second one.',
    },
    {
      text: `Where the master rail is still off, by ${size} at the most, loosen its bolts there, one beside the other and never all of them. Look for dirt and burrs under it and at its shoulder first: they are what bends a rail most often.`,
    },
    watch(facts),
    {
      text: `Press it to its shoulder again and tighten from the middle outward${torque}, in the order of the builder's manual, with the needle watched at each bolt. Where its shoulder is not straight, it is set by the needle and not by the shoulder.`,
      caution: 'Rails are hard and their edges sharp: gloves, and strike nothing but soft metal.',
      needle: true,
    },
    {
      text: 'Second rail: run the slide to each bolt in turn and tighten it where it stands there, then the trucks. The slide must go light over the whole travel. Write down what the needle did.',
      shift: true,
    },
    {
      text: 'Take a new round. The squareness of the axes and the table along both motions depend on these rails: read them after it.',
    },
  ];
}

/** A motion on linear guides that is not straight: dirt, a burr or a bent rail, put right at the rails and never with a scraper. */
export const railAlign = defineMove({
  kind: 'rail-align',
  title: 'Re-align the rails',
  name: 're-align the rails',
  verb: 'Re-align its rails',
  needs: ['trucks'],
  ifEquipped: true,
  input: z.strictObject({}),
  hardware: ({ has }) => (has?.includes('trucks') ? {} : undefined),
  sees: truckCard,
  steps,
});
