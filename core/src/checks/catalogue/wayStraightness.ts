import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import type { Slot } from '../../instruments/slots.js';
import { defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { ISOLATE, spanOf, stationPlan, stepped, tooFew } from '../common.js';
import { addForms, levelStations, meanForm } from '../level.js';
import { heightsOf, straightnessEstimates, type ProfilePoint } from '../profile.js';
import { unlimited } from '../tailstock.js';
import { WAY } from '../../moves/parts.js';

const setup = z.strictObject({
  method: choice({
    label: 'Method',
    choices: [
      { value: 'level-steps', label: 'a level in steps' },
      { value: 'straightedge', label: 'a straightedge, turned over' },
    ],
  }),
  base: optionalMeasure('length', { label: 'Foot of the level', above: 0, example: '100 mm', help: 'Each step is as long as the foot.' }),
  levelZero: optionalMeasure('slope', { label: 'Zero error of the level', example: '0', rare: true }),
  temperatureDifference: optionalMeasure('temperature', {
    label: 'Top warmer than bottom by',
    min: -20,
    max: 20,
    example: '0',
    rare: true,
    help: 'A bed that is warmer on top bows up.',
  }),
  bedDepth: optionalMeasure('length', { label: 'Depth of the bed', above: 0, example: '300 mm', rare: true }),
});

const reading = z.strictObject({
  at: measure('length', { label: 'Along the way', example: '100 mm' }),
  end: choice({
    label: 'Level',
    choices: [
      { value: 'forward', label: 'this way round' },
      { value: 'reversed', label: 'turned end for end' },
    ],
  }),
  edge: choice({
    label: 'Edge',
    choices: [
      { value: 'toward-operator', label: 'facing the operator' },
      { value: 'away', label: 'turned over' },
    ],
  }),
});

type Setup = z.output<typeof setup>;

/** Heights from level steps: each adds slope·base to the one before. */
function steppedProfile({ setup, slots }: CheckInput<Setup>): ProfilePoint[] {
  const base = setup.base ?? 0;
  const stations = levelStations(slots, setup.levelZero ?? 0);
  if (stations.length === 0) return [];
  let here: ProfilePoint = { at: stations[0].at, weights: new Array<number>(slots.length).fill(0), constant: 0 };
  const points = [here];
  for (const station of stations) {
    here = {
      at: station.at + base,
      weights: addForms(here.weights, station.weights, 1, base / 1000),
      constant: here.constant + (station.constant * base) / 1000,
    };
    points.push(here);
  }
  return points;
}

function byEdge(slots: readonly Slot[], edge: string): Map<number, number> {
  return new Map(
    slots.flatMap((slot, i) => ((slot.keys['edge'] ?? 'toward-operator') === edge ? [[slot.keys['at'] as number, i] as const] : [])),
  );
}

/** Heights by straightedge: (turned over − facing)/2 is the way, (facing + turned over)/2 the edge. */
function edgeProfiles({ slots }: CheckInput<Setup>): { way: ProfilePoint[]; edge: ProfilePoint[] } {
  const [facing, over] = [byEdge(slots, 'toward-operator'), byEdge(slots, 'away')];
  const pair = (sign: number): ProfilePoint[] =>
    [...facing].flatMap(([at, i]) => {
      const j = over.get(at);
      if (j === undefined) return [];
      const weights = new Array<number>(slots.length).fill(0);
      weights[i] = sign * 0.5;
      weights[j] = 0.5;
      return [{ at, weights, constant: 0 }];
    });
  return { way: pair(-1), edge: pair(1) };
}

function warmth({ temperatureDifference, bedDepth }: Setup, points: readonly ProfilePoint[]): Note[] {
  if (!temperatureDifference || !bedDepth) return [];
  const length = points[points.length - 1].at - points[0].at;
  const bow = (1000 * 11.5e-6 * temperatureDifference * length ** 2) / (8 * bedDepth);
  return [
    {
      code: 'temperature-bow',
      severity: 'warning',
      text: `The bed is ${Math.abs(temperatureDifference)} °C ${temperatureDifference > 0 ? 'warmer' : 'colder'} on top: that alone bows it by about ${Math.abs(bow).toFixed(0)} µm over this length. Let it come to one temperature.`,
    },
  ];
}

function estimate(input: CheckInput<Setup>): Estimates {
  const { setup, slots } = input;
  const values = slots.map((slot) => slot.value);
  const steps = setup.method !== 'straightedge';
  const { way, edge } = steps ? { way: steppedProfile(input), edge: [] } : edgeProfiles(input);
  const points = [...way].sort((a, b) => a.at - b.at);
  if (points.length < 3)
    return { estimates: [], notes: [tooFew(steps ? 'two steps of the level at least' : 'three places, each with the edge both ways')] };
  const estimates = straightnessEstimates(points, values);
  if (steps) {
    const zeros = levelStations(slots, 0).flatMap((station) => (station.zeroWeights ? [station.zeroWeights] : []));
    if (zeros.length) estimates.push(linearEstimate('levelZero', meanForm(zeros)));
  } else {
    const [own] = straightnessEstimates(
      [...edge].sort((a, b) => a.at - b.at),
      values,
    );
    estimates.push({ ...own, name: 'edgeStraightness' });
  }
  return { estimates, notes: warmth(setup, points) };
}

export const wayStraightness = defineCheck({
  id: 'way-straightness',
  family: 'level',
  title: 'Way straightness',
  question: 'Is the way straight?',
  choose: 'Steps of a level for height; a straightedge turned over for either plane, and it takes its own error out.',
  machines: ['lathe', 'mill', 'turning-centre'],
  setup,
  reading,
  slotKeys: ['at', 'end', 'edge'],
  valueKind: 'level',
  valueKindFor: (setup) => (setup.method === 'straightedge' ? 'indicator' : 'level'),
  quantities: {
    straightness: {
      label: 'Straightness of the way',
      dimension: 'deviation',
      unit: 'um',
      limit: [null, 15],
      magnitude: true,
      over: { length: 1000, least: 5 },
    },
    minimumZone: unlimited('Narrowest zone that holds it', 'deviation', 'um', { magnitude: true }),
    levelZero: unlimited('Zero error of the level', 'slope', 'um/m'),
    edgeStraightness: unlimited('Straightness of the edge itself', 'deviation', 'um', { magnitude: true }),
  },
  lengthOf: ({ method, base }, places) => spanOf(places) + (method === 'straightedge' ? 0 : (base ?? 0)),
  plan: stationPlan('Steps or places', 6),
  conditions: z.strictObject({}),
  slots: ({ method, base = 150 }, { stations = 6 }) =>
    method === 'straightedge'
      ? (['toward-operator', 'away'] as const).flatMap((edge) =>
          stepped(stations, base).map((at, i) => ({
            keys: { at, edge },
            label: `Along the edge, ${at} mm`,
            ask:
              i === 0 && edge === 'away' ? 'Roll the straightedge half round about its length and read it from the other side.' : undefined,
          })),
        )
      : stepped(stations, base).flatMap((at) =>
          (['forward', 'reversed'] as const).map((end) => ({
            keys: { at, end },
            label: `Step from ${at} mm${end === 'reversed' ? ', turned end for end' : ''}`,
          })),
        ),
  profile: (setup, slots) => {
    const input = { setup, slots, instrument: undefined };
    const points = setup.method === 'straightedge' ? edgeProfiles(input).way : steppedProfile(input);
    return heightsOf(points, slots);
  },
  estimate,
  faults: (setup) =>
    setup.method !== 'straightedge' && setup.base === undefined
      ? [{ path: 'setup.base', message: 'is missing: the steps add up over the foot of the level', example: '100 mm' }]
      : [],
  corrections: { straightness: { plus: ['scrape'], minus: ['scrape'] } },
  part: WAY,
  counting: 'Slopes add up to heights; with the edge, half the difference of the two ways round is the way.',
  upsets: ['tailstock-way-parallelism', 'tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut', 'quill-parallelism', 'spindle-axis'],
  cautions: [ISOLATE, 'A straightedge is heavy and brittle: two people, and never over an edge by hand.'],
  cannotSee: ['Errors shorter than the foot of the level.', 'A bow from warmth: let the bed come to one temperature.'],
  advice: [
    'Step the foot end to end, each step starting where the last one ended.',
    'Hold the same end of the level toward the headstock for every reading of one way round.',
  ],
});
