import * as z from 'zod';
import { ANY_PART } from '../checks/parts.js';
import { count, measure, optionalMeasure } from '../input/fields.js';
import { stripPlan, wedgePasses } from '../scraping/strips.js';
import { bare, figure, listOf } from './answer.js';
import { defineMove, refuse, type PlanOf } from './define.js';
import { jointDrawing } from './drawing.js';
import { footCard, footWay, footWays, footWaysSchema } from './foot.js';
import { after, RATED, SCRAPERS, watch, type JobStep, type StepFacts } from './jobSteps.js';

/** More passes than anybody scrapes: a typing mistake. */
const MOST = 2000;
/** Strips of a foot are no narrower than a usual blade, mm. */
const BLADE = 20;
/** A finishing pass on iron, µm. */
const FINE = 5;

const strip = { from: figure('length', 'From'), to: figure('length', 'To') };
const answer = z.object({
  zones: listOf(z.object({ ...strip, passes: bare('Passes over it') }), 'Strips from the low end, the one left alone included'),
  passes: listOf(z.object(strip), 'Passes in working order'),
  zonePasses: bare('Passes over the strips in all'),
  tilt: figure('deviation', 'Height of the wedge that comes off'),
});
type Facts = StepFacts<PlanOf<typeof answer>>;

/** Strips and their passes, the deepest first: "180 mm to 260 mm: 7 passes". */
const stripWords = ({ plan, words }: Facts): string[] =>
  [...(plan.zones ?? [])].reverse().map(({ from, to, passes }) => {
    const much = passes === 0 ? 'leave it alone' : passes === 1 ? 'one pass' : `${passes} passes`;
    return `${words.length(from)} to ${words.length(to)}: ${much}`;
  });

function steps(facts: Facts): JobStep[] {
  const { size, direction, raise, lower, part = ANY_PART } = facts;
  const strips = stripWords(facts);
  const from = raise === undefined ? 'the edge where nothing comes off' : `the edge at ${raise}`;
  return [
    { text: 'Read again before any metal goes: what does not repeat is not scraped.' },
    { text: part.off ?? 'Take off everything mounted on it, and lift it with rated gear.', caution: RATED },
    {
      text: `Take a wedge off the ${part.faces}: the most at ${lower ?? 'the side that the top has to go to'}, nothing at ${raise ?? 'the other'}. It goes ${direction}, by ${size}.`,
      caution: SCRAPERS,
    },
    ...(strips.length ? [{ text: `In strips counted from ${from}, the deepest first: ${strips.join('; ')}.` }] : []),
    { text: 'Print with blue after every pass, and stop one pass short.' },
    watch(facts),
    { text: 'Put it back, clamp it as in normal use and read.', needle: true },
    ...after,
  ];
}

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
  machines: ['mill'],
  card: footCard,
  fill: ({ quantity, given }) => footWay(given, quantity, 'length'),
  hardware: ({ card, part }) => {
    const ways = footWays(card, part);
    return ways && { ways, passDepth: FINE, blade: BLADE };
  },
  drawing: (facts) => jointDrawing(facts, true),
  steps,
  answer,
  does: (_input, { tilt }) => tilt,
  input: z.strictObject({
    wedge: optionalMeasure('deviation', { label: 'Height of the wedge', min: 0, example: '40 um' }),
    slope: optionalMeasure('slope', { label: 'Angle to take off', min: 0, example: '130 um/m' }),
    length: measure('length', { label: 'Length of the face', above: 0, example: '300 mm' }),
    /** Its length for each quantity of a check: a foot is not as long as it is wide. */
    ways: footWaysSchema.optional(),
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
