import * as z from 'zod';
import { measure } from '../../fields.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate, type Doubt } from '../estimate.js';
import { ISOLATE, shortBase, stationPlan, stepped, tooFew } from '../common.js';
import type { Zone } from '../../calls/verdict.js';
import type { MoveKind } from '../../moves/kinds.js';
import { certificate, legSlope, SQUARE_DOUBT } from '../square.js';
import { unlimited } from '../tailstock.js';
import { MILL_SADDLE, SADDLE } from '../../moves/parts.js';

const squareSetup = z.strictObject({
  squareError: certificate(),
  stylus: z
    .strictObject({
      reference: z.enum(['+B', '-B'], { error: 'must be "+B" or "-B"' }).optional(),
      test: z.enum(['+A', '-A'], { error: 'must be "+A" or "-A"' }).optional(),
    })
    .optional(),
});
/** On a reading: the sides of both legs, or just the side of the leg that is read. */
const ownSide = z
  .union([z.enum(['+A', '-A', '+B', '-B']), squareSetup.shape.stylus.unwrap()], {
    error: 'must be a side like "+B", or { "reference": "+B", "test": "+A" }',
  })
  .optional();
const squareReading = z.strictObject({
  leg: z.enum(['reference', 'test'], { error: 'must be "reference" or "test"' }),
  at: measure('length', { label: 'Place touched on the leg', example: '100 mm' }),
  flip: z.boolean({ error: 'must be true or false' }).optional(),
  stylus: ownSide,
});

type Leg = 'reference' | 'test';

/** Which side of a leg the stylus stands on: what its readings say, else the set-up; the + side when neither does. */
function sideOf(leg: Leg, readings: readonly Slot[], setup: z.output<typeof squareSetup>): 1 | -1 {
  const told = readings.flatMap((slot) => {
    const own = slot.keys['stylus'] as z.output<typeof ownSide>;
    const side = typeof own === 'string' ? (slot.keys['leg'] === leg ? own : undefined) : own?.[leg];
    return side ? [side] : [];
  });
  return (told[0] ?? setup.stylus?.[leg])?.startsWith('-') ? -1 : 1;
}

/** p + q for one way the square lies: drift of each leg toward the other axis. */
function sideSum(slots: readonly Slot[], setup: z.output<typeof squareSetup>, flip: boolean): number[] | undefined {
  const here = slots.filter((slot) => ((slot.keys['flip'] as boolean | undefined) ?? false) === flip);
  const p = legSlope(slots, (slot) => slot.keys['leg'] === 'reference' && here.includes(slot));
  const q = legSlope(slots, (slot) => slot.keys['leg'] === 'test' && here.includes(slot));
  if (!p || !q) return undefined;
  // A dial reads + when the leg comes toward it: a drift toward the side it stands on.
  const [a, b] = [sideOf('reference', here, setup), sideOf('test', here, setup)];
  return p.map((weight, i) => a * weight + b * q[i]);
}

function squareEstimate({ setup, slots, instrument }: CheckInput<z.output<typeof squareSetup>>): Estimates {
  const [plain, flipped] = [sideSum(slots, setup, false), sideSum(slots, setup, true)];
  const places = slots.map((slot) => slot.keys['at'] as number);
  const notes: Note[] = instrument && places.length ? shortBase(Math.max(...places)) : [];
  if (plain && flipped) {
    const mean = linearEstimate(
      'squareness',
      plain.map((weight, i) => (weight + flipped[i]) / 2),
    );
    return {
      estimates: [
        mean,
        linearEstimate(
          'squareError',
          plain.map((weight, i) => (flipped[i] - weight) / 2),
        ),
      ],
      notes,
    };
  }
  const one = plain ?? flipped;
  if (!one) return { estimates: [], notes: [tooFew('two places on each leg of the square')] };
  const known = setup.squareError ?? 0;
  if (setup.squareError === undefined)
    notes.push({
      code: 'square-unknown',
      severity: 'warning',
      text: 'The error of the square is not known and is still in the result. Flip it over and read again: then it drops out.',
    });
  const doubts: Doubt[] = [{ source: 'the square', u: SQUARE_DOUBT }];
  return { estimates: [linearEstimate('squareness', one, { terms: { squareError: known }, doubts })], notes };
}

function squareCheck(
  facts: Pick<CheckDefinition, 'id' | 'title' | 'question' | 'choose' | 'machines' | 'part' | 'upsets' | 'cannotSee'> & {
    readonly limit: Zone;
    readonly moves: readonly MoveKind[];
  },
): CheckDefinition {
  const { limit, moves, ...own } = facts;
  return defineCheck({
    ...own,
    family: 'square',
    setup: squareSetup,
    reading: squareReading,
    slotKeys: ['leg', 'at', 'flip'],
    valueKind: 'indicator',
    quantities: {
      squareness: {
        label: own.title,
        dimension: 'slope',
        work: { perUnit: 0.3, what: 'off at a hole 300 mm away' },
        unit: 'um/m',
        limit,
        words: {
          plus: 'obtuse between the + directions',
          minus: 'acute between the + directions',
          movePlus: 'so that the angle opens',
          moveMinus: 'so that the angle closes',
        },
      },
      squareError: unlimited('Error of the square itself', 'slope', 'um/m'),
    },
    plan: stationPlan('Places on each leg', 2),
    conditions: z.strictObject({}),
    slots: (_setup, { stations = 2 }) =>
      [false, true].flatMap((flip) =>
        (['reference', 'test'] as const).flatMap((leg) =>
          stepped(stations, 200 / (stations - 1)).map((at, i) => ({
            keys: { leg, at, flip },
            label: `${leg === 'reference' ? 'Reference' : 'Test'} leg, ${at} mm`,
            ask: i === 0 && flip && leg === 'reference' ? 'Flip the square over and set it up again.' : undefined,
          })),
        ),
      ),
    estimate: squareEstimate,
    corrections: { squareness: { plus: moves, minus: moves } },
    counting: 'Both drifts add up; flipped over, the square’s own error drops out of the mean.',
    cautions: [ISOLATE],
    advice: ['Give the place touched on the leg, not the handwheel.', 'Flip the square and read again.'],
  });
}

export const axisSquareness = squareCheck({
  id: 'axis-squareness',
  title: 'Squareness of the axes',
  question: 'Are the two table motions square to each other?',
  choose: 'After the gibs: slack looks like an angle.',
  machines: ['mill'],
  part: MILL_SADDLE,
  limit: [-65, 65],
  moves: ['scrape'],
  upsets: ['slot-parallelism', 'head-tram', 'vice-parallelism'],
  cannotSee: ['Play of the gibs.'],
});
export const saddleSquareness = squareCheck({
  id: 'saddle-squareness',
  title: 'Squareness of the saddle',
  question: 'Is the cross slide square to the carriage?',
  choose: 'Tells what a headstock move will do to facing, before anything is scraped.',
  machines: ['lathe'],
  part: SADDLE,
  limit: [-20, 20],
  moves: ['scrape'],
  upsets: ['cross-slide-squareness', 'dovetail-over-pins'],
  cannotSee: ['Where the spindle points.'],
});
