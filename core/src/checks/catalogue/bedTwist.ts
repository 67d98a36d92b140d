import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { slopeWeights } from '../../fit/line.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { ISOLATE, stationPlan, stepped, tooFew } from '../common.js';
import { addForms, levelStations, meanForm } from '../level.js';
import { unlimited } from '../tailstock.js';

const setup = z.strictObject({
  levelZero: optionalMeasure('slope', {
    label: 'Zero error of the level',
    example: '0',
    rare: true,
    help: 'Only when the level is not turned end for end at each place.',
  }),
  bedLength: optionalMeasure('length', {
    label: 'Length to read over',
    above: 0,
    example: '1200 mm',
    help: 'For placing the level; the places themselves are what counts.',
  }),
});

const ends = [
  { value: 'forward', label: 'this way round' },
  { value: 'reversed', label: 'turned end for end' },
] as const;

const reading = z.strictObject({
  at: measure('length', { label: 'Along the bed', example: '80 mm' }),
  end: choice({ label: 'Level', choices: ends }),
});

type Setup = z.output<typeof setup>;

function estimate({ setup, slots }: CheckInput<Setup>): Estimates {
  const stations = levelStations(slots, setup.levelZero ?? 0);
  const zeros = stations.flatMap((station) => (station.zeroWeights ? [station.zeroWeights] : []));
  const zero = zeros.length ? [linearEstimate('levelZero', meanForm(zeros))] : [];
  if (stations.length < 2) return { estimates: zero, notes: [tooFew('the level has to stand at two places along the bed')] };
  const [first, last] = [stations[0], stations[stations.length - 1]];
  const slope = slopeWeights(stations.map((station) => station.at));
  const perMetre = slots.map((_, i) => 1000 * stations.reduce((sum, station, k) => sum + slope[k] * station.weights[i], 0));
  const off = 1000 * stations.reduce((sum, station, k) => sum + slope[k] * station.constant, 0);
  const ends = linearEstimate('twist', addForms(last.weights, first.weights, 1, -1), { terms: term(last.constant - first.constant) });
  return { estimates: [linearEstimate('twistPerMetre', perMetre, { terms: term(off) }), ends, ...zero], notes: [] };
}

const term = (amount: number): Record<string, number> => (Math.abs(amount) > 1e-9 ? { levelZero: amount } : {});

/** Roll to be given at one pair of feet: the twist per metre over the distance between the pairs, as far as was read. */
function rollBetween(amount: number, places: readonly number[]): number {
  return (amount * (Math.max(...places) - Math.min(...places))) / 1000;
}

export const bedTwist = defineCheck({
  id: 'bed-twist',
  family: 'level',
  title: 'Bed twist',
  question: 'Is the bed free of twist along its length?',
  choose: 'First of all the rungs: a twisted bed makes every other check on a lathe a guess.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  slotKeys: ['at', 'end'],
  valueKind: 'level',
  quantities: {
    twistPerMetre: {
      label: 'Bed twist',
      dimension: 'twist',
      unit: 'um/m per m',
      limit: [-20, 20],
      words: {
        plus: 'operator’s side rising toward the tailstock',
        minus: 'operator’s side falling toward the tailstock',
        movePlus: 'raising the operator’s side at the tailstock end',
        moveMinus: 'lowering the operator’s side at the tailstock end',
      },
    },
    twist: unlimited('Twist from end to end', 'slope', 'um/m'),
    levelZero: unlimited('Zero error of the level', 'slope', 'um/m'),
  },
  plan: stationPlan('Places along the bed', 3),
  conditions: z.strictObject({}),
  slots: ({ bedLength = 1000 }, { stations = 3 }) =>
    stepped(stations, bedLength / (stations - 1)).flatMap((at, i) =>
      (['forward', 'reversed'] as const).map((end) => ({
        keys: { at, end },
        label: `Level across the ways, ${i === 0 ? 'headstock end' : i === stations - 1 ? 'tailstock end' : `place ${i + 1}`}${end === 'reversed' ? ', turned end for end' : ''}`,
        ask: end === 'reversed' ? 'Turn the level end for end on the same spot.' : undefined,
      })),
    ),
  estimate,
  corrections: { twistPerMetre: { plus: ['feet', 'feet-shims'], minus: ['feet', 'feet-shims'] } },
  amountFor: (kind, amount, _setup, slots) =>
    kind.startsWith('feet')
      ? rollBetween(
          amount,
          slots.map((slot) => slot.keys['at'] as number),
        )
      : amount,
  counting: 'Half the difference of the two ways round is the roll; half their sum is the level’s own error.',
  upsets: [
    'way-straightness',
    'tailstock-way-parallelism',
    'seat',
    'spindle-play',
    'spindle-runout',
    'spindle-axis',
    'chuck-test-cut',
    'centre-runout',
    'quill-parallelism',
    'tailstock-traverse',
    'tailstock-sweep',
    'tailstock-test-cut',
    'saddle-squareness',
    'dovetail-over-pins',
    'cross-slide-squareness',
  ],
  cautions: [ISOLATE, 'Turn levelling screws a little at a time and keep every foot bearing: a machine on three feet can tip.'],
  cannotSee: [
    'A bow of the bed up or down: twist is a difference of roll.',
    'What the bed does after a day: a levelled machine settles. Read it again tomorrow.',
  ],
  advice: [
    'Wipe the ways and the foot of the level; a chip under it is a slope.',
    'Let the bubble come to rest, and keep warm hands off the vial.',
    'Read it again after a day.',
  ],
});
