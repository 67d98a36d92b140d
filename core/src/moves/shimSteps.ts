import { after, partOf, RATED, watch, type JobFacts, type JobStep } from './jobSteps.js';

/** Steps of laying shims into a joint. */
export function shimSteps(facts: JobFacts): JobStep[] {
  const { name, open, over = name } = partOf(facts);
  const parts =
    (facts.frontLeaves ?? facts.rearLeaves)
      ? `front ${facts.frontLeaves || 'none'}; rear ${facts.rearLeaves || 'none'}`
      : (facts.leaves ?? facts.size);
  const [take, joint] = open ?? [`Take the weight of the ${name}.`, 'Open the joint.'];
  return [
    { text: take, caution: RATED },
    ...(facts.out ? [{ text: `${joint} Take out what went in before: ${facts.out}.` }] : []),
    { text: `${facts.out ? '' : `${joint} `}Clean and deburr both faces; a burr under a shim is a shim.` },
    ...(facts.out && facts.leaves === '' ? NOTHING_IN : laid(facts, parts)),
    ...(facts.centreLift ? [{ text: `The centre comes up by ${facts.centreLift} with it: check its height again.` }] : []),
    watch(facts),
    { text: `Put the ${over} back and draw the bolts down in order, a little each.`, needle: true },
    ...after,
  ];
}

const NOTHING_IN: readonly JobStep[] = [{ text: 'Put nothing in their place.', leaves: true }];

/** Cutting the leaves and laying them in. */
function laid(facts: JobFacts, parts: string): JobStep[] {
  return [
    {
      text: `Cut the shims ${partOf(facts).base ? 'to the template' : 'clear of the bolts'}: ${parts}. Deburr every edge.`,
      caution: 'Shim edges cut: gloves.',
    },
    {
      text: `Lay them in dry${facts.raise ? ` under ${facts.raise}, nothing under ${facts.lower}` : ''}, thickest leaf at the bottom, clear of the bolts and the handle. No more than four leaves: more is springy.`,
      leaves: true,
    },
  ];
}
