import * as z from 'zod';
import { choice, count, measure, optionalMeasure, optionalText, placeList } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import type { Reading, Slot } from '../../instruments/slots.js';
import type { Said } from '../../units/said.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot } from '../define.js';
import { redundant, type Fit } from '../fits.js';
import { combineSlopes, levelRun, levelZeroEstimate, slopeFit, slopesOf, zeroFits, type LevelRun } from '../level.js';
import { spanOf, tooFew } from '../notes.js';
import { WAY } from '../parts.js';
import { heightsOf, straightnessEstimates, type Profile } from '../profile.js';
import { unlimited } from '../quantities.js';
import { halvesOf, openText } from '../reversal.js';
import { levelEnd, levelZeroField } from '../setupFields.js';
import { stepped } from '../stations.js';

const setup = z.strictObject({
  method: choice({
    label: 'Method',
    choices: [
      { value: 'level-steps', label: 'a level in steps' },
      { value: 'straightedge', label: 'a straightedge, turned over' },
    ],
  }),
  base: optionalMeasure('length', { label: 'Foot of the level', above: 0, example: '100 mm', help: 'Each step is as long as the foot.' }),
  levelZero: levelZeroField(),
  temperatureDifference: optionalMeasure('warming', {
    label: 'Top warmer than bottom by',
    min: -20,
    max: 20,
    example: '0',
    help: 'A bed that is warmer on top bows up.',
  }),
  bedDepth: optionalMeasure('length', { label: 'Depth of the bed', above: 0, example: '300 mm', rare: true }),
});
const reading = z.strictObject({
  at: measure('length', { label: 'Along the way', example: '100 mm' }),
  end: levelEnd(),
  edge: choice({
    label: 'Edge',
    choices: [
      { value: 'toward-operator', label: 'facing the operator' },
      { value: 'away', label: 'turned over' },
    ],
  }),
});
const plan = z.strictObject({
  stations: count({ label: 'How many steps or places', min: 2, max: 60, example: '6' }),
  places: placeList({ label: 'Places along the edge', example: '0, 150, 300 mm', min: 3 }),
});
type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;
type Slots = readonly Slot<Keys>[];

/** Heights from level steps: each adds slope·base to the one before. */
function steppedProfile(run: LevelRun, base: number, size: number): Profile {
  const step = base / 1000;
  const { stations } = run;
  const room = new Float64Array(stations.length + 1);
  return {
    at: [stations[0].at, ...stations.map((station) => station.at + base)],
    heights: (values) => {
      const slopes = slopesOf(run, values);
      for (let k = 0; k < slopes.length; k++) room[k + 1] = room[k] + slopes[k] * step;
      return room;
    },
    // A slope lifts every height after it.
    weigh: (own) => {
      const factors = new Array<number>(stations.length).fill(0);
      let after = 0;
      for (let k = stations.length - 1; k >= 0; k--) factors[k] = (after += own[k + 1]) * step;
      return combineSlopes(run, factors, size).weights;
    },
  };
}

/** Heights from pairs of readings: Σ of the two, each with its sign, halved. */
function pairedProfile(slots: Slots, pairs: readonly (readonly [number, number])[], sign: 1 | -1): Profile {
  const order = [...pairs].sort(([a], [b]) => slots[a].keys.at - slots[b].keys.at);
  const room = new Float64Array(order.length);
  return {
    at: order.map(([i]) => slots[i].keys.at),
    heights: (values) => {
      for (let k = 0; k < order.length; k++) room[k] = (sign * values[order[k][0]] + values[order[k][1]]) / 2;
      return room;
    },
    weigh: (own) => {
      const weights = new Array<number>(slots.length).fill(0);
      order.forEach(([i, j], k) => {
        weights[i] += (sign * own[k]) / 2;
        weights[j] += own[k] / 2;
      });
      return weights;
    },
  };
}

const edgeHalves = (slots: Slots) => halvesOf(slots, 'edge', ['toward-operator', 'away'], ['at']);
function warmth({ temperatureDifference, bedDepth }: Setup, profile: Profile): Note<Said>[] {
  if (!temperatureDifference || !bedDepth) return [];
  const bow = (1000 * 11.5e-6 * temperatureDifference * spanOf(profile.at) ** 2) / (8 * bedDepth);
  return [
    {
      code: 'temperature-bow',
      severity: 'warning',
      text: (size) =>
        `The bed is ${Math.abs(temperatureDifference)} °C ${temperatureDifference > 0 ? 'warmer' : 'colder'} on top: that alone bows it ${temperatureDifference > 0 ? 'up' : 'down'} in the middle by about ${size(bow, 'deviation', Math.abs(bow))} over this length. Let it come to one temperature.`,
    },
  ];
}

function bySteps({ setup, slots }: CheckInput<Setup, Keys>): Estimates {
  const run = levelRun(slots, setup.levelZero);
  if (run.stations.length < 2) return { estimates: [], notes: [tooFew('two steps of the level at least'), ...run.notes] };
  const profile = steppedProfile(run, setup.base ?? 0, slots.length);
  const values = slots.map((slot) => slot.value);
  return {
    estimates: [...straightnessEstimates(profile, values, run.open), ...levelZeroEstimate([run])],
    notes: [...run.notes, ...warmth(setup, profile)],
    // A bow is what is looked for: slopes that go evenly are no contradiction.
    fits: [...zeroFits([run], ['straightness', 'minimumZone', 'levelZero']), ...slopeFit(run, { widens: [], measured: true })],
  };
}

/** By straightedge: (turned over − facing)/2 is the way, (facing + turned over)/2 the edge. */
function byEdge({ setup, slots }: CheckInput<Setup, Keys>): Estimates {
  const halves = edgeHalves(slots);
  if (halves.pairs.length < 3) return { estimates: [], notes: [tooFew('three places, each with the edge both ways')] };
  const [way, edge] = [pairedProfile(slots, halves.pairs, -1), pairedProfile(slots, halves.pairs, 1)];
  const values = slots.map((slot) => slot.value);
  const open = openText(halves, 'roll the straightedge over and read there again');
  const [own] = straightnessEstimates(edge, values);
  const heights = halves.pairs.map(([i, j]) => ({
    form: [
      [i, -0.5],
      [j, 0.5],
    ] as const,
    row: [1, slots[i].keys.at],
  }));
  const line: Fit = { shape: 'line', observations: heights, widens: [], measured: true };
  return {
    estimates: [...straightnessEstimates(way, values, open), { ...own, name: 'edgeStraightness' }],
    notes: warmth(setup, way),
    fits: [line].filter(redundant),
  };
}

const steps = ({ method }: Setup): boolean => method !== 'straightedge';

/** mm by which a step may miss the end of the one before. */
const JOINT = 1;

function faults(setup: Setup, readings: readonly Reading<Keys>[]): Fault[] {
  const byLevel = steps(setup);
  const wrong = readings.flatMap(({ end, edge }, i): Fault[] =>
    (byLevel ? edge : end) === undefined
      ? []
      : [
          {
            path: `readings[${i}].${byLevel ? 'edge' : 'end'}`,
            message: byLevel
              ? 'is for a straightedge: this way is read by steps of a level'
              : 'is for a level: this way is read with a straightedge',
            example: 'leave it out',
          },
        ],
  );
  if (!byLevel) return wrong;
  const { base } = setup;
  if (base === undefined)
    return [...wrong, { path: 'setup.base', message: 'is missing: the steps add up over the foot of the level', example: '100 mm' }];
  const places = readings.map(({ at }, i) => ({ at, i })).sort((a, b) => a.at - b.at);
  const gaps = places.flatMap(({ at, i }, k): Fault[] => {
    const before = k ? places[k - 1].at : at;
    return at === before || Math.abs(at - before - base) <= JOINT
      ? []
      : [
          {
            path: `readings[${i}].at`,
            message: `does not join: the step before ends at ${Number((before + base).toFixed(2))} mm and this one starts at ${at} mm. A gap bends a straight way`,
            example: `${Number((before + base).toFixed(2))} mm`,
          },
        ];
  });
  return [...wrong, ...gaps];
}

function plannedSlots({ method, base = 150 }: Setup, { stations = 6, places }: z.output<typeof plan>): PlannedSlot[] {
  return method === 'straightedge'
    ? (['toward-operator', 'away'] as const).flatMap((edge) =>
        (places ?? stepped(stations, base)).map((at, i) => ({
          keys: { at, edge },
          label: (size) => `Along the edge, ${size(at, 'length')}`,
          movable: 'places',
          ask:
            i === 0 && edge === 'away' ? 'Roll the straightedge half round about its length and read it from the other side.' : undefined,
        })),
      )
    : Array.from({ length: stations }, (_, k) => k * base).flatMap((at) =>
        (['forward', 'reversed'] as const).map((end) => ({
          keys: { at, end },
          label: (size) => `Step from ${size(at, 'length')}${end === 'reversed' ? ', turned end for end' : ''}`,
        })),
      );
}

export const wayStraightness = defineCheck({
  id: 'way-straightness',
  family: 'level',
  title: 'Way straightness',
  question: 'Is the way straight?',
  choose: 'Steps of a level for height; a straightedge turned over for either plane, and it takes its own error out.',
  machines: ['lathe', 'mill', 'turning-centre'],
  needs: ['slideways'],
  setup,
  reading,
  plan,
  conditions: z.strictObject({ way: optionalText(40, { label: 'Which way', example: 'front vee' }) }),
  apart: ['way'],
  slotKeys: ['at', 'end', 'edge'],
  reads: 'level',
  readsFor: (setup) => (steps(setup) ? 'level' : 'indicator'),
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
  lengthOf: (setup, places) => spanOf(places) + (steps(setup) ? (setup.base ?? 0) : 0),
  slots: plannedSlots,
  profile: (setup, slots) => {
    if (steps(setup)) {
      const run = levelRun(slots, setup.levelZero);
      return run.stations.length < 2 ? [] : heightsOf(steppedProfile(run, setup.base ?? 0, slots.length), slots);
    }
    return heightsOf(pairedProfile(slots, edgeHalves(slots).pairs, -1), slots);
  },
  faults,
  estimate: (input) => (steps(input.setup) ? bySteps(input) : byEdge(input)),
  corrections: { straightness: { plus: ['scrape'], minus: ['scrape'] } },
  part: WAY,
  picture: { drawing: 'way-from-the-side' },
  hangsOn: ['bed-twist', 'table-level'],
  knowsProfile: { name: 'way', when: (setup) => setup['method'] !== 'straightedge' },
  counting: 'Slopes add up to heights; with the edge, half the difference of the two ways round is the way.',
  cautions: [ISOLATE, 'A straightedge is heavy and brittle: two people, and never over an edge by hand.'],
  cannotSee: ['Errors shorter than the foot of the level.', 'A bow from warmth: let the bed come to one temperature.'],
  advice: [
    'Step the foot end to end, each step starting where the last one ended.',
    'Hold the same end of the level toward the headstock for every reading of one way round.',
  ],
});
