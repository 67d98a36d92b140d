import * as z from 'zod';
import { choice, fieldRegistry, measure } from '../input/fields.js';
import { defineMove } from './define.js';
import { after, ISOLATE, watch, type JobFacts, type JobStep } from './jobSteps.js';
import { finestWords, oneEnd, oneEndInput } from './oneEnd.js';

function steps(facts: JobFacts): JobStep[] {
  const { truck = 'one', leaves, thickness = 'the shim' } = facts;
  return [
    { text: 'Take the play up at the gibs first: slack looks like an angle.', caution: ISOLATE },
    { text: 'Hold the slide so that it cannot run or drop; wipers off. Slack the gib on the other side by a turn, never out.' },
    {
      text: `Loosen the ${truck} half of the bolts of the strip that guides it and lay ${leaves ?? thickness} behind its ${truck} end, burrs off.${finestWords(facts)}`,
      caution: 'Shim edges cut: gloves.',
      leaves: true,
    },
    watch(facts),
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
  card: {
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
      })
      .optional()
      .register(fieldRegistry, { label: 'Strip that guides the saddle', group: true }),
  },
  hardware: ({ card, stock }) => {
    const strip = card['strip'] as { readonly length: number; readonly side?: 'left' | 'right' } | undefined;
    return strip && { spacing: strip.length, ...(strip.side && { shoulder: strip.side }), ...(stock && { stock }) };
  },
  steps,
  example: { slope: '-130 um/m', spacing: '300 mm', shoulder: 'left' },
});

/** A table on a swivelling saddle is turned on its own joint: eased, tapped over by the needle, drawn down again. */
export const swivel = defineMove({
  kind: 'swivel',
  title: 'Swivel the table',
  name: 'swivel it on its joint',
  verb: 'Swivel it',
  machines: ['mill'],
  ifOnCard: true,
  input: z.strictObject({}),
  card: {
    swivels: z.boolean({ error: 'must be true or false' }).optional().register(fieldRegistry, { label: 'The table swivels on its saddle' }),
  },
  hardware: ({ card }) => (card['swivels'] === true ? {} : undefined),
  steps: (facts) => [
    { text: 'Loosen the bolts of the swivel to snug, never free. Do not rely on its scale.', caution: ISOLATE },
    watch(facts),
    { text: `Tap it over with a soft mallet, ${facts.direction}, by ${facts.size}.`, needle: true },
    ...after,
  ],
});
