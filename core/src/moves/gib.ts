import * as z from 'zod';
import { choice, fieldRegistry, measure, optionalMeasure, optionalNumber, plainNumber } from '../input/fields.js';
import { STIFF } from '../checks/play.js';
import { bare, figure } from './answer.js';
import { defineMove, type CardOf, type PlanOf } from './define.js';
import { middleOutward } from './drawing.js';
import { after, ISOLATE, partOf, watch, type JobStep, type StepFacts } from './jobSteps.js';

/** Eighths still to go from which two at once are given before the drag is felt again. */
const FAR_OFF = 4;

/** Eighths of a turn that were given, − back, and the drag that was felt after them; of a straight gib by which screw. */
export interface GibFelt {
  readonly eighths: number;
  readonly drag: number;
  readonly screw?: number;
}

/** What comes after what was given so far: eighths to give now (− back), and why. */
export interface GibNext {
  readonly given: number;
  readonly now: number;
  readonly why: 'stiff' | 'by-feel' | 'all-given' | 'go-on';
}

/**
 * What a hand gives next on a taper gib. Feel rules: what drags stiff goes back by an eighth, and is not driven there again,
 * whatever the dial asked for.
 *
 * @param eighths to give in all by the plan; undefined where the gib is not known, then it goes by feel alone.
 */
export function gibNext(eighths: number | undefined, felt: readonly GibFelt[]): GibNext {
  let given = 0;
  const tooFar: number[] = [];
  for (const { eighths: some, drag } of felt) {
    given += some;
    if (drag >= STIFF) tooFar.push(given);
  }
  const last = felt.at(-1);
  if (last && last.drag >= STIFF) return { given, now: -1, why: 'stiff' };
  if (given + 1 >= Math.min(...tooFar)) return { given, now: 0, why: 'by-feel' };
  const left = eighths === undefined ? 1 : eighths - given;
  if (left <= 0) return { given, now: 0, why: 'all-given' };
  return { given, now: Math.min(left, left >= FAR_OFF ? 2 : 1), why: 'go-on' };
}

const eighthsWords = (eighths: number): string => `${eighths} eighth${eighths === 1 ? '' : 's'} of a turn`;

const card = {
  gib: z
    .strictObject({
      taper: plainNumber({ label: 'Taper of the gibs 1:', above: 0, example: '60' }),
      pitch: measure('pitch', { label: 'Gib screw pitch', above: 0, max: 20, example: '1.5 mm' }),
      angle: optionalMeasure('angle', { label: 'Dovetail angle', above: 0, max: 90, example: '55', help: '90 for square ways.' }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Taper gibs, all alike', group: true, rare: true }),
  gibs: z
    .array(
      z.strictObject({
        slide: choice({
          label: 'Slide',
          choices: ['knee', 'saddle', 'table', 'cross slide', 'top slide'].map((value) => ({ value, label: value })),
        }),
        straight: z
          .boolean({ error: 'must be true or false' })
          .optional()
          .register(fieldRegistry, { label: 'Straight, with several screws' }),
        screws: optionalNumber({ label: 'Screws', min: 1, max: 20, example: '4' }),
        taper: optionalNumber({ label: 'Taper 1:', above: 0, example: '60' }),
        pitch: measure('pitch', { label: 'Screw pitch', above: 0, max: 20, example: '1.5 mm' }),
        angle: optionalMeasure('angle', { label: 'Dovetail angle', above: 0, max: 90, example: '55', help: '90 for square ways.' }),
      }),
    )
    .max(12)
    .optional()
    .register(fieldRegistry, { label: 'Gibs', help: 'One row for each slide.' }),
};
type Card = CardOf<typeof card>;

const gibOf = ({ gibs }: Card, slide: string | undefined) =>
  slide === undefined ? undefined : gibs?.find((gib) => (gib.slide ?? 'knee') === slide);

const answer = z.object({
  turns: bare('Turns of the gib screw'),
  eighths: bare('The same in whole eighths of a turn'),
  now: bare('Eighths to give before the drag is felt again'),
  perTurn: figure('deviation', 'Clearance that one turn takes up'),
});
type Facts = StepFacts<PlanOf<typeof answer>, Card>;

/** Screws of a straight gib in the order in which they are set, from 1: the middle ones first. */
export const screwOrder = (screws: number): number[] => middleOutward(screws).map((place) => place + 1);

/** A straight gib is set screw by screw, from the middle outward, and only as far as the drag allows. */
const straightSteps = (facts: Facts, screws: number | undefined): JobStep[] => [
  {
    text: 'Feel the drag over the whole travel first: the tightest place rules. Put the slide there. Wipers off where they cover the screws.',
    caution: ISOLATE,
  },
  watch(facts),
  { text: `Loosen the lock nuts of the ${screws ?? 'gib'} screws.` },
  {
    text: `Screw by screw, ${screws === undefined ? 'the middle ones first' : `in this order: ${screwOrder(screws).join(', ')}, counted along it`}: in until it just drags, back by an eighth of a turn, then hold the screw and tighten the nut. Push and pull after each: the needle shows which screw does it.`,
    needle: true,
  },
  { text: 'Run the whole travel. Where it binds, the last screw goes back an eighth. Too tight wears it out.' },
  LOCKS,
  ...after,
];

/** Where play is lived with. */
const LOCKS: JobStep = {
  text: 'Lock what does not feed while it cuts. Where play has to be lived with, the lock of the feeding slide lightly set is a brake: it is not a gib.',
};

function steps(facts: Facts): JobStep[] {
  const own = gibOf(facts.card, facts.part?.slide);
  if (own?.straight) return straightSteps(facts, own.screws);
  const { eighths, now } = facts.plan;
  const all = eighths === undefined ? '' : `, of ${eighths} in all`;
  const much = facts.byFeel ? 'by what is said above' : now === undefined ? facts.size : `${eighthsWords(now)} now${all}`;
  return [
    {
      text: 'Feel the drag over the whole travel first: the tightest place rules. Wipers off where they cover the screws.',
      caution: ISOLATE,
    },
    watch(facts),
    { text: `Bring the small end of the ${partOf(facts).name} back a quarter of a turn.` },
    { text: `Then drive its large end: ${much}. Feel the drag before any more.`, needle: true },
    { text: 'Then the small end snug. Too tight wears it out.' },
    LOCKS,
    ...after,
  ];
}

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
    return { turns, eighths, now: gibNext(eighths, []).now, perTurn };
  },
  needs: ['slideways'],
  card,
  hardware: ({ card, part }) => {
    const own = gibOf(card, part?.slide);
    if (own) return own.straight || own.taper === undefined ? undefined : { taper: own.taper, pitch: own.pitch, angle: own.angle };
    return card.gib;
  },
  answer,
  does: (_input, { turns, perTurn }) => turns * perTurn,
  handFigures: ['turns'],
  drawing: ({ card, part }) => {
    const own = gibOf(card, part?.slide);
    if (!own?.straight) return { shows: 'gib', screws: [] };
    return own.screws === undefined ? undefined : { shows: 'gib', screws: middleOutward(own.screws) };
  },
  steps,
  example: { excess: '16 um', taper: 60, pitch: 1.5 },
});
