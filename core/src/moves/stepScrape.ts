import * as z from 'zod';
import { count, measure, optionalMeasure } from '../input/fields.js';
import { stripPlan, wedgePasses } from '../scraping/strips.js';
import { defineMove, refuse } from './define.js';

/** More passes than anybody scrapes: a slip of the keyboard. */
const MOST = 2000;

/**
 * Scrape a wedge off in strips (docs/methods/scraping.md).
 *
 * @returns zones from the low end with their passes; passes in working order; zone-passes in all; the tilt that results, µm.
 */
export const stepScrape = defineMove({
  kind: 'step-scrape',
  title: 'Scrape in steps',
  name: 'scrape in strips',
  verb: 'Scrape a wedge of',
  amountKey: 'wedge',
  slopeKey: 'slope',
  overKey: 'length',
  metal: true,
  input: z.strictObject({
    wedge: optionalMeasure('deviation', { label: 'Height of the wedge', min: 0, example: '40 um' }),
    slope: optionalMeasure('slope', { label: 'Angle to take off', min: 0, example: '130 um/m' }),
    length: measure('length', { label: 'Length of the face', above: 0, example: '300 mm' }),
    passDepth: measure('deviation', { label: 'Depth of a pass', above: 0, example: '5 um' }),
    straightDown: count({ label: 'Passes straight down', min: 0, max: 500, example: '0' }),
    blade: optionalMeasure('length', { label: 'Width of the blade', min: 0, example: '20 mm' }),
  }),
  plan: ({ wedge: straight, slope, length, passDepth, straightDown = 0, blade }) => {
    const wedge =
      straight ??
      (slope === undefined ? refuse('wedge', 'is missing: give the height of the wedge, or its slope', '40 um') : (slope * length) / 1000);
    if (wedgePasses(wedge, passDepth) > MOST)
      refuse(
        'passDepth',
        `would make ${wedgePasses(wedge, passDepth)} passes of it: nobody scrapes more than ${MOST}. Give the depth of a pass`,
        '5 um',
      );
    return { ...stripPlan({ wedge, length, passDepth, straightDown, blade }) };
  },
  example: { wedge: '40 um', length: 300, passDepth: '5 um' },
});
