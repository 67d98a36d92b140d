import * as z from 'zod';
import { optionalMeasure } from '../../input/fields.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Words } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { combineSlopes, levelRun, levelZeroEstimate, zeroFits, zeroTerm } from '../level.js';
import { tooFew } from '../notes.js';
import { unlimited } from '../quantities.js';
import { levelEnd, levelZeroField } from '../setupFields.js';
import { inBothPersons } from '../persons.js';

const setup = z.strictObject({ levelZero: levelZeroField() });
const reading = z.strictObject({
  axis: z.enum(['x', 'y'], { error: 'must be "x" or "y"' }),
  at: optionalMeasure('length', { label: 'Place', example: '0' }),
  end: levelEnd(),
});

type Setup = z.output<typeof setup>;

function estimate({ setup, slots }: CheckInput<Setup, z.output<typeof reading>>): Estimates {
  const runs = (['x', 'y'] as const).map((axis) => ({ axis, run: levelRun(slots, setup.levelZero, ({ keys }) => keys.axis === axis) }));
  const zeros = levelZeroEstimate(runs.map(({ run }) => run));
  const levels = runs.flatMap(({ axis, run }) => {
    const { length } = run.stations;
    if (length === 0) return [];
    // The level's zero is the same along both axes: what one of them has found serves the other.
    const learned = run.learned ?? runs.find((other) => other.run.learned)?.run.learned;
    const { weights, constant } = combineSlopes(
      { ...run, learned },
      run.stations.map(() => 1 / length),
      slots.length,
    );
    return [linearEstimate(axis === 'x' ? 'levelX' : 'levelY', weights, { terms: zeroTerm(constant), open: run.open })];
  });
  const notes = runs.every(({ run }) => run.learned === undefined) ? runs.flatMap(({ run }) => run.notes).slice(0, 1) : [];
  return {
    estimates: [...levels, ...zeros],
    notes: levels.length ? notes : [tooFew('the level once along each axis')],
    fits: zeroFits(
      runs.map(({ run }) => run),
      ['levelX', 'levelY', 'levelZero'],
    ),
  };
}

const words = (plus: string, minus: string): Words => ({
  plus: `${plus} high`,
  minus: `${minus} high`,
  movePlus: `raise the ${plus}`,
  moveMinus: `lower the ${plus}`,
});

export const tableLevel = defineCheck({
  id: 'table-level',
  family: 'level',
  title: 'Table level',
  question: 'Is the table level?',
  choose: 'First of all on a mill: not for the work, but so that the machine sits without strain and reads the same tomorrow.',
  machines: ['mill'],
  setup,
  reading,
  plan: z.strictObject({}),
  conditions: z.strictObject({}),
  slotKeys: ['axis', 'at', 'end'],
  reads: 'level',
  quantities: {
    levelX: {
      label: 'Table along x',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-40, 40],
      words: words('right side', 'left side'),
    },
    levelY: {
      label: 'Table along y',
      dimension: 'slope',
      unit: 'um/m',
      limit: [-40, 40],
      words: inBothPersons(({ whose }) => words('column side', `${whose} side`)),
    },
    levelZero: unlimited('Zero error of the level', 'slope', 'um/m'),
  },
  slots: () =>
    (['x', 'y'] as const).flatMap((axis) =>
      (['forward', 'reversed'] as const).map((end) => ({
        keys: { axis, end },
        label: `Along ${axis}${end === 'reversed' ? ', turned end for end' : ''}`,
        ask: end === 'reversed' ? 'Turn the level end for end on the same spot.' : undefined,
      })),
    ),
  estimate,
  corrections: { levelX: { plus: ['feet'], minus: ['feet'] }, levelY: { plus: ['feet'], minus: ['feet'] } },
  part: { name: 'machine', faces: 'feet of the machine' },
  picture: { drawing: 'table-in-plan', words: { shows: 'level' } },
  hangsOn: [],
  after: ['stiffness'],
  goodFor: 30,
  counting: 'Half the difference of the two ways round.',
  cautions: [ISOLATE, 'Keep every foot bearing: a machine on three feet can tip.'],
  cannotSee: ['Whether the axes are square.'],
  advice: ['Level in the middle of the table, axes in the middle of their travel.'],
});
