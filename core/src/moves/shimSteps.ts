import { after, partOf, RATED, watchClosed, type JobFacts, type JobStep } from './jobSteps.js';

/** What goes into a joint and comes out of it, in words. */
export interface ShimWords {
  /** "0.05 mm + 0.02 mm", thickest first; '' for nothing. */
  readonly leaves?: string;
  /** The same under the front and the rear end, where they differ. */
  readonly front?: string;
  readonly rear?: string;
  /** Leaves that come out first: "0.075 mm". */
  readonly out?: string;
  /** How far a centre comes up with shims that only tilt it: "0.044 mm". */
  readonly centreLift?: string;
}

/** Steps of laying shims into a joint. */
export function shimSteps(facts: JobFacts, { leaves, front, rear, out, centreLift }: ShimWords): JobStep[] {
  const { name, open, over = name } = partOf(facts);
  const parts = (front ?? rear) ? `front ${front || 'none'}; rear ${rear || 'none'}` : (leaves ?? facts.size);
  const [take, joint] = open ?? [`Take the weight of the ${name}.`, 'Open the joint.'];
  const both = partOf(facts).foot
    ? [
        {
          text: 'Does it lean the other way too? Then plan both at once on the castings page, Column foot: the joint is opened once, and each corner gets its own.',
        },
      ]
    : [];
  return [
    ...both,
    watchClosed(facts),
    { text: take, caution: RATED },
    ...(out ? [{ text: `${joint} Take out the shims that are there: ${out}.` }] : []),
    { text: `${out ? '' : `${joint} `}Clean and deburr both faces; a burr under a shim is a shim.` },
    ...(out && leaves === '' ? NOTHING_IN : laid(facts, parts)),
    ...(centreLift ? [{ text: `The centre comes up by ${centreLift} with it: check its height again.` }] : []),
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
      text: `Lay them in dry${facts.raise ? ` under ${facts.raise}${partOf(facts).foot ? ', at both corners' : ''}, nothing under ${facts.lower}` : ''}, thickest leaf at the bottom, clear of the bolts and the handle. No more than four leaves: more is springy.`,
      leaves: true,
    },
  ];
}
