import * as z from 'zod';
import { fieldRegistry, measure } from '../input/fields.js';
import { bare, figure } from './answer.js';
import { defineMove } from './define.js';
import { after, ISOLATE, SNUG, watch, type JobFacts, type JobStep } from './jobSteps.js';

const card = {
  jacks: z
    .strictObject({
      length: measure('length', { label: 'Between the two jacks', above: 0, max: 20_000, example: '900 mm' }),
      pitch: measure('pitch', { label: 'Jack screw pitch', above: 0, max: 20, example: '1.5 mm' }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Jacks at a loose way', group: true, rare: true }),
};

const answer = z.object({
  near: figure('deviation', 'By how much the near end moves'),
  far: figure('deviation', 'By how much the far end moves'),
  nearTurns: bare('Turns of the jack at the near end'),
  farTurns: bare('Turns of the jack at the far end'),
});

/** Both needles count alike only where both dials stand on the same side. */
const sideWords = ({ way }: JobFacts): string => (way === 'up' || way === 'down' ? 'on top of it' : 'on your side of it');

const steps = (facts: JobFacts): JobStep[] => [
  { text: 'Loosen the bolts along the way to snug.', caution: `${ISOLATE} ${SNUG}` },
  watch(facts),
  {
    text: `Two indicators at once, one at each end, both ${sideWords(facts)}: bring the way over with the jack screws against the clamps, a little at each end in turn, until both needles read their targets.`,
    needle: true,
  },
  { text: 'Draw the bolts down from the middle outward, a little each.' },
  ...after,
];

/**
 * Pull a way over at its two ends with jack screws against clamps: amounts there from the offset at
 * the first end and the slope, read on two indicators at once.
 */
export const pull = defineMove({
  kind: 'pull',
  title: 'Pull the way over at its two ends',
  name: 'pull it over at its two ends',
  verb: 'Pull it over by',
  slopeKey: 'slope',
  signed: true,
  input: z.strictObject({
    slope: measure('slope', { label: 'Slope to give', example: '-30 um/m' }),
    offset: measure('deviation', { label: 'Offset to give at the near end', example: '0' }),
    length: measure('length', { label: 'Between the two jacks', above: 0, example: '900 mm' }),
    pitch: measure('pitch', { label: 'Jack screw pitch', above: 0, example: '1.5 mm' }),
  }),
  plan: ({ slope, offset, length, pitch }) => {
    const far = offset + (slope * length) / 1000;
    return { near: offset, far, nearTurns: offset / (pitch * 1000), farTurns: far / (pitch * 1000) };
  },
  answer,
  does: ({ length }, { near, far }) => (1000 * (far - near)) / length,
  handFigures: ['near', 'far', 'nearTurns', 'farTurns'],
  dials: ({ near, far }) => [
    ...(near === undefined ? [] : [{ where: 'Dial at the near end', amount: near }]),
    ...(far === undefined ? [] : [{ where: 'Dial at the far end', amount: far }]),
  ],
  machines: ['lathe'],
  card,
  hardware: ({ card }) => {
    return card.jacks && { ...card.jacks, offset: 0 };
  },
  drawing: ({ plan: { near, far }, way }) =>
    way === 'up' || way === 'down' || near === undefined || far === undefined ? undefined : { shows: 'pulled', near, far },
  steps,
  example: { slope: '-30 um/m', offset: 0, length: 900, pitch: 1.5 },
});
