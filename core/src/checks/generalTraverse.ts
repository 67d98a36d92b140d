import * as z from 'zod';
import { count, fieldRegistry, measure } from '../fields.js';
import type { MoveKind } from '../moves/kinds.js';
import type { Part } from '../moves/parts.js';
import { HEIGHT, defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Words } from './define.js';
import { linearEstimate, type Estimate } from './estimate.js';
import { ISOLATE, plannedPlaces, shortBase, sideField, spanOf, stepped, tooFew } from './common.js';
import type { Zone } from '../calls/verdict.js';
import { residualRange, traverseHeights, traverseLine } from './traverse.js';
import { unlimited } from './tailstock.js';

const setup = z.strictObject({ side: sideField() });
const reading = z.strictObject({
  at: measure('length', { label: 'Along the travel', example: '0 mm' }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
});
const plan = z.strictObject({
  stations: count({ label: 'Places along the travel', min: 2, max: 40, example: '4' }),
  length: measure('length', { label: 'Length of travel', above: 0, example: '300 mm' })
    .optional()
    .register(fieldRegistry, { label: 'Length of travel', dimension: 'length', example: '300 mm' }),
  turned: z
    .boolean()
    .optional()
    .register(fieldRegistry, { label: 'Turn the reference half round and read again', help: 'Takes the reference out of the result.' }),
});

type Setup = z.output<typeof setup>;

/** What a plain traverse is told apart by. */
export interface TraverseFacts {
  readonly id: string;
  readonly title: string;
  readonly question: string;
  readonly choose: string;
  readonly machines: readonly string[];
  readonly subject: string;
  readonly words?: Words;
  readonly slope?: Zone;
  readonly range?: Zone;
  /** The range is limited per this length, mm, rather than as it is. */
  readonly rangePer?: number;
  readonly moves: readonly MoveKind[];
  readonly part?: Part;
  readonly upsets: readonly string[];
  readonly cautions?: readonly string[];
  readonly cannotSee: readonly string[];
  readonly advice: readonly string[];
}

function estimate({ setup, slots, instrument }: CheckInput<Setup>): Estimates {
  const line = traverseLine(slots, ['turn']);
  if (!line) return { estimates: [], notes: [tooFew('two places along the travel')] };
  const side = setup.side === 'rear' ? -1 : 1;
  const estimates: Estimate[] = [
    linearEstimate(
      'slope',
      line.weights.map((weight) => 1000 * side * weight),
    ),
  ];
  const range = residualRange('range', slots, line);
  if (range.places > 2) estimates.push(range);
  if (line.byWay.length === 2) {
    const [a, b] = line.byWay;
    estimates.push(
      linearEstimate(
        'referenceSlope',
        a.map((weight, i) => 500 * side * (weight - b[i])),
      ),
    );
  }
  const places = slots.map((slot) => slot.keys['at'] as number);
  return { estimates, notes: instrument ? shortBase(Math.max(...places) - Math.min(...places)) : [] };
}

/** A check that carries an indicator along something: slope of the line and what is left of it. */
export function defineTraverse(facts: TraverseFacts): CheckDefinition {
  const words: Words = facts.words ?? {
    ...HEIGHT,
    plus: 'rising along the travel',
    minus: 'falling along the travel',
    movePlus: 'raise the far end',
    moveMinus: 'lower the far end',
  };
  return defineCheck({
    ...facts,
    family: 'traverse',
    setup,
    reading,
    slotKeys: ['at', 'turn'],
    valueKind: 'indicator',
    quantities: {
      slope: { label: facts.subject, dimension: 'slope', unit: 'um/m', words, ...(facts.slope && { limit: facts.slope }) },
      range: {
        label: 'Out of line along the travel',
        dimension: 'deviation',
        unit: 'um',
        magnitude: true,
        ...(facts.range && { limit: facts.range }),
        ...(facts.rangePer && { over: { length: facts.rangePer } }),
      },
      referenceSlope: unlimited('Slope of the reference itself', 'slope', 'um/m'),
    },
    lengthOf: (_setup, places) => spanOf(places),
    plan,
    conditions: z.strictObject({}),
    slots: (_setup, { stations = 4, length = 300, turned = false }) => {
      const places = plannedPlaces(stepped(stations, length / (stations - 1)), (at) => `At ${at} mm`);
      if (!turned) return places;
      return ([0, 180] as const).flatMap((turn) =>
        places.map((slot, i) => ({
          ...slot,
          keys: { ...slot.keys, turn },
          ask: i === 0 && turn === 180 ? 'Turn the reference half round about its length.' : undefined,
        })),
      );
    },
    profile: (setup, slots) => traverseHeights(slots, setup.side === 'rear' ? -1 : 1),
    estimate,
    corrections: { slope: { plus: facts.moves, minus: facts.moves } },
    counting: 'The whole difference counts: nothing has been turned, so nothing is doubled.',
    cautions: [ISOLATE, ...(facts.cautions ?? [])],
  });
}
