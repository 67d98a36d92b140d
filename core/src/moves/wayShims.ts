import * as z from 'zod';
import { choice, fieldRegistry, measure } from '../input/fields.js';
import { defineMove, type PlanOf } from './define.js';
import { after, ISOLATE, watchClosed, type JobStep, type StepFacts } from './jobSteps.js';
import { oneEnd, oneEndAnswer, oneEndDoes, oneEndInput, oneEndWords } from './oneEnd.js';

const card = {
  strip: z
    .strictObject({
      length: measure('length', { label: 'Guiding strip of the saddle, its length', above: 0, max: 20_000, example: '300 mm' }),
      side: choice({
        label: 'Bolted on',
        choices: [
          { value: 'left', label: 'its left' },
          { value: 'right', label: 'its right' },
        ],
        help: 'Of the saddle, seen by the operator. Only where the strip can be packed: leave it out where the way is cast on.',
      }),
      pushes: choice({
        label: 'A shim behind it pushes the saddle',
        choices: [
          { value: 'away', label: 'away from that side' },
          { value: 'toward', label: 'toward that side' },
        ],
        help: 'Away where the strip bears on something beside the saddle, toward where it reaches round the way and bears inward. It is never assumed: the other end would take the shim.',
      }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Strip that guides the saddle', group: true }),
};

const OTHER_SIDE = { left: 'right', right: 'left' } as const;

function steps(facts: StepFacts<PlanOf<typeof oneEndAnswer>>): JobStep[] {
  const { truck = 'one', shims, finest } = oneEndWords(facts.plan, facts.words);
  return [
    { text: 'Take the play up at the gibs first: slack looks like an angle.', caution: ISOLATE },
    watchClosed(facts),
    { text: 'Hold the slide so that it cannot run or drop; wipers off. Slack the gib on the other side by a turn, never out.' },
    {
      text: `Loosen the ${truck} half of the bolts of the strip that guides it and lay ${shims} behind its ${truck} end, burrs off.${finest}`,
      caution: 'Shim edges cut: gloves.',
      leaves: true,
    },
    { text: 'Draw the strip down from the middle outward, then set the gib again and feel it over the whole travel.', needle: true },
    { text: 'Nothing else may have moved: read the table along both motions again.' },
    ...after,
  ];
}

/**
 * A slide on scraped ways that is guided by a strip bolted to one of its sides is turned by a shim behind one end of it:
 * squareness × length of the strip, at the end that a truck with its shoulder on the same side would take it.
 *
 * @returns as the move `trucks`. Source: docs/methods/mills.md.
 */
export const wayShims = defineMove({
  kind: 'way-shims',
  title: 'Shim a guiding strip',
  name: 'a shim behind the guiding strip',
  verb: 'Turn it',
  amountKey: 'slope',
  slopeKey: 'slope',
  overKey: 'spacing',
  signed: true,
  leaves: true,
  needs: ['slideways'],
  machines: ['mill'],
  ifOnCard: true,
  input: oneEndInput('Length of the strip', 'the side of the slide on which its strip is'),
  plan: oneEnd,
  card,
  answer: oneEndAnswer,
  does: oneEndDoes,
  handFigures: ['truck', 'shim'],
  hardware: ({ card: { strip }, stock }) => {
    if (!strip) return undefined;
    const { length, side, pushes } = strip;
    // It turns the slide as a truck would whose shoulder is on the side from which the shim pushes.
    const shoulder = pushes === 'toward' ? side && OTHER_SIDE[side] : side;
    return { spacing: length, ...(pushes && shoulder && { shoulder }), ...(stock && { stock }) };
  },
  drawing: ({ plan: { truck }, card: { strip } }) => (truck && strip?.side ? { shows: 'guide', end: truck, side: strip.side } : undefined),
  steps,
  example: { slope: '-130 um/m', spacing: '300 mm', shoulder: 'left' },
});
