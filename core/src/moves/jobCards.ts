import { ANY_PART, type Part } from './parts.js';

/** One step of a job card. */
export interface JobStep {
  readonly text: string;
  /** Beside the step that needs it. */
  readonly caution?: string;
  /** The step at which the needle is watched to its target. */
  readonly needle?: boolean;
  /** The step at which the movement on tightening is written down. */
  readonly shift?: boolean;
}

/** What a job card is written from; texts already in the reader's units and words. */
export interface JobFacts {
  /** "0.021 mm". */
  readonly size: string;
  /** "toward you". */
  readonly direction: string;
  /** Whether the move is in the + direction. */
  readonly plus: boolean;
  /** What is moved or worked on. */
  readonly part?: Part;
  /** How metal or shims are wanted: all over alike, as a wedge, or only where it stands high. */
  readonly spread?: 'even' | 'wedge' | 'high-places';
  readonly turns?: number;
  /** "0.05 mm + 0.02 mm", thickest first. */
  readonly leaves?: string;
  readonly frontLeaves?: string;
  readonly rearLeaves?: string;
  readonly angle?: number;
  readonly turn?: number;
  /** Where the needle is watched: "on the quill, operator's side, zeroed". */
  readonly where?: string;
  /** "from 0 to 10.5 div"; empty without a dial. */
  readonly needle?: string;
  readonly layout?: string;
  /** How much a centre comes up with shims that only tilt it: "0.044 mm". */
  readonly centreLift?: string;
  /** What is done to each face of a casting: "front vee near, outer: scrape 0.021 mm". */
  readonly faces?: readonly string[];
}

const ISOLATE = 'Isolate and lock out the machine; never power the spindle with an indicator or bar set up.';
const SNUG = 'Loosen to snug, never free.';
const RATED = 'Lift with rated gear, never by hand over an edge. Isolate first.';

const watch = ({ where, needle }: JobFacts): JobStep => ({
  text: `Set an indicator ${where || 'where it will see the move'}. ${needle ? `Its needle must go ${needle}. ` : ''}Nudge the part toward the stylus once to see which way the needle goes.`,
});
const after: readonly JobStep[] = [
  { text: 'Tighten the clamp as it will be used. Read again after each bolt and write down what the needle did.', shift: true },
  { text: 'Take a new round under the same conditions.' },
];

function eighths(turns: number): string {
  const size = Math.abs(turns);
  if (size < 1 / 16) return `a hair: ${(size * 360).toFixed(0)}° of the screw`;
  return `about ${size < 1 ? `${Math.round(size * 360)}° of the screw` : `${size.toFixed(2)} turns`}`;
}

function adjusterSteps(facts: JobFacts): JobStep[] {
  const { name, faces, clean = faces, clamp = 'clamp' } = facts.part ?? ANY_PART;
  const turn = facts.turns === undefined ? '' : ` That is ${eighths(facts.turns)}; believe the needle, not the turns.`;
  const drive =
    facts.layout === 'single-screw'
      ? [
          {
            text: `Turn the screw so that it takes the ${name} ${facts.direction}, until the needle reads its target.${turn}`,
            needle: true,
          },
        ]
      : [
          { text: `Slack the screw on the side it moves toward${facts.part?.base ? ` (${facts.plus ? 'your side' : 'the rear'})` : ''}.` },
          { text: `Drive the other screw until the needle reads its target.${turn}`, needle: true },
          { text: 'Bring the slack screw up to touch. If the needle moves, take it back.' },
        ];
  return [
    { text: `Clean the ${clean}.`, caution: ISOLATE },
    watch(facts),
    { text: `Ease the ${clamp} until it is just held.`, caution: SNUG },
    ...drive,
    ...after,
  ];
}

function shimSteps(facts: JobFacts): JobStep[] {
  const { name, open, over = name } = facts.part ?? ANY_PART;
  const parts =
    (facts.frontLeaves ?? facts.rearLeaves)
      ? `front ${facts.frontLeaves || 'none'}; rear ${facts.rearLeaves || 'none'}`
      : (facts.leaves ?? facts.size);
  const [take, joint] = open ?? [`Take the weight of the ${name}.`, 'Open the joint.'];
  return [
    { text: take, caution: RATED },
    { text: `${joint} Clean and deburr both faces; a burr under a shim is a shim.` },
    { text: `Cut the shims to the template: ${parts}. Deburr every edge.`, caution: 'Shim edges cut: gloves.' },
    { text: 'Lay them in dry, thickest leaf at the bottom, clear of the bolts and the handle. No more than four leaves: more is springy.' },
    ...(facts.centreLift ? [{ text: `The centre comes up by ${facts.centreLift} with it: check its height again.` }] : []),
    watch(facts),
    { text: `Put the ${over} back and draw the bolts down in order, a little each.`, needle: true },
    ...after,
  ];
}

/** How the metal is wanted, in words: all over alike, as a wedge, or where it stands high. */
function metal({ size, direction, spread = 'even' }: JobFacts, faces: string): string {
  const way = direction ? ` so that it comes ${direction}` : '';
  if (spread === 'wedge')
    return `Take a wedge off the ${faces}: nothing at one end and the most at the other, ${size} over their length, to ${direction || 'bring it true'}.`;
  if (spread === 'high-places') return `Take the high places of the ${faces} down: ${size} at the most, nothing in the hollows.`;
  return `Take ${size} off the ${faces}, evenly,${way}.`;
}

function scrapeSteps(facts: JobFacts): JobStep[] {
  const { name, faces, off, before, stop } = facts.part ?? ANY_PART;
  return [
    { text: before ?? 'Measure again before any metal goes: what does not repeat is not scraped.' },
    off
      ? { text: off, caution: RATED }
      : { text: `Wipe and stone the ${name}; no burr may stand under the straightedge.`, caution: ISOLATE },
    {
      text: `${metal(facts, faces)} Roughing passes take about 0.012 mm, finishing 0.005 mm.`,
      caution: 'Scrapers cut. Iron dust and blue: gloves, eyes, air.',
    },
    { text: stop ?? 'Stop one pass short and read again.' },
    ...(off
      ? [watch(facts), { text: 'Put it back, clamp it as it will be used and read.', needle: true }, ...after]
      : [{ text: 'Take a new round, read as it was read before.' }]),
  ];
}

const eccentricSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Mark where the sleeve stands now with a scribed line across the joint.', caution: ISOLATE },
  watch(facts),
  { text: 'Ease the lock of the sleeve until it just turns.', caution: SNUG },
  {
    text: `Turn it by ${Math.abs(facts.turn ?? 0).toFixed(1)}°, to ${(facts.angle ?? 0).toFixed(1)}°, until the needle reads its target.`,
    needle: true,
  },
  ...after,
];

const feetSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Set the level where the bed was out of true and leave it there.', caution: ISOLATE },
  {
    text: `Half up on one side, half down on the other, ${facts.direction}.${facts.turns === undefined ? '' : ` Each foot ${eighths(facts.turns)}; a bed is springy, so believe the level.`}`,
    caution: 'Keep every foot bearing: a machine on three feet can tip.',
    needle: true,
  },
  watch(facts),
  { text: 'Tighten the lock nuts in turn and read again after each.', shift: true },
  { text: 'Take a new round, and another after a day: a levelled machine settles.' },
];

const feetShimSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Set the level where the bed was out of true and leave it there.', caution: ISOLATE },
  {
    text: `Raise the low feet just clear with a rated jack or bar, over blocks${facts.leaves ? `, and lay ${facts.leaves} under them` : ', and lay the shims under them'}: ${facts.direction}.`,
    caution: 'Never a hand under a foot. A machine on three feet can tip; lifting is for rated gear and those who know it.',
  },
  { text: 'Let it down and see that every foot bears: a leaf of feeler must not go in anywhere.', needle: true },
  watch(facts),
  { text: 'Draw the holding-down nuts up in turn and read again after each.', shift: true },
  { text: 'Take a new round, and another after a day: a levelled machine settles.' },
];

const pullSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Ease the bolts along the way until they are just held.', caution: `${ISOLATE} ${SNUG}` },
  watch(facts),
  {
    text: `Two indicators at once, one at each end: bring the way ${facts.size} ${facts.direction} with the jack screws against the clamps.`,
    needle: true,
  },
  { text: 'Draw the bolts down from the middle outward, a little each.' },
  ...after,
];

const supportSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Mark which way everything sat. Slack the belt and take off what hangs on the casting.', caution: ISOLATE },
  {
    text: 'Take the weight with rated gear, draw the bolts and lift it clear. Block it where it is worked on.',
    caution: 'Headstocks and columns are lifted with rated gear, never by hand over an edge; a hand never goes under.',
  },
  { text: 'Clean and deburr both faces. A burr under a face is a shim.' },
  ...(facts.faces?.length
    ? facts.faces.map((face, i) => ({
        text: face.charAt(0).toUpperCase() + face.slice(1) + '.',
        ...(i === 0 && { caution: 'Scrapers and shim edges cut; cast-iron dust and solvents: gloves, eyes, air.' }),
      }))
    : [{ text: `Work the faces until it stands ${facts.size} ${facts.direction}.`, caution: 'Scrapers cut: gloves, eyes, air.' }]),
  { text: 'Lay it back on clean faces, bolts snug and no more. Press every corner: it must not rock.' },
  watch(facts),
  { text: 'Tap or jack it over along its faces until the needle reads its target; a soft mallet, by hand.', needle: true },
  { text: 'Tighten in order, from the middle outward, a little each; read again after each bolt and log the shift.', shift: true },
  {
    text: 'What is forgotten: the belt on before the caps, seals under the bolts, oil holes clear, gear mesh felt with a strip of paper, guards back.',
  },
  { text: 'Take a new round under the same conditions, bar in and the spindle turned by hand.' },
];

const gibSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Feel the drag over the whole travel first: the tightest place rules.', caution: ISOLATE },
  watch(facts),
  {
    text: `Slack the screw at the small end, then drive the large end: ${facts.turns === undefined ? facts.size : eighths(facts.turns)}, never more than two eighths before the drag is felt again.`,
    needle: true,
  },
  { text: 'Bring the small end snug. Too tight wears it out.' },
  ...after,
];

const bearingSteps = (facts: JobFacts): JobStep[] => [
  { text: 'Take the caps off, one at a time, and mark which way round they sat.', caution: ISOLATE },
  {
    text: `Peel ${facts.size} off, the same on both sides of the cap. If less than a layer would be left, the joint faces must come down first.`,
  },
  {
    text: 'Belt on before the caps, seals under the bolts, oil holes clear; draw the caps down in order.',
    caution: 'Caps and spindle are heavy: block the spindle.',
  },
  watch(facts),
  { text: 'Lift again with the same force at several turns, and feel the drag.', needle: true },
  ...after,
];

/** Steps of a job card, by kind of move; kinds without a card get the plain one. */
export const JOB_CARDS: Readonly<Record<string, (facts: JobFacts) => JobStep[]>> = {
  adjuster: adjusterSteps,
  'shim-leaves': shimSteps,
  'base-shims': shimSteps,
  scrape: scrapeSteps,
  eccentric: eccentricSteps,
  feet: feetSteps,
  'feet-shims': feetShimSteps,
  supports: supportSteps,
  pull: pullSteps,
  gib: gibSteps,
  'bearing-shims': bearingSteps,
};

/** The numbered steps of a move. */
export function jobSteps(kind: string, facts: JobFacts): JobStep[] {
  const card = JOB_CARDS[kind];
  return card ? card(facts) : [{ text: `Move it ${facts.size} ${facts.direction}.`, caution: ISOLATE }, watch(facts), ...after];
}
