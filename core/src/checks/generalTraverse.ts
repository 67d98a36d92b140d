import * as z from 'zod';
import { count, fieldRegistry, measure, placeList } from '../input/fields.js';
import type { Part } from './parts.js';
import { defineCheck, type CheckDefinition, type CheckInput, type Estimates, type Picture, type Words, type Zone } from './define.js';
import { ISOLATE } from './cautions.js';
import { linearEstimate, type Estimate } from './estimate.js';
import { lineFits } from './fits.js';
import { gridEstimate, gridPlan, gridReading, gridSlots, isGrid } from './tableGrid.js';
import { MORE_SET_UPS, longerBase } from './helps.js';
import { shortBase, spanOf, tooFew } from './notes.js';
import { unlimited } from './quantities.js';
import { sideField, turnKey } from './setupFields.js';
import { closed, plannedPlaces, evenly } from './stations.js';
import { referenceSlope, residualRange, traverseHeights, traverseLine, type TraverseKeys } from './traverse.js';
import { ALONG } from './words.js';

const setup = z.strictObject({ side: sideField() });
/** What is read from above, or toward the column, has no rear: nobody is asked. A sheet that says one has its sign turned. */
const unsidedSetup = z.strictObject({ side: sideField().register(fieldRegistry, { label: 'Read from', hidden: true }) });
const reading = z.strictObject({
  at: measure('length', { label: 'Along the travel', example: '0 mm' }),
  turn: turnKey(),
});
const plan = z.strictObject({
  stations: count({ label: 'How many places along the travel', min: 2, max: 40, example: '4' }),
  places: placeList({ label: 'Their places', example: '0, 150, 300 mm', min: 2 }),
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
export interface TraverseFacts extends Pick<
  CheckDefinition,
  | 'id'
  | 'title'
  | 'question'
  | 'choose'
  | 'machines'
  | 'needs'
  | 'hangsOn'
  | 'after'
  | 'knows'
  | 'cannotSee'
  | 'advice'
  | 'goodFor'
  | 'reseat'
> {
  readonly subject: string;
  readonly words?: Words;
  readonly slope?: Zone;
  readonly range?: Zone;
  /** The range is limited per this length, mm, rather than as it is. */
  readonly rangePer?: number;
  readonly moves: readonly string[];
  /** What is done about a range that is too wide; nothing if left out. */
  readonly straightened?: readonly string[];
  readonly part?: Part;
  readonly picture?: Picture;
  readonly cautions?: readonly string[];
  readonly conditions?: z.ZodObject;
  /** Whether rows may lie beside each other: the whole table as a grid. */
  readonly grid?: Words;
  /** Whether a person is asked from which side it is read; true if left out. */
  readonly sided?: boolean;
}

function estimate({ setup, slots, instrument }: CheckInput<Setup, TraverseKeys>): Estimates {
  const line = traverseLine(slots);
  if (!line) return { estimates: [], notes: [tooFew('two places along the travel')] };
  const side = setup.side === 'rear' ? -1 : 1;
  const weights = line.weights.map((weight) => 1000 * side * weight);
  const estimates: Estimate[] = [linearEstimate('slope', weights, { open: line.open })];
  const range = residualRange('range', slots, line);
  if (range.places > 2) estimates.push(range);
  if (!line.open) estimates.push(...referenceSlope('referenceSlope', line, 1000 * side));
  return {
    estimates,
    notes: instrument ? shortBase(spanOf(slots.map((slot) => slot.keys.at))) : [],
    fits: lineFits(slots, line, { widens: ['slope'] }),
  };
}

const rangeCured = (kinds: readonly string[]): CheckDefinition['corrections'] =>
  kinds.length > 0 ? { range: { plus: [], minus: kinds } } : {};

/** A check that carries an indicator along something: slope of the line and what is left of it. */
export function defineTraverse({
  subject,
  words = ALONG,
  slope,
  range,
  rangePer,
  moves,
  straightened = [],
  picture = { drawing: 'places' },
  cautions = [],
  conditions = z.strictObject({}),
  sided = true,
  grid,
  ...facts
}: TraverseFacts): CheckDefinition {
  return defineCheck({
    ...facts,
    family: 'traverse',
    setup: sided ? setup : unsidedSetup,
    reading: grid ? reading.extend(gridReading) : reading,
    plan: grid ? plan.extend(gridPlan) : plan,
    conditions,
    slotKeys: (grid ? ['at', 'across', 'turn'] : ['at', 'turn']) as readonly ('at' | 'turn')[],
    reads: 'indicator',
    quantities: {
      slope: { label: subject, dimension: 'slope', unit: 'um/m', words, spokenOver: 300, ...(slope && { limit: slope }) },
      range: {
        label: 'Out of line along the travel',
        dimension: 'deviation',
        unit: 'um',
        magnitude: true,
        ...(range && { limit: range }),
        ...(rangePer && { over: { length: rangePer } }),
      },
      ...(grid && { slopeAcross: { label: 'Across the travel', dimension: 'slope', unit: 'um/m', words: grid, spokenOver: 300 } }),
      referenceSlope: unlimited('Slope of the reference itself', 'slope', 'um/m'),
    },
    lengthOf: (_setup, places) => spanOf(places),
    slots: (_setup, { stations = 4, length = 300, turned = false, places = evenly(0, length, stations), ...rest }) => {
      const { rows = 1, width = 150 } = rest as { readonly rows?: number; readonly width?: number };
      if (grid && rows > 1) return closed(gridSlots(places, rows, width));
      const along = plannedPlaces(places, (at) => (size) => `At ${size(at, 'length')}`);
      if (!turned) return closed(along);
      const ways = ([0, 180] as const).flatMap((turn) =>
        along.map((slot, i) => ({
          ...slot,
          keys: { ...slot.keys, turn },
          ask: i === 0 && turn === 180 ? 'Turn the reference half round about its length.' : undefined,
        })),
      );
      return closed(ways, ({ turn }) => String(turn));
    },
    profile: (setup, slots) => (grid && isGrid(slots) ? [] : traverseHeights(slots, setup.side === 'rear' ? -1 : 1)),
    estimate: (input) => (grid && isGrid(input.slots) ? gridEstimate(input.slots) : estimate(input)),
    corrections: { slope: { plus: moves, minus: moves }, ...rangeCured(straightened) },
    picture,
    helps: [longerBase('read over twice the length'), MORE_SET_UPS],
    counting: 'The whole difference counts: nothing has been turned, so nothing is doubled.',
    cautions: [ISOLATE, ...cautions],
  });
}
