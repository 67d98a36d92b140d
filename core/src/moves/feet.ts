import * as z from 'zod';
import { fieldRegistry, measure, optionalMeasure, optionalNumber } from '../input/fields.js';
import { bare, figure } from './answer.js';
import { defineMove, refuse, type PlanOf } from './define.js';
import { ISOLATE, turnsInWords, watch, type JobStep, type StepFacts } from './jobSteps.js';

/** What a roll is asked by: straight, or as a twist over the distance between the pairs of feet. */
export const rollFields = {
  roll: optionalMeasure('slope', { label: 'Roll to give', example: '40 um/m' }),
  twist: optionalMeasure('twist', { label: 'Twist to give', example: '-54 um/m per m' }),
  apart: optionalMeasure('length', { label: 'Between the pairs of feet, along the bed', above: 0, example: '1400 mm' }),
};

/** µm/m of roll at one pair of feet: given, or the twist over the distance to the other pair. */
export function rollOf({ roll, twist, apart }: { readonly roll?: number; readonly twist?: number; readonly apart?: number }): number {
  if (roll !== undefined) return roll;
  if (twist === undefined)
    return refuse('roll', 'is missing: give the roll, or the twist and how far apart the pairs of feet stand', '40 um/m');
  if (apart === undefined) return refuse('apart', 'is missing: give how far apart the pairs are along the bed', '1400 mm');
  return (twist * apart) / 1000;
}

/** The feet of a machine on its card. */
export const feetCard = {
  feet: z
    .strictObject({
      track: measure('length', {
        label: 'Across the feet',
        above: 0,
        max: 10_000,
        example: '450 mm',
        help: 'From the front foot to the rear one of a pair.',
      }),
      apart: optionalMeasure('length', {
        label: 'Between the pairs',
        above: 0,
        max: 50_000,
        example: '1400 mm',
        help: 'Along the bed, from one pair of feet to the other.',
      }),
      pitch: measure('pitch', { label: 'Foot screw pitch', above: 0, max: 20, example: '2 mm' }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Levelling feet', group: true, rare: true }),
};

const answer = z.object({
  raise: figure('deviation', 'By how much one side comes up against the other'),
  each: figure('deviation', 'What each foot does of it'),
  turns: bare('Turns of each foot'),
  gain: bare('Gain that was allowed for').optional(),
});

const steps = (facts: StepFacts<PlanOf<typeof answer>>): JobStep[] => [
  { text: 'Set the level where it was out of true and leave it there.', caution: ISOLATE },
  {
    text: `Half up on one side, half down on the other, ${facts.direction}.${facts.plan.turns === undefined ? '' : ` Each foot ${turnsInWords(facts.plan.turns)}; a bed is springy, so go by the level.`}`,
    caution: 'Keep every foot bearing: a machine on three feet can tip.',
    needle: true,
  },
  watch(facts),
  { text: 'Tighten the lock nuts in turn and read again after each.', shift: true },
  { text: 'Take a new round, and another after a day: a levelled machine settles.' },
];

/**
 * Levelling feet at one end: raise the low side, half up on one side and half down on the other.
 * `roll` µm/m to be given (signed), `track` mm across the pair of feet, screw `pitch` mm.
 *
 * @returns `raise` across the track, `each` foot (µm, signed like the roll), `turns` of each screw.
 */
export const feet = defineMove({
  kind: 'feet',
  title: 'Turn the levelling feet',
  name: 'turn the levelling feet',
  verb: 'Level it by',
  slopeKey: 'roll',
  twistKey: 'twist',
  overKey: 'apart',
  signed: true,
  input: z.strictObject({
    ...rollFields,
    track: measure('length', { label: 'Across the feet', above: 0, example: '450 mm' }),
    pitch: measure('pitch', { label: 'Foot screw pitch', above: 0, example: '2 mm' }),
    gain: optionalNumber({ label: 'Gain', above: 0, example: '1', help: 'A bed is springy: what it moves for what the feet should do.' }),
  }),
  plan: ({ track, pitch, gain = 1, ...wanted }) => {
    const raise = (rollOf(wanted) * track) / 1000;
    const each = raise / 2;
    return { raise, each, turns: each / (pitch * 1000 * gain), ...(gain !== 1 && { gain }) };
  },
  answer,
  does: ({ track, pitch, gain = 1 }, { turns }) => (2 * turns * pitch * gain * 1_000_000) / track,
  handFigures: ['turns'],
  card: feetCard,
  hardware: ({ card, gain }) => {
    return card.feet && { ...card.feet, ...(gain && { gain }) };
  },
  steps,
  example: { roll: '40 um/m', track: 450, pitch: 2 },
});
