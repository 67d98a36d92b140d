import { slotsWhere } from '../instruments/slots.js';
import * as z from 'zod';
import { choice, measure, optionalMeasure, optionalNumber } from '../input/fields.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Note } from './define.js';
import { ISOLATE } from './cautions.js';
import { linearEstimate, swingEstimate, type Estimate } from './estimate.js';
import { tooFew } from './notes.js';
import { clearanceFactor, differenceForm, tightest } from './play.js';
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

const setup = z.strictObject({
  guideLength: measure('length', { label: 'Length of the guide', above: 0, example: '180 mm' }),
  distance: measure('length', { label: 'Middle of the guide to the stylus', min: 0, example: '320 mm' }),
  force: optionalMeasure('force', { label: 'Push', above: 0, example: '100 N' }),
});
const reading = z.strictObject({
  stroke: z.enum(['push', 'pull'], { error: 'must be "push" or "pull"' }).optional(),
  locks: locksKey(),
  ...dragKeys,
});
type Keys = z.output<typeof reading>;

export function dragNotes(felt: readonly { readonly drag?: number; readonly at?: number }[]): Note[] {
  const drags = felt.flatMap(({ drag, at = 0 }) => (drag === undefined ? [] : [{ drag, at }]));
  const worst = tightest(drags);
  return worst && drags.length > 1
    ? [
        {
          code: 'tightest-place',
          severity: 'info',
          text: `Tightest at ${worst.at} mm of the travel (drag ${worst.drag} of 5): that place rules how far the gib may be driven.`,
        },
      ]
    : [];
}

/** Push and pull on one side of the resting needle: was one of them written without its sign? */
function unsigned(push: number, pull: number): Note {
  const [difference, sum] = [Math.abs(push - pull), Math.abs(push) + Math.abs(pull)];
  return {
    code: 'swing-unsigned',
    severity: 'serious',
    quantity: 'swing',
    text: `Push and pull stand on the same side of the resting needle: as signed numbers that is a swing of ${difference.toFixed(0)} µm, as two sizes one of ${sum.toFixed(0)} µm. Give each its sign, from where the needle rests.`,
  };
}

type Setup = z.output<typeof setup>;

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
    const still = Math.abs(raw) <= (instrument ? instrument.readTo * instrument.graduation : 0) + 1e-9;
    if (still)
      notes.push({
        code: 'lock-left-on',
        severity: 'serious',
        quantity: 'swing',
        text: 'It does not move at all: is a lock still on, or the gib drawn tight? Free the locks and push again.',
      });
    const judged = doubtful || still ? ({ unsure: true } as const) : {};
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
  part: 'knee' | 'saddle' | 'table',
  facts: Pick<CheckDefinition, 'choose' | 'hangsOn' | 'after' | 'needs'> & { readonly cautions?: readonly string[] },
): CheckDefinition {
  return defineCheck({
    ...facts,
    id: `${part}-gib-play`,
    family: 'play',
    title: `Play of the ${part} gib`,
    question: `How much does the ${part} swing when it is pushed and pulled?`,
    machines: ['mill'],
    setup,
    reading,
    plan: z.strictObject({}),
    conditions: z.strictObject({}),
    slotKeys: ['stroke', 'locks', 'drag', 'at'],
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
      },
      swingLocked: unlimited('Swing with the locks on', 'deviation', 'um', { magnitude: true }),
      clearance: unlimited('Clearance of the guide, about', 'deviation', 'um', { magnitude: true }),
    },
    slots: () =>
      (['off', 'on'] as const).flatMap((state) =>
        (['push', 'pull'] as const).map((hand) => ({
          keys: { stroke: hand, locks: state },
          label: `${hand === 'push' ? 'Pushed' : 'Pulled'}, locks ${state}`,
          ask: hand === 'push' ? 'Zero the needle with nothing touching it. Read push and pull from there, each with its sign.' : undefined,
        })),
      ),
    estimate,
    corrections: { swing: { plus: [], minus: ['gib'] } },
    part: { name: `gib of the ${part}`, faces: 'gib' },
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
