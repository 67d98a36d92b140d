import * as z from 'zod';
import { defineMove } from './define.js';
import { after, ISOLATE, partOf, RATED, SCRAPERS, watch, type JobFacts, type JobStep, type StepFacts } from './jobSteps.js';

/** How the metal is wanted, in words: all over alike, as a wedge, or where it stands high. */
function metal({ size, direction, spread = 'even' }: JobFacts, faces: string): string {
  const way = direction ? `, so that it comes ${direction}` : '';
  if (spread === 'wedge')
    return `Take a wedge off the ${faces}: nothing at one end and the most at the other, ${size} over their length, to ${direction || 'bring it true'}.`;
  if (spread === 'high-places') return `Take the high places of the ${faces} down: ${size} at the most, nothing in the hollows.`;
  return `Take ${size} off the ${faces}, evenly${way}.`;
}

/** Depths of a roughing and a finishing pass on iron, µm. */
const PASSES = [12, 5] as const;

function steps(facts: StepFacts): JobStep[] {
  const { name, faces, off, before, stop } = partOf(facts);
  const [rough, fine] = PASSES.map(facts.words.size);
  return [
    { text: before ?? 'Measure again before any metal goes: what does not repeat is not scraped.' },
    off ? { text: off, caution: RATED } : { text: `Wipe and stone the ${name}; no burr may be under the straightedge.`, caution: ISOLATE },
    { text: `${metal(facts, faces)} Roughing passes take about ${rough}, finishing ${fine}.`, caution: SCRAPERS },
    { text: stop ?? 'Stop one pass short and read again.' },
    ...(off
      ? [watch(facts), { text: 'Put it back, clamp it as in normal use and read.', needle: true }, ...after]
      : [{ text: 'Take a new round, read as it was read before.' }]),
  ];
}

/** Metal taken off by hand: what is wanted is said, where and how deep the chart and the print tell. */
export const scrape = defineMove({
  kind: 'scrape',
  title: 'Scrape or grind',
  name: 'scrape or grind',
  verb: 'Scrape or grind it',
  metal: true,
  input: z.strictObject({}),
  steps,
});
