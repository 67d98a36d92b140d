import * as z from 'zod';
import { choice, fieldRegistry, measure, optionalMeasure, optionalNumber, quantitySchema, plainNumber } from '../input/fields.js';
import { overDistance } from './angles.js';
import { bare, figure } from './answer.js';
import { defineMove, type CardOf, type PlanOf } from './define.js';
import { headDrawing, screwsDrawing } from './drawing.js';
import { headBolts, headCard, headScrews, headSteps } from './headSteps.js';
import { after, ISOLATE, partOf, SNUG, turnsInWords, watch, type JobFacts, type JobStep, type StepFacts } from './jobSteps.js';

const screwSchema = z.strictObject({
  pitch: measure('pitch', { label: 'Screw pitch', above: 0, max: 20, example: '2 mm' }),
  over: measure('length', { label: 'From the pivot to the screw', above: 0, max: 5000, example: '250 mm' }),
});

/** Travel of a screw that turns a part by a slope, µm/m, at a distance from its pivot, mm. */
const travelFor = (slope: number | undefined, over: number | undefined): number =>
  overDistance(
    slope,
    over,
    ['amount', 'is missing: give the amount, or the slope and how far the screw is from the pivot', '21 um'],
    ['over', 'is missing: give the distance from the pivot to the screw, which turns the angle into travel', '150 mm'],
  );

/** Sideways screws on a machine card. */
const card = {
  adjuster: z
    .strictObject({
      pitch: measure('pitch', { label: 'Adjuster screw pitch', above: 0, max: 20, example: '1.5 mm' }),
      layout: choice({
        label: 'Adjuster',
        choices: [
          { value: 'opposed-screws', label: 'two screws, one each side' },
          { value: 'single-screw', label: 'one screw that pulls and pushes' },
        ],
      }),
      rule: choice({
        label: 'Which of two screws moves it',
        choices: [
          { value: 'drive-far', label: 'the one it moves away from (usual)' },
          { value: 'drive-near', label: 'the one it moves toward' },
        ],
        rare: true,
        help: 'Found at the screw when a part went the other way. Change it here if that was wrong.',
      }),
      thirdScrew: z
        .boolean({ error: 'must be true or false' })
        .optional()
        .register(fieldRegistry, { label: 'A third screw locks it', help: 'It is slacked first and nipped up last.' }),
      screwsSit: z
        .string({ error: 'must be a text' })
        .max(80, 'must be 80 letters or fewer')
        .optional()
        .register(fieldRegistry, { label: 'Where the screws sit', example: 'low at the tail end, one each side' }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Sideways adjuster', group: true }),
};

const answer = z.object({
  turns: bare('Turns of the screw'),
  degrees: figure('angle', 'The same in degrees'),
  gain: bare('Gain that was allowed for').optional(),
  target: bare('Where the needle must stop, divisions').optional(),
});

type Card = CardOf<typeof card & typeof headCard>;

/** Which screw is slackened first: on a few machines a part goes toward the screw that is driven. @param named whether its side can be said. */
function slackened({ rule, plus }: JobFacts, named: boolean): string {
  const toward = rule !== 'drive-near';
  const side = toward === plus ? 'your side' : 'the rear';
  const which = `the screw on the side it moves ${toward ? 'toward' : 'away from'}${named ? ` (${side})` : ''}`;
  return toward ? `Slack ${which}.` : `On this machine it goes toward the screw that is driven. Slack ${which}.`;
}

function steps(facts: StepFacts<PlanOf<typeof answer>, Card>): JobStep[] {
  if (facts.part?.swivels) return headSteps(facts);
  const { name, faces, clean = faces, clamp = 'clamp', base } = partOf(facts);
  const { turns } = facts.plan;
  const { layout, thirdScrew, screwsSit } = facts.card.adjuster ?? {};
  const turn = turns === undefined ? '' : ` That is ${turnsInWords(turns)}. Watch the needle.`;
  const drive =
    layout === 'single-screw'
      ? [
          {
            text: `${screwsSit ? `The screw sits ${screwsSit}. ` : ''}Turn the screw so that it takes the ${name} ${facts.direction}, until the needle reads its target.${turn}`,
            needle: true,
            screw: true,
          },
        ]
      : [
          { text: `${screwsSit ? `The screws sit ${screwsSit}. ` : ''}${slackened(facts, base === true)}`, screw: true },
          { text: `Drive the other screw until the needle reads its target.${turn}`, needle: true, screw: true },
          { text: 'Bring the slack screw up to touch. If the needle moves, take it back.', screw: true },
        ];
  return [
    { text: `Clean the ${clean}.`, caution: ISOLATE },
    watch(facts),
    { text: `Loosen the ${clamp} to snug.`, caution: SNUG },
    ...(thirdScrew ? [{ text: 'Slack the third screw, the one that locks: nothing moves as long as it holds.', screw: true }] : []),
    ...drive,
    ...(thirdScrew ? [{ text: 'Nip the third screw up. If the needle moves, take it back.', screw: true }] : []),
    ...after,
  ];
}

/**
 * Opposed screws or any other screw: turns = amount / (pitch · gain), and where the needle must stop.
 * `amount` µm signed like the quantity; turns and degrees carry its sign; `target` in divisions.
 */
export const adjuster = defineMove({
  kind: 'adjuster',
  title: 'Turn the adjusting screws',
  name: 'turn the adjusting screws',
  verb: 'Bring it',
  amountKey: 'amount',
  slopeKey: 'slope',
  overKey: 'over',
  signed: true,
  input: z.strictObject({
    amount: optionalMeasure('deviation', { label: 'Amount', example: '21 um' }),
    slope: optionalMeasure('slope', { label: 'Angle to give', example: '80 um/m' }),
    over: optionalMeasure('length', { label: 'From the pivot to the screw', above: 0, example: '150 mm' }),
    pitch: measure('pitch', { label: 'Screw pitch', above: 0, example: '1.5 mm' }),
    /** Screws of their own for each quantity of a check: a head is tilted by one and nodded by another. */
    ways: z.partialRecord(z.enum(['tilt', 'nod']), screwSchema).optional(),
    gain: optionalNumber({ label: 'Gain', above: 0, example: '1', help: 'Learned: what the screw really moves for what it should.' }),
    indicator: z
      .strictObject({
        now: plainNumber({ label: 'Needle now', example: '0' }),
        graduation: quantitySchema('deviation', { above: 0 }, '0.01 mm'),
        rises: z.boolean({ error: 'must be true or false: does the needle count up as it moves?' }),
      })
      .optional(),
  }),
  plan: ({ amount: straight, slope, over, pitch, gain = 1, indicator }) => {
    const amount = straight ?? travelFor(slope, over);
    const turns = amount / (pitch * 1000 * gain);
    return {
      turns,
      degrees: turns * 360,
      ...(gain !== 1 && { gain }),
      ...(indicator && { target: indicator.now + ((indicator.rises ? 1 : -1) * amount) / indicator.graduation }),
    };
  },
  machines: ['lathe', 'turning-centre'],
  card,
  answer,
  sees: headCard,
  fill: ({ quantity, given }) =>
    ((given['ways'] as Readonly<Record<string, object>> | undefined)?.[quantity] as Readonly<Record<string, unknown>>) ?? {},
  hardware: ({ card, gain, part }) => {
    if (part?.swivels) return headScrews(card);
    const screws = card.adjuster;
    return screws && { pitch: screws.pitch, ...(gain && { gain }) };
  },
  does: ({ pitch, gain = 1 }, { turns }) => turns * pitch * 1000 * gain,
  handFigures: ['turns', 'degrees'],
  screws: ({ adjuster: sideways, head }, part, quantity) =>
    part?.swivels ? { bolts: headBolts({ head }, quantity).count } : { layout: sideways?.layout, rule: sideways?.rule },
  drawing: (facts) => (facts.part?.swivels ? headDrawing(facts) : screwsDrawing(facts, facts.card.adjuster ?? {})),
  steps,
  example: { amount: '21 um', pitch: 1.5 },
});
