import * as z from 'zod';
import { count, measure, quantitySchema } from '../input/fields.js';
import { zonePasses } from '../scraping/zonePasses.js';
import { bare, figure, listOf } from './answer.js';
import { defineMove } from './define.js';

/** Whole passes for each zone of a face: roughing, then finishing; never rounded up. */
export const passPlan = defineMove({
  kind: 'pass-plan',
  title: 'Plan the passes',
  name: 'passes zone by zone',
  verb: 'Take off',
  metal: true,
  input: z.strictObject({
    depths: z
      .array(quantitySchema('deviation', { min: 0 }, '24 um'), { error: 'must be a list of depths' })
      .min(1, { error: 'must name one depth at least' })
      .max(2000, { error: 'must have at most 2000 zones' }),
    rough: measure('deviation', { label: 'Roughing pass', above: 0, example: '12 um' }),
    fine: measure('deviation', { label: 'Finishing pass', above: 0, example: '5 um' }),
    keepFine: count({ label: 'Finishing passes kept', min: 0, max: 50, example: '2' }),
  }),
  answer: z.object({
    zones: listOf(
      z.object({ rough: bare('Roughing passes'), fine: bare('Finishing passes'), left: figure('deviation', 'Left over') }),
      'Zones, in the order of the depths',
    ),
  }),
  plan: ({ depths, rough, fine, keepFine = 2 }) => ({ zones: depths.map((depth) => zonePasses(depth, rough, fine, keepFine)) }),
  example: { depths: ['24 um', '9 um'], rough: '12 um', fine: '5 um' },
});
