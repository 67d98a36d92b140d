import * as z from 'zod';
import { RESEATED } from '../reseating.js';
import { choice, count, fieldRegistry, measure, placeList } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import type { Reading, Slot, Values } from '../../instruments/slots.js';
import { HEAD_SWINGS, ISOLATE, RATED_GEAR } from '../cautions.js';
import { defineCheck, type CheckInput, type Note, type PlannedSlot, type Way, type Words } from '../define.js';
import { linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { FLIP_SQUARE, MORE_SET_UPS, longerBase } from '../helps.js';
import { sideAssumed, tooFew } from '../notes.js';
import { COLUMN } from '../parts.js';
import { unlimited } from '../quantities.js';
import { BESIDE_GAP, gapOf, isGap, leafDoubt, leafFaults, leafKeys, leavesPlan } from '../leaves.js';
import { halvesOf, openText } from '../reversal.js';
import { askedSide, flipKey, locksField } from '../setupFields.js';
import { certificate, legFits, legSlope, squareDoubt } from '../square.js';
import { closed, evenly } from '../stations.js';
import { inBothPersons } from '../persons.js';

const SIDE_HELP = 'from the other side of the blade the sign is the other way.';
/** Turned round, nobody can tell from here which edge of the blade is read: the wrong one exchanges the lean and the error of the square. */
const OVER_HELP = 'say where it stands once the square is turned round. A wrong side exchanges the lean and the error of the square.';
const SIDE_WORDS = { x: ['right-hand side', 'left-hand side'], y: ['your side', 'the column side'] } as const;
const SIDES = ['right', 'left', 'operator', 'column'] as const;
const setup = z.strictObject({
  squareError: z
    .strictObject({ x: certificate('Error of the square, sideways'), y: certificate('Error of the square, front to back') })
    .optional()
    .register(fieldRegistry, { label: 'Error of the square as it is set up: turned end for end, its sign changes', group: true }),
  head: choice({
    label: 'Head',
    choices: [
      { value: 'on', label: 'on' },
      { value: 'off', label: 'off' },
    ],
  }),
  // One word is enough where one axis is read: it tells which.
  side: z
    .preprocess(
      (raw) => (raw === 'right' || raw === 'left' ? { x: raw } : raw === 'operator' || raw === 'column' ? { y: raw } : raw),
      z.strictObject(
        {
          x: askedSide('Side of the blade, read sideways', ['right', 'left'], SIDE_WORDS.x, SIDE_HELP),
          y: askedSide('Side of the blade, read front to back', ['operator', 'column'], SIDE_WORDS.y, SIDE_HELP),
        },
        { error: 'must be { "x": "right" or "left", "y": "operator" or "column" }' },
      ),
    )
    .optional()
    .register(fieldRegistry, { label: 'Side of the blade that is read', group: true, asked: true }),
});
const reading = z.strictObject({
  axis: z.enum(['x', 'y'], { error: 'must be "x" or "y"' }),
  at: measure('length', { label: 'Height', example: '200 mm' }),
  ...leafKeys('the square'),
  flip: flipKey(),
  side: z.enum(SIDES, { error: `must be one of ${SIDES.join(', ')}` }).optional(),
});
const plan = z.strictObject({
  stations: count({ label: 'How many heights', min: 2, max: 20, example: '3' }),
  heights: placeList({ label: 'The heights', example: '50, 250 mm', min: 2 }),
  turned: z.boolean().optional().register(fieldRegistry, {
    label: 'Turn the square round and read its other edge too',
    help: 'Takes the error of the square out of the result. What counts is on which side the stylus stands then: it is asked.',
  }),
  overX: askedSide('Side of the blade then, read sideways', ['right', 'left'], SIDE_WORDS.x, OVER_HELP, { askedWith: 'turned' }),
  overY: askedSide('Side of the blade then, read front to back', ['operator', 'column'], SIDE_WORDS.y, OVER_HELP, { askedWith: 'turned' }),
  leaves: leavesPlan(
    'Read the gap beside the blade with leaves, without a dial',
    'At two heights the thickest leaf that enters and the thinnest that does not.',
  ),
});
type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;
type Axis = Keys['axis'];

const FAR: Readonly<Record<Axis, Keys['side']>> = { x: 'left', y: 'column' };

/** Which side of the blade a reading was taken on: its own word, else the set-up's. */
const sideOf = ({ axis, side }: Keys, setup: Setup): Keys['side'] => side ?? setup.side?.[axis];

/**
 * One way round the square stands. A dial: lean = −rise/height on the right (operator's) side. A gap to a
 * reference on the column grows with the lean. On the other side both turn their sign.
 */
function way(axis: Axis, flip: boolean, setup: Setup, slots: readonly Slot<Keys>[]): number[] | undefined {
  const use = ({ keys }: Slot<Keys>) => keys.axis === axis && (keys.flip ?? false) === flip;
  const slope = legSlope(slots, use);
  if (!slope) return undefined;
  const first = slots.find(use) as Slot<Keys>;
  const far = sideOf(first.keys, setup) === FAR[axis] ? -1 : 1;
  return slope.map((weight) => (isGap(first.keys) ? 1 : -1) * far * weight);
}

function lean(axis: Axis, { setup, slots }: CheckInput<Setup, Keys>): Estimate[] {
  const [plain, flipped] = [way(axis, false, setup, slots), way(axis, true, setup, slots)];
  const one = plain ?? flipped;
  if (!one) return [];
  const halves = halvesOf(slots, 'flip', [false, true], ['axis', 'at'], (slot) => slot.keys.axis === axis);
  const known = setup.squareError?.[axis];
  const both = plain && flipped && halves.alone.length === 0;
  const open = known === undefined ? openText(halves, 'turn the square round and read there again') : undefined;
  const weights = both ? plain.map((weight, i) => (weight + flipped[i]) / 2) : one;
  const own = axis === 'x' ? -1 : 1;
  const gapDoubt = leafDoubt(
    weights,
    slots.map(({ keys }) => keys),
  );
  const doubts: Doubt[] = [...(both ? [] : [squareDoubt(known !== undefined)]), { source: 'leaves', u: gapDoubt }];
  const terms: Record<string, number> = known !== undefined && !both ? { squareError: (plain ? own : -own) * known } : {};
  const name = axis === 'x' ? 'leanX' : 'leanY';
  if (!both) return [linearEstimate(name, weights, { terms, doubts, open })];
  const error = plain.map((weight, i) => (own * (weight - flipped[i])) / -2);
  return [linearEstimate(name, weights, { terms, doubts }), linearEstimate(`squareError${axis.toUpperCase()}`, error)];
}

function faults(_setup: Setup, readings: readonly Reading<Keys>[]): Fault[] {
  return readings.flatMap((reading, i): Fault[] => {
    const { axis, side } = reading;
    const path = `readings[${i}]`;
    const wrongSide = side !== undefined && (axis === 'x') !== (side === 'right' || side === 'left');
    return [
      ...(wrongSide
        ? [
            {
              path: `${path}.side`,
              message: `is not a side for ${axis}: a blade read along ${axis} has ${axis === 'x' ? 'a right and a left' : 'an operator’s and a column side'}`,
              example: axis === 'x' ? 'right' : 'operator',
            },
          ]
        : []),
      ...leafFaults(reading, path),
    ];
  });
}

const leanWords = (plus: string, minus: string, arrow: readonly [Way, Way], raised: readonly [string, string]): Words => ({
  raised,
  plus: `leaning ${plus}`,
  minus: `leaning ${minus}`,
  movePlus: `${plus} at the top`,
  moveMinus: `${minus} at the top`,
  arrow,
});

const OTHER: Readonly<Record<(typeof SIDES)[number], (typeof SIDES)[number]>> = {
  right: 'left',
  left: 'right',
  operator: 'column',
  column: 'operator',
};

const SPOKEN: Readonly<Record<(typeof SIDES)[number], string>> = {
  right: 'the right-hand side',
  left: 'the left-hand side',
  operator: 'your side',
  column: 'the column side',
};

function plannedSlots(
  { side }: Setup,
  { stations = 3, turned = false, leaves = false, heights = evenly(0, 300, stations), overX, overY }: z.output<typeof plan>,
): PlannedSlot[] {
  const over = { x: overX, y: overY };
  const all = (['x', 'y'] as const).flatMap((axis) => {
    const way = axis === 'x' ? 'Sideways' : 'Front to back';
    // Turned end for end the square shows its other edge, read from the other side, where nobody said otherwise.
    const then = over[axis] ?? OTHER[side?.[axis] ?? (axis === 'x' ? 'right' : 'operator')];
    const once = (flip?: boolean): PlannedSlot[] =>
      heights.map((at, i) => ({
        keys: {
          axis,
          at,
          ...(leaves && { shim: 0 }),
          ...(flip !== undefined && { flip }),
          ...(flip && { side: then }),
        },
        label: `${way}${flip ? ', the square turned round' : ''}`,
        movable: 'heights',
        ask: flip && i === 0 ? `Turn the square round and set it up again. It is read on ${SPOKEN[then]} of its blade now.` : undefined,
      }));
    return turned ? [...once(false), ...once(true)] : once();
  });
  // Leaves bound each gap by themselves: no dial can slip.
  return leaves ? all : closed(all, ({ axis, flip }) => `${axis} ${flip}`);
}

const isHeadOff = (setup: Values): boolean => setup['head'] === 'off';

export const columnLean = defineCheck({
  id: 'column-lean',
  family: 'square',
  title: 'Column',
  question: 'Is the column upright to the table?',
  choose: 'With the head off a column is set leaning back: the weight of the head pulls it forward.',
  machines: ['mill'],
  setup,
  reading,
  plan,
  conditions: z.strictObject({ locks: locksField('Slides', 'Whatever holds table and saddle meanwhile.') }),
  slotKeys: ['axis', 'at', 'flip'],
  beside: BESIDE_GAP,
  reads: 'indicator',
  alsoReads: ['gap'],
  readsFor: (_setup, keys) => (isGap(keys) ? 'gap' : 'indicator'),
  valueFrom: gapOf,
  quantities: {
    leanX: {
      follows: { leanX: 1, loadX: 1, when: isHeadOff, only: ['leanX'] },
      label: 'Column, right or left',
      subject: 'The column',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-65, 65],
      spokenOver: 300,
      words: leanWords('right', 'left', ['right', 'left'], ['the left side', 'the right side']),
    },
    leanY: {
      follows: { leanY: 1, loadY: 1, when: isHeadOff, only: ['leanY'] },
      label: 'Column, forward or back',
      subject: 'The column',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-65, 65],
      spokenOver: 300,
      words: inBothPersons(({ who }) => leanWords(`toward ${who}`, 'back', ['toward', 'away'], ['the rear', 'the front'])),
      variants: [{ key: 'head-off', label: 'with the head off', limit: [-65, 0], applies: isHeadOff, guesses: true }],
    },
    squareErrorX: unlimited('Error of the square, x', 'slope', 'um/m'),
    squareErrorY: unlimited('Error of the square, y', 'slope', 'um/m'),
  },
  slots: plannedSlots,
  faults,
  estimate: (input) => {
    const estimates = (['x', 'y'] as const).flatMap((axis) => lean(axis, input));
    if (estimates.length === 0) return { estimates, notes: [tooFew('two heights')] };
    const { setup, slots } = input;
    const turned = estimates.some(({ name }) => name === 'squareErrorX' || name === 'squareErrorY');
    const notes: Note[] = [];
    if (setup.squareError === undefined && !turned)
      notes.push({ code: 'square-unknown', severity: 'warning', text: 'The error of the square is not known and is still in the result.' });
    if (slots.some(({ keys }) => sideOf(keys, setup) === undefined))
      notes.push(sideAssumed('the right-hand or the operator’s side of the blade'));
    const fits = legFits(slots, ({ axis, flip = false }) => `${axis}|${flip}`, {
      own: ({ go, noGo }) => (go !== undefined && noGo !== undefined ? (1000 * (noGo - go)) / Math.sqrt(12) : undefined),
      widens: (line) => (line.startsWith('x') ? ['leanX', 'squareErrorX'] : ['leanY', 'squareErrorY']),
    });
    return { estimates, notes, fits };
  },
  casting: 'column',
  part: COLUMN,
  corrections: {
    leanX: {
      plus: ['supports', 'shim-leaves', 'step-scrape', 'sine-stack'],
      minus: ['supports', 'shim-leaves', 'step-scrape', 'sine-stack'],
    },
    leanY: {
      plus: ['supports', 'shim-leaves', 'step-scrape', 'sine-stack'],
      minus: ['supports', 'shim-leaves', 'step-scrape', 'sine-stack'],
    },
  },
  picture: { drawing: 'column-in-elevation', bends: { h: 'leanX', v: 'leanY' } },
  hangsOn: ['table-level', 'knee-gib-play', 'saddle-gib-play', 'table-gib-play', 'table-parallelism-x', 'table-parallelism-y'],
  rests: ['column', 'saddle'],
  after: ['slot-parallelism'],
  knows: [
    { quantity: 'leanX', name: 'leanX' },
    { quantity: 'leanY', name: 'leanY' },
  ],
  helps: [FLIP_SQUARE, longerBase('read over twice the height'), MORE_SET_UPS],
  reseatSpread: RESEATED,
  reseat: 'Take the square off, set it up again and read once more',
  counting: 'The whole change over the height.',
  cautions: [ISOLATE, RATED_GEAR, HEAD_SWINGS],
  cannotSee: ['The square, unless it is flipped.'],
  advice: ['Say which side of the blade is read: the sign depends on it.'],
});
