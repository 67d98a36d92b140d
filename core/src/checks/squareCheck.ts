import * as z from 'zod';
import { choice, count, fieldRegistry, measure, placeList } from '../input/fields.js';
import type { Slot } from '../instruments/slots.js';
import type { Said } from '../units/said.js';
import { ISOLATE } from './cautions.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Note, type PlannedSlot, type Words } from './define.js';
import { linearEstimate } from './estimate.js';
import { FLIP_SQUARE, MORE_SET_UPS, longerBase } from './helps.js';
import { shortBase, sideAssumed, spanOf, tooFew } from './notes.js';
import { unlimited } from './quantities.js';
import { halvesOf, openText } from './reversal.js';
import { askedSide, flipKey, locksField } from './setupFields.js';
import { certificate, legFits, legSlope, squareDoubt } from './square.js';
import { closed, evenly } from './stations.js';
import type { Zone } from './zone.js';

/** What stands on each side of the two legs, in words: the + directions first. */
export interface SquareSides {
  readonly A: readonly [plus: string, minus: string];
  readonly B: readonly [plus: string, minus: string];
  /** Which way +B points on the drawing, seen from above with the operator at the bottom. */
  readonly drawn: 'up' | 'down';
  /** Where the test motion runs off to as it goes along +B: an obtuse angle takes it toward −A. */
  readonly words: Pick<Words, 'plus' | 'minus' | 'movePlus' | 'moveMinus'>;
}

const stylus = z.strictObject({
  reference: z.enum(['+B', '-B'], { error: 'must be "+B" or "-B"' }).optional(),
  test: z.enum(['+A', '-A'], { error: 'must be "+A" or "-A"' }).optional(),
});

const SIDE_HELP = 'from the other side of the leg the sign is the other way.';

/** The sides as the screen asks for them: in the words of the machine, and never taken for granted. */
const stylusAsked = ({ A, B }: SquareSides) =>
  z
    .strictObject({
      reference: askedSide('Stylus, on the reference leg', ['+B', '-B'], B, SIDE_HELP),
      test: askedSide('Stylus, on the test leg', ['+A', '-A'], A, SIDE_HELP),
    })
    .optional()
    .register(fieldRegistry, { label: 'Where the stylus stands', group: true, asked: true });
export const squareSetup = (sides: SquareSides) => z.strictObject({ squareError: certificate(), stylus: stylusAsked(sides) });
/** On a reading: the sides of both legs, or just the side of the leg that is read. */
const ownSide = z
  .union([z.enum(['+A', '-A', '+B', '-B']), stylus], { error: 'must be a side like "+B", or { "reference": "+B", "test": "+A" }' })
  .optional();
export const squareReading = z.strictObject({
  leg: z.enum(['reference', 'test'], { error: 'must be "reference" or "test"' }),
  at: measure('length', { label: 'Place touched on the leg', example: '100 mm' }),
  flip: flipKey(),
  stylus: ownSide,
});
/** Flipped over, the square may be read from its other edges. */
const overSide = (label: string, values: readonly [string, string], words: readonly [string, string]) =>
  choice({
    label,
    asked: true,
    help: SIDE_HELP,
    choices: [{ value: 'same', label: 'as before' }, ...values.map((value, i) => ({ value, label: words[i] }))],
  });

const planOf = ({ A, B }: SquareSides) =>
  z.strictObject({
    overReference: overSide('Flipped over, on the reference leg', ['+B', '-B'], B),
    overTest: overSide('Flipped over, on the test leg', ['+A', '-A'], A),
    stations: count({ label: 'How many places on each leg', min: 2, max: 20, example: '2' }),
    reference: placeList({ label: 'Places on the reference leg', example: '20, 200 mm', min: 2 }),
    test: placeList({ label: 'Places on the test leg', example: '20, 150 mm', min: 2 }),
  });

type Setup = z.output<ReturnType<typeof squareSetup>>;
type Keys = z.output<typeof squareReading>;
type Leg = Keys['leg'];
type Slots = readonly Slot<Keys>[];

/** Which side of a leg the stylus stands on: what its readings say, else the set-up; undefined when neither does. */
function sideOf(leg: Leg, slots: Slots, setup: Setup): 1 | -1 | undefined {
  const told = slots.flatMap(({ keys }): string[] => {
    const own = keys.stylus;
    const side = typeof own === 'string' ? (keys.leg === leg ? own : undefined) : own?.[leg];
    return side ? [side] : [];
  });
  const side = told[0] ?? setup.stylus?.[leg];
  return side === undefined ? undefined : side.charAt(0) === '-' ? -1 : 1;
}

/** p + q for one way the square lies: drift of each leg toward the other axis. */
function sideSum(slots: Slots, setup: Setup, flip: boolean): number[] | undefined {
  const here = slots.filter((slot) => (slot.keys.flip ?? false) === flip);
  const p = legSlope(slots, (slot) => slot.keys.leg === 'reference' && (slot.keys.flip ?? false) === flip);
  const q = legSlope(slots, (slot) => slot.keys.leg === 'test' && (slot.keys.flip ?? false) === flip);
  if (!p || !q) return undefined;
  // A dial reads + when the leg comes toward it: a drift toward the side it stands on.
  const [a, b] = [sideOf('reference', here, setup) ?? 1, sideOf('test', here, setup) ?? 1];
  return p.map((weight, i) => a * weight + b * q[i]);
}

function estimate({ setup, slots, instrument }: CheckInput<Setup, Keys>): Estimates {
  const [plain, flipped] = [sideSum(slots, setup, false), sideSum(slots, setup, true)];
  const one = plain ?? flipped;
  if (!one) return { estimates: [], notes: [tooFew('two places on each leg of the square')] };
  const bases = (['reference', 'test'] as const).map((leg) =>
    spanOf(slots.filter((slot) => slot.keys.leg === leg).map((slot) => slot.keys.at)),
  );
  const notes: Note<Said>[] = instrument ? shortBase(Math.min(...bases)) : [];
  const told = (['reference', 'test'] as const).every((leg) => sideOf(leg, slots, setup) !== undefined);
  if (!told) notes.push(sideAssumed('the + side of both legs'));
  const fits = legFits(slots, ({ leg, flip = false }) => `${leg}|${flip}`, { widens: () => ['squareness', 'squareError'] });
  const halves = halvesOf(slots, 'flip', [false, true], ['leg', 'at']);
  const open = setup.squareError === undefined ? openText(halves, 'flip the square over and read there again') : undefined;
  if (plain && flipped && !openText(halves, '')) {
    const mean = plain.map((weight, i) => (weight + flipped[i]) / 2);
    const own = plain.map((weight, i) => (flipped[i] - weight) / 2);
    return { estimates: [linearEstimate('squareness', mean), linearEstimate('squareError', own)], notes, fits };
  }
  if (setup.squareError === undefined)
    notes.push({
      code: 'square-unknown',
      severity: 'warning',
      text: 'The error of the square is not known and is still in the result. Flip it over and read again: then it drops out.',
    });
  // The error is told for the square before it is flipped; flipped over, it counts the other way.
  const terms = { squareError: (plain ? 1 : -1) * (setup.squareError ?? 0) };
  return {
    estimates: [linearEstimate('squareness', one, { terms, open, doubts: [squareDoubt(setup.squareError !== undefined)] })],
    notes,
    fits,
  };
}

/** How much longer one diagonal of a part a × b is than the other, µm, for a squareness in µm/m: 2ab·s/√(a² + b²). */
export function diagonalDifference(squareness: number, a: number, b: number): number {
  return (2 * a * b * squareness) / 1000 / Math.hypot(a, b);
}

function plannedSlots(
  _setup: Setup,
  { stations = 2, reference, test, overReference, overTest }: z.output<ReturnType<typeof planOf>>,
): PlannedSlot[] {
  const over = { reference: overReference, test: overTest };
  const places = { reference: reference ?? evenly(0, 200, stations), test: test ?? evenly(0, 200, stations) };
  const all = [false, true].flatMap((flip) =>
    (['reference', 'test'] as const).flatMap((leg) =>
      places[leg].map((at, i) => ({
        keys: { leg, at, flip, ...(flip && over[leg] && over[leg] !== 'same' && { stylus: over[leg] as '+A' }) },
        label: `${leg === 'reference' ? 'Reference' : 'Test'} leg${flip ? ', flipped over' : ''}`,
        movable: leg,
        ask: i === 0 && flip && leg === 'reference' ? 'Flip the square over and set it up again.' : undefined,
      })),
    ),
  );
  return closed(all, ({ leg, flip }) => `${leg} ${flip}`);
}

/** One motion against another by a square. */
export function squareCheck(
  facts: Pick<
    CheckDefinition,
    'id' | 'title' | 'question' | 'choose' | 'machines' | 'part' | 'cannotSee' | 'hangsOn' | 'after' | 'knows' | 'fromJob' | 'goodFor'
  > & {
    readonly limit: Zone;
    readonly moves: readonly string[];
    readonly sides: SquareSides;
  },
): CheckDefinition {
  const { limit, moves, sides, ...own } = facts;
  return defineCheck({
    ...own,
    family: 'square',
    setup: squareSetup(sides),
    reading: squareReading,
    plan: planOf(sides),
    conditions: z.strictObject({ locks: locksField('The slide that stands still', 'A free slide creeps while the other one runs.') }),
    slotKeys: ['leg', 'at', 'flip'],
    reads: 'indicator',
    quantities: {
      squareness: {
        label: own.title,
        dimension: 'slope',
        spokenOver: 300,
        work: { perUnit: 0.3, what: (size) => `off at a hole ${size(300, 'length')} away` },
        unit: 'um/m',
        limit,
        words: sides.words,
      },
      squareError: unlimited('Error of the square itself', 'slope', 'um/m'),
    },
    drilled: 'squareness',
    slots: plannedSlots,
    estimate,
    corrections: { squareness: { plus: moves, minus: moves } },
    picture: {
      drawing: 'square-in-plan',
      bends: { h: 'squareness' },
      words: { '+A': sides.A[0], '-A': sides.A[1], '+B': sides.B[0], '-B': sides.B[1], drawn: sides.drawn },
    },
    helps: [FLIP_SQUARE, longerBase('read over twice the length of both legs'), MORE_SET_UPS],
    reseat: 'Take the square off, set it up again and read once more',
    counting: 'Both drifts add up; flipped over, the square’s own error drops out of the mean.',
    cautions: [ISOLATE],
    advice: ['Give the place touched on the leg, not the handwheel.', 'Flip the square and read again.'],
  });
}
