import { slotsWhere } from '../instruments/slots.js';
import * as z from 'zod';
import { choice, count, fieldRegistry, measure, optionalMeasure, optionalNumber, placeList, several } from '../input/fields.js';
import type { Said } from '../units/said.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Note, type PlannedSlot } from './define.js';
import { evenly } from './stations.js';
import { ISOLATE } from './cautions.js';
import { linearEstimate, swingEstimate, type Estimate } from './estimate.js';
import { tooFew } from './notes.js';
import { clearanceFactor, differenceForm, STIFF, tightest } from './play.js';
import { unlimited } from './quantities.js';

export const locksKey = () =>
  choice({
    label: 'Locks',
    choices: [
      { value: 'off', label: 'off' },
      { value: 'on', label: 'on' },
    ],
  });

/** Feel is data too: such an entry has no dial reading. */
export const dragKeys = {
  drag: optionalNumber({ label: 'Drag by feel', min: 0, max: 5, example: '2', help: '0 free, 5 stiff.' }),
  at: optionalMeasure('length', { label: 'Along the travel', example: '120 mm' }),
};
export const feelOnly = (keys: { readonly drag?: number }): number | undefined => (keys.drag !== undefined ? 0 : undefined);

const reading = z.strictObject({
  stroke: z.enum(['push', 'pull'], { error: 'must be "push" or "pull"' }).optional(),
  locks: locksKey(),
  ...dragKeys,
});
type Keys = z.output<typeof reading>;

export function dragNotes(felt: readonly { readonly drag?: number; readonly at?: number }[]): Note<Said>[] {
  const drags = felt.flatMap(({ drag, at = 0 }) => (drag === undefined ? [] : [{ drag, at }]));
  const worst = tightest(drags);
  return worst && drags.length > 1
    ? [
        {
          code: 'tightest-place',
          severity: 'info',
          text: (size) =>
            `Tightest at ${size(worst.at, 'length')} of the travel (drag ${worst.drag} of 5): that place rules how far the gib may be driven.`,
        },
      ]
    : [];
}

/** Push and pull on one side of the resting needle: was one of them written without its sign? */
function unsigned(push: number, pull: number): Note<Said> {
  const [difference, sum] = [Math.abs(push - pull), Math.abs(push) + Math.abs(pull)];
  return {
    code: 'swing-unsigned',
    severity: 'serious',
    quantity: 'swing',
    text: (size) =>
      `Push and pull stand on the same side of the resting needle: as signed numbers that is a swing of ${size(difference, 'deviation')}, as two sizes one of ${size(sum, 'deviation')}. Give each its sign, from where the needle rests.`,
  };
}

type Slide = 'knee' | 'saddle' | 'table';

/** What carries what, from the floor up. */
const CHAIN = ['column', 'knee', 'saddle', 'table'] as const;
type Body = (typeof CHAIN)[number];
/** What a slide runs on: there the indicator stands when that slide alone is judged. */
const under = (slide: Slide): string => named(CHAIN[CHAIN.indexOf(slide) - 1]);
/** Not every mill has a knee: the saddle then runs on its base. */
const named = (body: string): string => (body === 'knee' ? 'knee or base' : body);

/** Other names of what stands still with the column, and of what the saddle runs on. */
const SAME_BODY: Readonly<Record<string, Body>> = {
  base: 'knee',
  bed: 'knee',
  head: 'column',
  spindle: 'column',
  quill: 'column',
  floor: 'column',
};

/** A body of a mill, by any of its names. */
const bodyField = (info: { readonly label: string; readonly help: string; readonly asked?: boolean }) =>
  z
    .preprocess(
      (raw) => (typeof raw === 'string' ? (SAME_BODY[raw] ?? raw) : raw),
      z.enum(CHAIN, { error: `must be one of ${CHAIN.join(', ')}` }).optional(),
    )
    .optional()
    .register(fieldRegistry, {
      ...info,
      choices: CHAIN.map((body) => ({ value: body, label: body === 'column' ? 'the column, or the head on it' : `the ${named(body)}` })),
    });

const setupOf = (slide: Slide) =>
  z.strictObject({
    guideLength: measure('length', { label: 'Length of the guide', above: 0, example: '180 mm' }),
    distance: measure('length', { label: 'Middle of the guide to the stylus', min: 0, example: '320 mm' }),
    carriedBy: bodyField({
      label: 'The indicator stands on',
      asked: true,
      help: `Every slide between it and what the stylus touches swings: on the ${under(slide)} it is the ${slide} alone.`,
    }),
    touches: bodyField({ label: 'Its stylus touches', help: `Left out, the ${slide} itself.` }),
    locked: several({
      label: 'Locked',
      help: 'Slides that were locked while it was pushed: they do not swing with it.',
      choices: SLIDES.map((value) => ({ value, label: value })),
    }),
    force: optionalMeasure('force', { label: 'Push', above: 0, example: '100 N' }),
    free: z.boolean({ error: 'must be true or false' }).optional().register(fieldRegistry, {
      label: 'It slides freely over its whole travel, felt by hand',
      anew: true,
      help: 'Settles a swing of nothing, where the drag was felt at two places or more: no play is then a good fit and no lock left on.',
    }),
  });
const SLIDES = ['knee', 'saddle', 'table'] as const;
type Setup = z.output<ReturnType<typeof setupOf>>;

/** The bodies that an indicator stands on and touches, and what was locked between them. */
interface Ends {
  readonly on?: Body;
  readonly touches: Body;
  readonly locked: readonly Slide[];
}

/** Slides that swing between what carries the indicator and what it touches. */
function judgedFrom(slide: Slide, { on, touches, locked }: Ends): readonly string[] {
  // Left out, it is taken to stand where that slide alone is judged.
  const from = on === undefined ? CHAIN.indexOf(slide) - 1 : CHAIN.indexOf(on);
  const to = CHAIN.indexOf(touches);
  return CHAIN.slice(Math.min(from, to) + 1, Math.max(from, to) + 1).filter((body) => !locked.some((name) => name === body));
}

const list = (words: readonly string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}` : (words[0] ?? '');

/** An indicator that stands or touches elsewhere judges other slides with it, or another one instead. */
function carrierNotes(slide: Slide, ends: Ends): Note[] {
  const judged = judgedFrom(slide, ends);
  if (judged.length === 1 && judged[0] === slide) return [];
  const on =
    ends.on === undefined
      ? ''
      : `With the indicator on the ${ends.on}${ends.touches === slide ? '' : ` and its stylus on the ${ends.touches}`}`;
  const shut = ends.locked.length ? `${on ? ' and' : 'With'} the ${list(ends.locked)} locked` : '';
  const swings =
    judged.length > 1
      ? `the swing of ${list(judged)} together`
      : judged.length
        ? `the swing of the ${judged[0]}`
        : 'the swing of nothing: no slide between them is free';
  return [
    {
      code: 'other-slide',
      severity: 'serious',
      quantity: 'swing',
      text: `${on}${shut} this is ${swings}. Set it on the ${under(slide)}, touch the ${slide}, and leave the ${slide} unlocked, to judge it alone.`,
    },
  ];
}

/** Places along the travel at which the drag is felt. */
const plan = z.strictObject({
  feel: count({
    label: 'How many places to feel the drag',
    min: 2,
    max: 12,
    example: '5',
    help: 'Along the whole travel: the tightest place rules.',
  }),
  travel: optionalMeasure('length', { label: 'Travel of the slide', above: 0, max: 10_000, example: '300 mm' }),
  places: placeList({ label: 'Places to feel the drag', example: '20, 120, 220 mm', min: 2 }),
});

function plannedSlots(_setup: Setup, { feel, travel = 300, places }: z.output<typeof plan>): PlannedSlot[] {
  const felt = places ?? (feel === undefined ? [] : evenly(0, travel, feel));
  return [
    ...(['off', 'on'] as const).flatMap((state) =>
      (['push', 'pull'] as const).map((hand) => ({
        keys: { stroke: hand, locks: state },
        label: `${hand === 'push' ? 'Pushed' : 'Pulled'}, locks ${state}`,
        ask: hand === 'push' ? 'Zero the needle with nothing touching it. Read push and pull from there, each with its sign.' : undefined,
      })),
    ),
    ...felt.map((at, i) => ({
      keys: { at },
      label: 'Drag by feel',
      movable: 'places',
      ask: i === 0 ? 'Locks off. Run the slide by hand and feel: 0 is free, 5 is stiff.' : undefined,
    })),
  ];
}

/** Whether the drag was felt at two places of the travel at least, and nowhere stiff. */
function isFelt(slots: CheckInput<Setup, Keys>['slots']): boolean {
  const drags = slots.flatMap(({ keys: { drag } }) => drag ?? []);
  return drags.length >= 2 && drags.every((drag) => drag < STIFF);
}

/** Whether a swing is less than the dial can show, µm. */
const standsStill = (swing: number, instrument: CheckInput<Setup, Keys>['instrument']): boolean =>
  Math.abs(swing) <= (instrument ? instrument.readTo * instrument.graduation : 0) + 1e-9;

function estimate({ setup, slots, instrument }: CheckInput<Setup, Keys>): Estimates {
  const notes = dragNotes(slots.map((slot) => slot.keys));
  const strokes = (stroke: 'push' | 'pull', state: 'off' | 'on') =>
    slotsWhere(slots, ({ keys }) => keys.stroke === stroke && (keys.locks ?? 'off') === state);
  const swing = (state: 'off' | 'on') => differenceForm(slots.length, strokes('push', state), strokes('pull', state));
  const values = slots.map((slot) => slot.value);
  const [free, locked] = [swing('off'), swing('on')];
  const estimates: Estimate[] = [];
  if (free) {
    const [push, pull] = (['push', 'pull'] as const).map((stroke) => values[strokes(stroke, 'off')[0]]);
    // A needle that did not come quite back to zero stands on one side too, by a little.
    const doubtful = push * pull > 0 && Math.min(Math.abs(push), Math.abs(pull)) > 0.1 * Math.max(Math.abs(push), Math.abs(pull));
    if (doubtful) notes.push(unsigned(push, pull));
    const raw = linearEstimate('', free).evaluate(values);
    // A hand that felt it free along its travel says more than a needle that stands still.
    const stuck = standsStill(raw, instrument) && !(setup.free === true && isFelt(slots));
    if (stuck)
      notes.push({
        code: 'lock-left-on',
        severity: 'serious',
        quantity: 'swing',
        text: 'It does not move at all: is a lock still on, or the gib drawn tight? Free the locks and push again. If it slides freely all the same, feel the drag at two places or more and say so in the set-up.',
      });
    const judged = doubtful || stuck ? ({ unsure: true } as const) : {};
    // The swing is signed push less pull; what counts is its size, and it has an aim of its own: no play at all is a tight gib.
    const sign = raw < 0 ? -1 : 1;
    const form = free.map((weight) => sign * weight);
    estimates.push({ ...linearEstimate('swing', form, judged), magnitude: true });
    // What is left with the locks on is the machine bending, not play.
    const lockedSign = locked && linearEstimate('', locked).evaluate(values) < 0 ? -1 : 1;
    const bending = locked?.map((weight) => lockedSign * weight);
    const factor = clearanceFactor(setup.guideLength, setup.distance);
    const clear = form.map((weight, i) => (weight - (bending?.[i] ?? 0)) * factor);
    estimates.push(swingEstimate('clearance', clear, judged));
  }
  if (locked) estimates.push(swingEstimate('swingLocked', locked));
  if (!free) notes.push(tooFew('a push and a pull with the locks off'));
  return { estimates, notes };
}

/** Play of one slide of a mill: which slide, and the words for it. */
export function gibPlay(
  part: Slide,
  facts: Pick<CheckDefinition, 'choose' | 'hangsOn' | 'after' | 'needs'> & { readonly cautions?: readonly string[] },
): CheckDefinition {
  return defineCheck({
    ...facts,
    id: `${part}-gib-play`,
    family: 'play',
    title: `Play of the ${part} gib`,
    question: `How much does the ${part} swing when it is pushed and pulled?`,
    machines: ['mill'],
    setup: setupOf(part),
    reading,
    plan,
    conditions: z.strictObject({}),
    slotKeys: ['stroke', 'locks', 'drag', 'at'],
    beside: [{ key: 'drag', instead: true, when: ({ stroke, at }) => stroke === undefined && at !== undefined }],
    reads: 'indicator',
    valueFrom: feelOnly,
    quantities: {
      swing: {
        label: `Swing of the ${part}`,
        dimension: 'deviation',
        unit: 'um',
        limit: [0, 40],
        aim: 20,
        words: { plus: '', minus: '', movePlus: 'more', moveMinus: 'less' },
        // Where a hand has felt it free, as little play as can be is a good fit.
        variants: [{ key: 'felt-free', label: 'felt free by hand', limit: [null, 40], applies: (setup) => setup['free'] === true }],
      },
      swingLocked: unlimited('Swing with the locks on', 'deviation', 'um', { magnitude: true }),
      clearance: unlimited('Clearance of the guide, about', 'deviation', 'um', { magnitude: true }),
    },
    slots: plannedSlots,
    estimate: (input: CheckInput<Setup, Keys>) => {
      const { estimates, notes } = estimate(input);
      const { carriedBy, touches = part, locked = [] } = input.setup;
      // A body that only the conditions name counts as well.
      const told = CHAIN.find((body) => input.slots.some(({ keys }) => keys.conditions?.['indicatorOn'] === body));
      const carried = carrierNotes(part, { on: carriedBy ?? told, touches, locked });
      return {
        // What was read was not this slide alone: it says nothing of its gib.
        estimates: carried.length ? estimates.map((entry) => (entry.name === 'swing' ? { ...entry, unsure: true } : entry)) : estimates,
        notes: [...carried, ...notes],
      };
    },
    corrections: { swing: { plus: [], minus: ['gib'] } },
    part: { name: `gib of the ${part}`, faces: 'gib', slide: part },
    // What must go is clearance: the swing that is too much, less none of the bending, brought to the guide.
    amountFor: (kind, amount, setup) => (kind === 'gib' ? amount * clearanceFactor(setup.guideLength, setup.distance) : undefined),
    picture: { drawing: 'push-pull' },
    counting:
      'The raw swing from push to pull. It depends on where the stylus stands; the clearance is an estimate from it, less what bends with the locks on.',
    cautions: [ISOLATE, 'A knee or table that is freed can drop: block it first.', ...(facts.cautions ?? [])],
    cannotSee: ['Wear in one place only: feel the drag over the whole travel, the tightest place rules.'],
    advice: [
      'Push and pull with the same hand force, at the same place, each read with its sign from where the needle rests.',
      'Never more than two eighths of a turn before the drag is felt again; slack the small end first, end snug. Too tight wears it out.',
    ],
  });
}
