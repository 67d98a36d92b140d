import * as z from 'zod';
import { choice, optionalMeasure } from '../../fields.js';
import { defineCheck, type CheckInput, type Estimates, type Words } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { ISOLATE, tooFew } from '../common.js';
import { levelStations, meanForm } from '../level.js';
import { unlimited } from '../tailstock.js';

const tableSetup = z.strictObject({ levelZero: optionalMeasure('slope', { label: 'Zero error of the level', example: '0', rare: true }) });
const reading = z.strictObject({
  axis: z.enum(['x', 'y'], { error: 'must be "x" or "y"' }),
  at: optionalMeasure('length', { label: 'Place', example: '0' }),
  end: choice({
    label: 'Level',
    choices: [
      { value: 'forward', label: 'this way round' },
      { value: 'reversed', label: 'turned end for end' },
    ],
  }),
});

function estimate({ setup, slots }: CheckInput<z.output<typeof tableSetup>>): Estimates {
  const zeros: number[][] = [];
  const estimates = (['x', 'y'] as const).flatMap((axis) => {
    const stations = levelStations(slots, setup.levelZero ?? 0, (slot) => slot.keys['axis'] === axis);
    if (stations.length === 0) return [];
    for (const station of stations) if (station.zeroWeights) zeros.push([...station.zeroWeights]);
    const constant = stations.reduce((sum, station) => sum + station.constant, 0) / stations.length;
    return [
      linearEstimate(axis === 'x' ? 'levelX' : 'levelY', meanForm(stations.map((station) => station.weights)), {
        terms: constant ? { levelZero: constant } : {},
      }),
    ];
  });
  if (zeros.length) estimates.push(linearEstimate('levelZero', meanForm(zeros)));
  return { estimates, notes: estimates.length ? [] : [tooFew('the level once along each axis')] };
}

const words = (plus: string, minus: string): Words => ({
  plus,
  minus,
  movePlus: `raise the ${plus.replace(' high', '')}`,
  moveMinus: `lower the ${plus.replace(' high', '')}`,
});

export const tableLevel = defineCheck({
  id: 'table-level',
  family: 'level',
  title: 'Table level',
  question: 'Does the table stand level?',
  choose: 'First of all on a mill: not for the work, but so that it stands without strain and tomorrow tells the same.',
  machines: ['mill'],
  setup: tableSetup,
  reading,
  slotKeys: ['axis', 'at', 'end'],
  valueKind: 'level',
  quantities: {
    levelX: {
      label: 'Table along x',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-40, 40],
      words: words('right side high', 'left side high'),
    },
    levelY: {
      label: 'Table along y',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-40, 40],
      words: words('column side high', 'operator’s side high'),
    },
    levelZero: unlimited('Zero error of the level', 'slope', 'um/m'),
  },
  plan: z.strictObject({}),
  conditions: z.strictObject({}),
  slots: () =>
    (['x', 'y'] as const).flatMap((axis) =>
      (['forward', 'reversed'] as const).map((end) => ({
        keys: { axis, end },
        label: `Along ${axis}${end === 'reversed' ? ', turned end for end' : ''}`,
      })),
    ),
  estimate,
  corrections: { levelX: { plus: ['feet'], minus: ['feet'] }, levelY: { plus: ['feet'], minus: ['feet'] } },
  counting: 'Half the difference of the two ways round.',
  upsets: [
    'knee-gib-play',
    'saddle-gib-play',
    'table-gib-play',
    'table-parallelism-x',
    'table-parallelism-y',
    'motion-straightness-x',
    'motion-straightness-y',
    'axis-squareness',
    'slot-parallelism',
    'column-lean',
    'spindle-runout',
    'head-tram',
    'vice-parallelism',
  ],
  cautions: [ISOLATE, 'Keep every foot bearing: a machine on three feet can tip.'],
  cannotSee: ['Whether the axes are square.'],
  advice: ['Level in the middle of the table, axes in the middle of their travel.'],
});
