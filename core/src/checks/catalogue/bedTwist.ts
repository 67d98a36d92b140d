import * as z from 'zod';
import { measure, optionalMeasure } from '../../input/fields.js';
import { slopeWeights } from '../../fit/line.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { combineSlopes, levelRun, levelZeroEstimate, slopeFit, zeroFits, zeroTerm } from '../level.js';
import { tooFew } from '../notes.js';
import { unlimited } from '../quantities.js';
import { levelEnd, levelZeroField } from '../setupFields.js';
import { stationPlan, stepped } from '../stations.js';
import { inBothPersons } from '../persons.js';

const setup = z.strictObject({
  levelZero: levelZeroField(),
  bedLength: optionalMeasure('length', {
    label: 'Length to read over',
    above: 0,
    example: '1200 mm',
    help: 'For placing the level; the places themselves are what counts.',
  }),
});
const reading = z.strictObject({
  at: measure('length', { label: 'Along the bed', example: '80 mm' }),
  end: levelEnd(),
});

type Setup = z.output<typeof setup>;

function estimate({ setup, slots }: CheckInput<Setup, z.output<typeof reading>>): Estimates {
  const run = levelRun(slots, setup.levelZero);
  const zero = levelZeroEstimate([run]);
  const { stations, open } = run;
  if (stations.length < 2) return { estimates: zero, notes: [tooFew('read the level at two places along the bed at least'), ...run.notes] };
  const perMetre = combineSlopes(
    run,
    slopeWeights(stations.map((station) => station.at)).map((weight) => 1000 * weight),
    slots.length,
  );
  const ends = combineSlopes(
    run,
    stations.map((_, k) => (k === stations.length - 1 ? 1 : 0) - (k === 0 ? 1 : 0)),
    slots.length,
  );
  return {
    estimates: [
      linearEstimate('twistPerMetre', perMetre.weights, { terms: zeroTerm(perMetre.constant), open }),
      linearEstimate('twist', ends.weights, { terms: zeroTerm(ends.constant), open }),
      ...zero,
    ],
    notes: run.notes,
    fits: [...zeroFits([run], ['twistPerMetre', 'twist', 'levelZero']), ...slopeFit(run, { widens: ['twistPerMetre'] })],
  };
}

export const bedTwist = defineCheck({
  id: 'bed-twist',
  family: 'level',
  title: 'Bed twist',
  question: 'Is the bed free of twist along its length?',
  choose: 'First of all checks: on a twisted bed every other check on a lathe is a guess.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  plan: stationPlan('How many places along the bed', 3),
  conditions: z.strictObject({}),
  slotKeys: ['at', 'end'],
  reads: 'level',
  quantities: {
    twistPerMetre: {
      label: 'Bed twist',
      dimension: 'twist',
      unit: 'um/m per m',
      limit: [-20, 20],
      words: inBothPersons(({ whose, side }) => ({
        plus: `${whose} side rising toward the tailstock`,
        minus: `${whose} side falling toward the tailstock`,
        movePlus: `raising ${side} at the tailstock end`,
        moveMinus: `lowering ${side} at the tailstock end`,
        arrow: ['up', 'down'],
      })),
    },
    twist: unlimited('Twist from end to end', 'slope', 'um/m'),
    levelZero: unlimited('Zero error of the level', 'slope', 'um/m'),
  },
  slots: ({ bedLength = 1000 }, { stations = 3, places = stepped(stations, bedLength / (stations - 1)) }) =>
    places.flatMap((at, i) =>
      (['forward', 'reversed'] as const).map((end) => ({
        keys: { at, end },
        label: `Level across the ways, ${i === 0 ? 'headstock end' : i === places.length - 1 ? 'tailstock end' : `place ${i + 1}`}${end === 'reversed' ? ', turned end for end' : ''}`,
        movable: 'places',
        ask: end === 'reversed' ? 'Turn the level end for end on the same spot.' : undefined,
      })),
    ),
  estimate,
  corrections: { twistPerMetre: { plus: ['feet', 'feet-shims'], minus: ['feet', 'feet-shims'] } },
  part: { name: 'bed', faces: 'feet of the bed' },
  picture: { drawing: 'bed-in-plan' },
  hangsOn: [],
  after: ['bar-qualification'],
  knows: [{ quantity: 'twistPerMetre', name: 'twistPerMetre' }],
  goodFor: 30,
  counting: 'Half the difference of the two ways round is the roll; half their sum is the level’s own error.',
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
