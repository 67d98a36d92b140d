import * as z from 'zod';
import { choice, measure, optionalMeasure, optionalNumber } from '../../fields.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, tooFew } from '../common.js';
import { asSize, clearanceFactor, differenceForm, slotsWith, tightest } from '../play.js';
import { unlimited } from '../tailstock.js';
import { SEAT } from '../../moves/parts.js';

const stroke = z.enum(['push', 'pull'], { error: 'must be "push" or "pull"' }).optional();
const locks = choice({
  label: 'Locks',
  choices: [
    { value: 'off', label: 'off' },
    { value: 'on', label: 'on' },
  ],
});
const drag = {
  drag: optionalNumber({ label: 'Drag by feel', min: 0, max: 5, example: '2', help: '0 free, 5 stiff.' }),
  at: optionalMeasure('length', { label: 'Along the travel', example: '120 mm' }),
};
/** Feel is data too: such an entry has no dial reading. */
const feelOnly = (keys: Readonly<Record<string, unknown>>) => (keys['drag'] !== undefined ? 0 : undefined);

/** A reading of feel alone is no stroke. */
const strokes = (slots: readonly Slot[], wanted: Record<string, unknown>) => slotsWith(slots, wanted, { locks: 'off' });

function dragNotes(slots: readonly Slot[]): Note[] {
  const felt = slots.flatMap(({ keys }) =>
    typeof keys['drag'] === 'number' ? [{ drag: keys['drag'], at: (keys['at'] as number | undefined) ?? 0 }] : [],
  );
  const worst = tightest(felt);
  return worst && felt.length > 1
    ? [
        {
          code: 'tightest-place',
          severity: 'info',
          text: `Tightest at ${worst.at} mm of the travel (drag ${worst.drag} of 5): that place rules how far the gib may be driven.`,
        },
      ]
    : [];
}

const gibSetup = z.strictObject({
  guideLength: measure('length', { label: 'Length of the guide', above: 0, example: '180 mm' }),
  distance: measure('length', { label: 'Middle of the guide to the stylus', min: 0, example: '320 mm' }),
  force: optionalMeasure('force', { label: 'Push', above: 0, example: '100 N' }),
});
const gibReading = z.strictObject({ stroke, locks, ...drag });

function gibEstimate({ setup, slots }: CheckInput<z.output<typeof gibSetup>>): Estimates {
  const notes = dragNotes(slots);
  const swing = (state: string) =>
    differenceForm(slots, strokes(slots, { stroke: 'push', locks: state }), strokes(slots, { stroke: 'pull', locks: state }));
  const [free, locked] = [swing('off'), swing('on')];
  const estimates: Estimate[] = [];
  if (free) {
    const form = asSize(free, slots);
    const factor = clearanceFactor(setup.guideLength, setup.distance);
    estimates.push(
      { ...linearEstimate('swing', form), magnitude: true },
      {
        ...linearEstimate(
          'clearance',
          form.map((weight) => weight * factor),
        ),
        magnitude: true,
      },
    );
  }
  if (locked) estimates.push({ ...linearEstimate('swingLocked', asSize(locked, slots)), magnitude: true });
  if (!free) notes.push(tooFew('a push and a pull with the locks off'));
  return { estimates, notes };
}

function gibPlay(part: 'knee' | 'saddle' | 'table', order: string): CheckDefinition {
  return defineCheck({
    id: `${part}-gib-play`,
    family: 'play',
    title: `Play of the ${part} gib`,
    question: `How much does the ${part} swing when it is pushed and pulled?`,
    choose: `Before any squareness is read: ${order}`,
    machines: ['mill'],
    setup: gibSetup,
    reading: gibReading,
    slotKeys: ['stroke', 'locks', 'drag', 'at'],
    valueKind: 'indicator',
    valueFrom: feelOnly,
    quantities: {
      swing: {
        label: `Swing of the ${part}`,
        dimension: 'deviation',
        unit: 'um',
        limit: [0, 40],
        aim: 20,
        words: { plus: '', minus: '', movePlus: 'more', moveMinus: 'less' },
      },
      swingLocked: unlimited('Swing with the locks on', 'deviation', 'um', { magnitude: true }),
      clearance: unlimited('Clearance of the guide, about', 'deviation', 'um', { magnitude: true }),
    },
    plan: z.strictObject({}),
    conditions: z.strictObject({}),
    slots: () =>
      (['off', 'on'] as const).flatMap((state) =>
        (['push', 'pull'] as const).map((hand) => ({
          keys: { stroke: hand, locks: state },
          label: `${hand === 'push' ? 'Pushed' : 'Pulled'}, locks ${state}`,
        })),
      ),
    estimate: gibEstimate,
    corrections: { swing: { plus: [], minus: ['gib'] } },
    amountFor: (kind, amount, setup) => (kind === 'gib' ? amount * clearanceFactor(setup.guideLength, setup.distance) : amount),
    counting: 'The raw swing from push to pull. It depends on where the stylus stands; the clearance is an estimate from it.',
    upsets: ['axis-squareness', 'table-parallelism-x', 'table-parallelism-y', 'head-tram', 'column-lean'],
    cautions: [ISOLATE, 'A knee or table that is freed can drop: block it first.'],
    cannotSee: ['Wear in one place only: feel the drag over the whole travel, the tightest place rules.'],
    advice: [
      'Push and pull with the same hand force, at the same place.',
      'Never more than two eighths of a turn before the drag is felt again; slack the small end first, end snug. Too tight wears it out.',
    ],
  });
}

export const kneeGibPlay = gibPlay('knee', 'the knee carries everything else.');
export const saddleGibPlay = gibPlay('saddle', 'the saddle carries the table.');
export const tableGibPlay = gibPlay('table', 'the table carries the work.');

const stiffnessSetup = z.strictObject({ force: measure('force', { label: 'Push or twist by hand', above: 0, example: '100 N' }) });

export const stiffness = defineCheck({
  id: 'stiffness',
  family: 'play',
  title: 'Stiffness',
  question: 'How much does a hand move it?',
  choose: 'At the start: a limit below what a hand moves will not be held under a cut.',
  machines: ['lathe', 'mill', 'turning-centre'],
  setup: stiffnessSetup,
  reading: z.strictObject({ stroke: z.enum(['push', 'pull', 'rest'], { error: 'must be "push", "pull" or "rest"' }), locks }),
  slotKeys: ['stroke', 'locks'],
  valueKind: 'indicator',
  quantities: { compliance: unlimited('A hand’s push of 100 N moves it by', 'deviation', 'um', { magnitude: true, byHand: true }) },
  plan: z.strictObject({}),
  conditions: z.strictObject({}),
  slots: () => (['push', 'pull'] as const).map((hand) => ({ keys: { stroke: hand }, label: hand === 'push' ? 'Pushed' : 'Pulled' })),
  estimate: ({ setup, slots }) => {
    const [push, pull, rest] = (['push', 'pull', 'rest'] as const).map((hand) => slotsWith(slots, { stroke: hand }));
    const both = differenceForm(slots, push, pull);
    const one = differenceForm(slots, push.length ? push : pull, rest);
    const form = both?.map((weight) => weight / 2) ?? one;
    if (!form) return { estimates: [], notes: [tooFew('a push and a pull')] };
    const weights = asSize(form, slots).map((weight) => (weight * 100) / setup.force);
    return { estimates: [{ ...linearEstimate('compliance', weights), magnitude: true }], notes: [] };
  },
  corrections: {},
  counting: 'Half of the swing from push to pull, brought to 100 N.',
  upsets: [],
  cautions: [ISOLATE],
  cannotSee: ['What a cut does: it shakes as well as pushes.'],
  advice: ['Push with a spring balance, or with your own weight that you know.'],
});

const seatSetup = z.strictObject({ force: optionalMeasure('force', { label: 'Push', above: 0, example: '200 N' }) });

export const seat = defineCheck({
  id: 'seat',
  family: 'play',
  title: 'Seat of a casting',
  question: 'Does it rock on its ways, and does clamping shift it?',
  choose: 'Before anything is planned from a casting: a rocking seat makes false geometry.',
  machines: ['lathe', 'mill', 'turning-centre'],
  setup: seatSetup,
  reading: z.strictObject({
    corner: z.string({ error: 'must name the corner' }).min(1).max(40),
    state: z.enum(['pressed', 'free', 'clamped'], { error: 'must be "pressed", "free" or "clamped"' }),
  }),
  slotKeys: ['corner', 'state'],
  valueKind: 'indicator',
  quantities: {
    rock: { label: 'Rock', dimension: 'deviation', unit: 'um', limit: [null, 5], magnitude: true },
    clampShift: { label: 'Shift on clamping', dimension: 'deviation', unit: 'um', limit: [null, 5], magnitude: true },
  },
  plan: z.strictObject({}),
  conditions: z.strictObject({
    casting: choice({
      label: 'Casting',
      choices: [
        { value: 'headstock', label: 'headstock' },
        { value: 'tailstock', label: 'tailstock' },
        { value: 'column', label: 'column' },
        { value: 'saddle', label: 'saddle' },
      ],
    }),
  }),
  slots: () =>
    ['front left', 'front right', 'rear left', 'rear right'].flatMap((corner) =>
      (['free', 'pressed', 'clamped'] as const).map((state) => ({ keys: { corner, state }, label: `${corner}, ${state}` })),
    ),
  estimate: ({ slots }) => {
    const corners = [...new Set(slots.map((slot) => slot.keys['corner']))];
    const largest = (name: string, state: string): Estimate[] => {
      const perCorner = corners.flatMap((corner) => {
        const form = differenceForm(slots, slotsWith(slots, { corner, state }), slotsWith(slots, { corner, state: 'free' }));
        return form ? [{ corner, form: asSize(form, slots) }] : [];
      });
      if (perCorner.length === 0) return [];
      const value = (form: readonly number[], values: ArrayLike<number>) =>
        Math.abs(form.reduce((sum, weight, i) => sum + weight * values[i], 0));
      const now = slots.map((slot) => slot.value);
      const worst = perCorner.reduce((a, b) => (value(b.form, now) > value(a.form, now) ? b : a));
      return [
        {
          name,
          weights: worst.form,
          terms: {},
          doubts: [],
          magnitude: true,
          detail: { corner: String(worst.corner) },
          evaluate: (values) => Math.max(...perCorner.map(({ form }) => value(form, values))),
        },
      ];
    };
    const estimates = [...largest('rock', 'pressed'), ...largest('clampShift', 'clamped')];
    const now = slots.map((slot) => slot.value);
    const rocks = estimates.some((estimate) => estimate.evaluate(now) > 5 / 3);
    return {
      estimates,
      notes: [
        ...(estimates.length ? [] : [tooFew('a corner free and pressed')]),
        ...(rocks
          ? [
              {
                code: 'seat-rocks',
                severity: 'serious',
                text: 'The seat moves by more than a third of the limit: geometry read on this casting is not to be trusted. Bed the seat first: relieve the middle, bear near the bolts.',
              } as const,
            ]
          : []),
      ],
    };
  },
  corrections: { rock: { plus: ['scrape'], minus: ['scrape'] } },
  part: SEAT,
  counting: 'The largest change of any corner, pressed against free.',
  upsets: ['spindle-axis', 'spindle-runout', 'spindle-play', 'chuck-test-cut'],
  cautions: [ISOLATE, 'Lift castings with rated gear, never by hand over an edge.'],
  cannotSee: ['Which face bears: blue it.'],
  advice: ['Press each corner in turn with the same force; read at the spindle nose as well.'],
});
