import * as z from 'zod';
import { defineMove } from './define.js';
import { after, ISOLATE, SNUG, watch } from './jobSteps.js';

/** A table on linear guides whose slot runs askew is turned on its trucks, as far as its bolts have room in their holes. */
export const tableTurn = defineMove({
  kind: 'table-turn',
  title: 'Turn the table on its trucks',
  name: 'turn the table on its trucks',
  verb: 'Turn it',
  needs: ['trucks'],
  ifEquipped: true,
  input: z.strictObject({}),
  hardware: ({ has }) => (has?.includes('trucks') ? {} : undefined),
  steps: (facts) => [
    {
      text: 'Ride the other side of the slot too, and a second slot. If they do not agree, one slot is worn or burred, and the table stays.',
      caution: ISOLATE,
    },
    { text: 'Loosen the bolts of the table to snug on every truck. The trucks stay on their rails as they are.', caution: SNUG },
    watch(facts),
    {
      text: `Tap one end of the table over with a soft mallet, ${facts.direction}, by ${facts.size}. Where the bolts have no room left in their holes, stop: the table is drawn and its holes eased by the builder’s manual.`,
      needle: true,
    },
    ...after,
  ],
});
