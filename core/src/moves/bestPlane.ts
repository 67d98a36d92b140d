import * as z from 'zod';
import { measure, quantitySchema } from '../input/fields.js';
import { planeToScrape, pricesOf } from '../scraping/planeToScrape.js';
import { figure, groupOf, listOf } from './answer.js';
import { defineMove, refuse } from './define.js';

const point = z.strictObject({
  x: quantitySchema('length', {}, '120 mm'),
  y: quantitySchema('length', {}, '60 mm'),
  height: quantitySchema('deviation', {}, '4 um'),
  doubt: quantitySchema('deviation', { min: 0 }, '1.5 um').optional(),
  bear: z.boolean({ error: 'must be true or false: must it bear?' }).optional(),
});

/** The plane to scrape a face down to: only removal, least of it, and what each place it rests on costs. */
export const bestPlane = defineMove({
  kind: 'best-plane',
  title: 'Find the best plane',
  name: 'down to the best plane',
  verb: 'Scrape it down to',
  metal: true,
  input: z.strictObject({
    points: z
      .array(point, { error: 'must be a list of places' })
      .min(1, { error: 'must name one place at least' })
      .max(2000, { error: 'must have at most 2000 places' }),
    tilt: z
      .strictObject({
        x: measure('slope', { label: 'Tilt along x', example: '20 um/m' }),
        y: measure('slope', { label: 'Tilt along y', example: '0' }),
      })
      .optional(),
  }),
  answer: z.object({
    plane: groupOf(
      {
        offset: figure('deviation', 'Height at x = y = 0'),
        x: figure('slope', 'Tilt along x'),
        y: figure('slope', 'Tilt along y'),
      },
      'The plane',
    ),
    depths: listOf(figure('deviation', 'To take off'), 'What comes off each place'),
    total: figure('deviation', 'In all'),
    price: listOf(figure('deviation', 'Saved'), 'What leaving each place out would save in all'),
  }),
  plan: ({ points, tilt }) => {
    const places = points.map(({ doubt = 0, bear = true, ...place }) => ({ ...place, doubt, bear }));
    const best = planeToScrape(places, tilt);
    if (!best) return refuse('points', 'has no place that must bear: there is nothing to lay a plane through', '{ "bear": true, … }');
    return { ...best, price: pricesOf(places, best, tilt) };
  },
  example: {
    points: [
      { x: 0, y: 0, height: '4 um' },
      { x: 200, y: 0, height: '0 um' },
      { x: 0, y: 100, height: '2 um' },
    ],
  },
});
