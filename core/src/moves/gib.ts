import * as z from 'zod';
import { fieldRegistry, measure, optionalMeasure, plainNumber } from '../input/fields.js';
import { defineMove } from './define.js';
import { after, ISOLATE, partOf, watch, type JobFacts, type JobStep } from './jobSteps.js';

/** Eighths still to go from which two at once are given before the drag is felt again. */
const FAR_OFF = 4;

const eighthsWords = (eighths: number): string => `${eighths} eighth${eighths === 1 ? '' : 's'} of a turn`;

const steps = (facts: JobFacts): JobStep[] => [
  {
    text: 'Feel the drag over the whole travel first: the tightest place rules. Wipers off where they cover the screws.',
    caution: ISOLATE,
  },
  watch(facts),
  { text: `Bring the small end of the ${partOf(facts).name} back a quarter of a turn.` },
  {
    text: `Then drive its large end: ${facts.eighthsNow === undefined ? facts.size : `${eighthsWords(facts.eighthsNow)} now${facts.eighths === undefined ? '' : `, of ${facts.eighths} in all`}`}. Feel the drag before any more.`,
    needle: true,
  },
  { text: 'Then the small end snug. Too tight wears it out.' },
  ...after,
];

/**
 * Drive a taper gib 1:k by its screw of pitch s: clearance per turn s/(k·sin α) across the slide,
 * turns = excess·sin(α)·k/s, told in whole eighths, and how many of them to give before the drag is felt:
 * one, or two while it is far off.
 *
 * @returns `turns`, `eighths` and `now` (whole), `perTurn` µm.
 */
export const gib = defineMove({
  kind: 'gib',
  title: 'Take up the gib',
  name: 'drive the gib',
  verb: 'Take up',
  amountKey: 'excess',
  input: z.strictObject({
    excess: measure('deviation', { label: 'Clearance to lose', min: 0, example: '16 um' }),
    taper: plainNumber({ label: 'Taper of the gib 1:', above: 0, example: '60' }),
    pitch: measure('pitch', { label: 'Gib screw pitch', above: 0, example: '1.5 mm' }),
    angle: optionalMeasure('angle', { label: 'Dovetail angle', above: 0, max: 90, example: '55' }),
  }),
  plan: ({ excess, taper, pitch, angle = 90 }) => {
    const perTurn = (pitch * 1000) / (taper * Math.sin((angle * Math.PI) / 180));
    const turns = excess / perTurn;
    const eighths = Math.round(turns * 8);
    return { turns, eighths, now: Math.min(eighths, eighths >= FAR_OFF ? 2 : 1), perTurn };
  },
  needs: ['slideways'],
  card: {
    gib: z
      .strictObject({
        taper: plainNumber({ label: 'Taper of the gibs 1:', above: 0, example: '60' }),
        pitch: measure('pitch', { label: 'Gib screw pitch', above: 0, max: 20, example: '1.5 mm' }),
        angle: optionalMeasure('angle', { label: 'Dovetail angle', above: 0, max: 90, example: '55', help: '90 for square ways.' }),
      })
      .optional()
      .register(fieldRegistry, { label: 'Taper gibs', group: true, rare: true }),
  },
  hardware: ({ card }) => card['gib'] as Readonly<Record<string, unknown>> | undefined,
  steps,
  example: { excess: '16 um', taper: 60, pitch: 1.5 },
});
