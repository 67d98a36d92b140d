import * as z from 'zod';
import { POWERED } from '../checks/cautions.js';
import { defineMove } from './define.js';
import { ISOLATE, partOf, watch, type JobFacts, type JobStep } from './jobSteps.js';

function steps(facts: JobFacts): JobStep[] {
  const { size, direction, needle, spread } = facts;
  // An angle is tapped until both ends read alike; what stands off an axis until both sides of it do.
  const turned = spread === 'wedge';
  const until = needle
    ? ', until the needle reads its target'
    : turned
      ? ': both ends of the flat come to read alike'
      : ': the two readings on that line, half a turn apart, become alike';
  const axis = turned
    ? ''
    : ' Leave the control alone. This error is corrected at the bolts; only the error along the slide is corrected in the control.';
  const { name, clamp = 'big bolts', before, stop, carries } = partOf(facts);
  return [
    {
      text: `Cover off: the long screws are marked, so that each goes back where it was. Scrape the old compound off and blow the joint out.${before ? ` ${before}` : ''}`,
      caution: `${ISOLATE} A turret indexes without warning.`,
    },
    watch(facts),
    {
      text: `The ${clamp} one at a time: loosen each and snug it again before the next. Never all at once.`,
      caution: 'Loosen to snug, never free: the part it carries can drop.',
    },
    {
      text: `Tap the ${name} with a soft mallet ${direction}, by ${size}${until}. From the other side if the needle goes the other way.${axis}`,
      caution: `By hand. Some nudge with a powered axis through a block of wood. ${POWERED}`,
      needle: true,
    },
    { text: 'When it stays still, tighten in stages, crosswise, with a reading after each; then hard, and read once more.', shift: true },
    { text: `Degrease the joint, seal it again, put the cover back.${stop ? ` ${stop}` : ''}` },
    {
      text: `${turned ? 'Read the flat again in a new round' : 'Sweep it again in a new round'}${carries ? `, and ${carries.others} after it` : ''}.`,
    },
  ];
}

/** Something that sits on a joint, moved by hand on its bolts: eased one by one, tapped over by the needle, tightened in stages. */
export const nudge = defineMove({
  kind: 'nudge',
  title: 'Move it on its bolts',
  name: 'on its bolts',
  verb: 'Move it',
  curedBy: 'bolts',
  input: z.strictObject({}),
  steps,
});
