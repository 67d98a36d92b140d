import type * as z from 'zod';
import { showSize, type Fineness, type UnitSystem } from '../units/format.js';
import { refuseDeep } from '../input/depth.js';
import { FaultError, nearest, type Fault } from '../input/faults.js';
import { fieldAt } from '../input/fields.js';
import { adjuster } from './adjuster.js';
import { baseShims } from './baseShims.js';
import { bearingShims } from './bearingShims.js';
import { bestPlane } from './bestPlane.js';
import { readMoveInput, type Defined, type MoveDefinition, type MovePlan } from './define.js';
import type { JobDrawing } from './drawing.js';
import { eccentric } from './eccentric.js';
import { feet } from './feet.js';
import { feetShims } from './feetShims.js';
import { forecast } from './forecast.js';
import { gib } from './gib.js';
import { plainSteps, type JobStep, type PlanWords, type StepFacts } from './jobSteps.js';
import { nudge } from './nudge.js';
import { passPlan } from './passPlan.js';
import { pull } from './pull.js';
import { railAlign } from './railAlign.js';
import { scrape } from './scrape.js';
import { shimLeaves } from './shimLeaves.js';
import { sineStack } from './sineStack.js';
import { stepScrape } from './stepScrape.js';
import { storedOffset } from './storedOffset.js';
import { supports } from './supports.js';
import { swapLeaves } from './swapLeaves.js';
import { swivel } from './swivel.js';
import { tableTurn } from './tableTurn.js';
import { tramPivot } from './tramPivot.js';
import { sleeveMiddle } from './sleeveMiddle.js';
import { truckLift } from './truckLift.js';
import { trucks } from './trucks.js';
import { wayShims } from './wayShims.js';

const ALL: readonly MoveDefinition[] = [
  adjuster,
  eccentric,
  shimLeaves,
  swapLeaves,
  baseShims,
  feet,
  feetShims,
  pull,
  supports,
  scrape,
  stepScrape,
  passPlan,
  bestPlane,
  forecast,
  sineStack,
  tramPivot,
  trucks,
  wayShims,
  swivel,
  gib,
  bearingShims,
  storedOffset,
  nudge,
  railAlign,
  tableTurn,
  sleeveMiddle,
  truckLift,
];

/** Every kind of move, those done by hand and eye included. */
export const MOVES: ReadonlyMap<string, MoveDefinition> = new Map(ALL.map((move) => [move.kind, move]));

/** Kinds with arithmetic of their own: those that a move sheet may name. */
const WORKED = ALL.filter((move) => move.plan !== undefined);

export const MOVE_FORMAT = 'isometra-move/1';
export const PLAN_FORMAT = 'isometra-move-plan/1';

/**
 * Work out a move sheet (docs/sheets.md).
 *
 * @throws FaultError with every fault at once.
 */
export const planMove = (raw: unknown): MovePlan => workedOut(raw).plan;

/**
 * The plan of one kind of move, with its types.
 *
 * @throws FaultError with every fault of its input at once.
 */
export const planFor = <Answer extends z.ZodObject>(move: Defined<Answer>, input: Readonly<Record<string, unknown>>): z.output<Answer> =>
  move.answer.parse(planMove({ ...input, format: MOVE_FORMAT, move: move.kind }));

/** A move sheet worked out: what it is, its input in base units, its plan. */
function workedOut(raw: unknown): {
  readonly definition: MoveDefinition;
  readonly input: Readonly<Record<string, unknown>>;
  readonly plan: MovePlan;
} {
  const faults: Fault[] = [];
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new FaultError([
      { path: '', message: 'must be a move sheet: an object', example: `{ "format": "${MOVE_FORMAT}", "move": "adjuster", … }` },
    ]);
  }
  refuseDeep(raw);
  const { format, move: kind, ...rest } = raw as Record<string, unknown>;
  if (format !== MOVE_FORMAT) faults.push({ path: 'format', message: `must be "${MOVE_FORMAT}"`, example: MOVE_FORMAT });
  const definition = WORKED.find((move) => move.kind === kind);
  if (!definition?.plan) {
    faults.push({
      path: 'move',
      message: unknownMove(kind),
      example:
        (typeof kind === 'string' &&
          nearest(
            kind,
            WORKED.map((move) => move.kind),
          )) ||
        'adjuster',
    });
    throw new FaultError(faults);
  }
  const { input, faults: inputFaults } = readMoveInput(definition, rest, []);
  faults.push(...inputFaults);
  if (faults.length || !input) throw new FaultError(faults);
  const plan = definition.plan(input);
  const odd = notFinite(plan);
  if (odd)
    throw new FaultError([
      {
        path: odd,
        message: 'does not come out as a finite number: something given is far too large or too small',
        example: 'figures of a machine',
      },
    ]);
  return { definition, input, plan: { format: PLAN_FORMAT, move: definition.kind, ...plan } };
}

/**
 * The same with `steps`, as a job card would number them. A move sheet does not say which way + is on its machine, so the
 * steps say + and −.
 *
 * @param words writes the figures in the reader's units.
 *
 * @throws FaultError as `planMove`.
 */
export function planWithSteps(raw: unknown, words: PlanWords = METRIC_WORDS): MovePlan {
  const { definition, input, plan } = workedOut(raw);
  const key = [definition.amountKey, definition.slopeKey].find((name) => name !== undefined && typeof input[name] === 'number');
  const amount = key === undefined ? 0 : Number(input[key]);
  const angle = key !== undefined && fieldAt(definition.input, [key])?.dimension === 'slope';
  const size = angle ? words.slope(amount) : words.size(amount);
  const direction = definition.signed ? `in the ${amount < 0 ? '−' : '+'} direction` : '';
  const steps = jobSteps(definition.kind, { size, direction, plus: amount > 0, amount, plan, card: {}, words });
  return { ...plan, steps: steps.map(({ text, caution }) => ({ text, ...(caution && { caution }) })) };
}

/** Figures of a plan in the units of a reader. */
export const planWords = ({ system, fineness }: { readonly system: UnitSystem; readonly fineness: Fineness }): PlanWords => ({
  size: (um) => showSize(um, 'deviation', system, fineness),
  slope: (umPerM) => showSize(Math.abs(umPerM), 'slope', system, fineness),
  length: (mm) => showSize(mm, 'length', system, fineness),
});

/** Figures of a plan in the words of a metric shop. */
export const METRIC_WORDS = planWords({ system: 'mm', fineness: 'coarse' });

export function unknownMove(kind: unknown): string {
  const known = WORKED.map((move) => move.kind).join(', ');
  return typeof kind === 'string'
    ? `"${kind}" is not a move worked out here; there are ${known}`
    : `is missing: name the move, one of ${known}`;
}

/** Path of the first number of a plan that is not finite; undefined when all are. */
export function notFinite(plan: unknown, path = ''): string | undefined {
  if (typeof plan === 'number') return Number.isFinite(plan) ? undefined : path;
  if (typeof plan !== 'object' || plan === null) return undefined;
  for (const [key, value] of Object.entries(plan)) {
    const odd = notFinite(value, Array.isArray(plan) ? `${path}[${key}]` : path ? `${path}.${key}` : key);
    if (odd !== undefined) return odd;
  }
  return undefined;
}

/** What a move's job card draws; undefined where there is nothing to draw, or the facts do not say which way. */
export const jobDrawing = (kind: string, facts: StepFacts): JobDrawing | undefined => MOVES.get(kind)?.drawing?.(facts);

/** The numbered steps of a move's job card; the plain ones where its kind has none of its own. */
export function jobSteps(kind: string, facts: StepFacts): readonly JobStep[] {
  return MOVES.get(kind)?.steps?.(facts) ?? plainSteps(facts);
}
