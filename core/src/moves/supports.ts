import { solve, type Constraint } from 'yalps';
import * as z from 'zod';
import { fieldRegistry, quantitySchema } from '../input/fields.js';
import { figure, maybe } from './answer.js';
import { defineMove, refuse, type PlanOf } from './define.js';
import { ISOLATE, isZero, watch, type JobStep, type StepFacts } from './jobSteps.js';
import { displacement, FRAMES, supportRow, type Frame, type Pose, type Vector } from './pose.js';

/** More than any machine: what is beyond is a typing mistake. */
const FARTHEST = 1e6;
const coordinate = z
  .number({ error: 'must be a number of mm' })
  .refine((mm) => Math.abs(mm) <= FARTHEST, { message: `must be within ${FARTHEST} mm`, params: { example: '120' } });
const vector = z.tuple([coordinate, coordinate, coordinate], { error: 'must be three numbers' });

/** One face that a casting sits on: place mm, unit normal from the base into the body, what may be done to it. */
export const supportSchema = z.strictObject({
  id: z.string({ error: 'must be a text' }).min(1).max(60),
  at: vector,
  normal: vector.refine((normal) => Math.abs(Math.hypot(...normal) - 1) < 1e-3, {
    message: 'must be a unit vector, from the base into the body',
    params: { example: '[0, 1, 0]' },
  }),
  allow: z.enum(['shim', 'scrape', 'either'], { error: 'must be "shim", "scrape" or "either"' }),
  max: quantitySchema('deviation', { min: 0 }, '400 um').optional(),
  area: z.number({ error: 'must be a number of mm²' }).positive().optional(),
});

export type Support = z.output<typeof supportSchema>;

interface Problem {
  readonly frame: Frame;
  readonly supports: readonly Support[];
  /** One row of six sensitivities for each support. */
  readonly rows: readonly (readonly number[])[];
  readonly prefer: 'least-metal' | 'least-depth';
}

/** Components that no support resists stay 0: nothing tells where they would go. */
const resisted = (rows: Problem['rows'], component: number): boolean => rows.some((row) => Math.abs(row[component]) > 1e-9);

/**
 * Whether the supports hold a component at all: it lies among what their faces resist, alone or together. What no
 * face resists can be pushed about and is not had by scraping.
 */
function held(rows: Problem['rows'], component: number): boolean {
  const scale = Math.max(1e-12, ...rows.flatMap((row) => row.slice(3).map(Math.abs)));
  const even = rows.map((row) => row.map((entry, i) => (i < 3 ? entry : entry / scale)));
  const wanted = Array.from({ length: 6 }, (_, i) => (i === component ? 1 : 0));
  return rankOf([...even, wanted]) === rankOf(even);
}

/** Rank of some rows of six, by elimination. */
function rankOf(rows: readonly (readonly number[])[]): number {
  const left = rows.map((row) => [...row]);
  let rank = 0;
  for (let column = 0; column < 6 && rank < left.length; column++) {
    let pivot = rank;
    for (let r = rank + 1; r < left.length; r++) if (Math.abs(left[r][column]) > Math.abs(left[pivot][column])) pivot = r;
    if (Math.abs(left[pivot][column]) < 1e-7) continue;
    [left[rank], left[pivot]] = [left[pivot], left[rank]];
    for (let r = rank + 1; r < left.length; r++) {
      const factor = left[r][column] / left[rank][column];
      for (let c = column; c < 6; c++) left[r][c] -= factor * left[rank][c];
    }
    rank++;
  }
  return rank;
}

/** Name of the free variables of a component: a linear program knows none below zero. */
const up = (component: number): string => `+${component}`;
const down = (component: number): string => `-${component}`;

/**
 * The cheapest pose that holds the wanted components, as a linear program: amounts split into shim
 * and scrape, `row·pose − shim + scrape = 0` for each support.
 */
function cheapest({ supports, rows, prefer }: Problem, wanted: ReadonlyMap<number, number>): Pose | undefined {
  const constraints = new Map<string, Constraint>();
  const variables = new Map<string, Map<string, number>>();
  const put = (variable: string, row: string, value: number): void => {
    const column = variables.get(variable) ?? new Map<string, number>();
    column.set(row, (column.get(row) ?? 0) + value);
    variables.set(variable, column);
  };
  rows.forEach((row, k) => {
    const { allow, area = 1, max } = supports[k];
    const known = row.reduce((sum, sensitivity, component) => sum + sensitivity * (wanted.get(component) ?? 0), 0);
    constraints.set(`s${k}`, { equal: -known });
    row.forEach((sensitivity, component) => {
      if (wanted.has(component) || !resisted(rows, component)) return;
      put(up(component), `s${k}`, sensitivity);
      put(down(component), `s${k}`, -sensitivity);
    });
    for (const [kind, sign] of [
      ['shim', -1],
      ['scrape', 1],
    ] as const) {
      if (allow !== 'either' && allow !== kind) continue;
      const variable = `${kind}${k}`;
      put(variable, `s${k}`, sign);
      put(variable, 'cost', prefer === 'least-metal' ? area : area * 1e-9);
      if (max !== undefined) {
        constraints.set(`max ${variable}`, { max });
        put(variable, `max ${variable}`, 1);
      }
      if (prefer === 'least-depth') {
        constraints.set(`deep ${variable}`, { max: 0 });
        put(variable, `deep ${variable}`, 1);
        put('depth', `deep ${variable}`, -1);
      }
    }
  });
  if (prefer === 'least-depth') put('depth', 'cost', 1);
  const solution = solve(
    { direction: 'minimize', objective: 'cost', constraints, variables },
    { precision: 1e-9, tolerance: 0, includeZeroVariables: false },
  );
  if (solution.status !== 'optimal') return undefined;
  const values = new Map(solution.variables);
  const of = (component: number): number => wanted.get(component) ?? (values.get(up(component)) ?? 0) - (values.get(down(component)) ?? 0);
  return [of(0), of(1), of(2), of(3), of(4), of(5)];
}

const TINY = 1e-7;
const clean = (value: number): number => (Math.abs(value) < TINY ? 0 : value);

function described({ frame, supports, rows }: Problem, pose: Pose, origin: Vector, watch: readonly { id: string; at: Vector }[]) {
  const { axes, components } = FRAMES[frame];
  const amounts = rows.map((row) => clean(row.reduce((sum, sensitivity, i) => sum + sensitivity * pose[i], 0)));
  return {
    supports: Object.fromEntries(supports.map(({ id }, k) => [id, amounts[k]])),
    pose: Object.fromEntries(components.map(([name, sign], i) => [name, clean(sign * pose[i])])),
    watch: Object.fromEntries(
      watch.map(({ id, at }) => {
        const moved = displacement(pose, [at[0] - origin[0], at[1] - origin[1], at[2] - origin[2]]);
        return [id, Object.fromEntries(axes.map((axis, i) => [axis, clean(moved[i])]))];
      }),
    ),
    cost: supports.reduce((sum, { area = 1 }, k) => sum + area * Math.abs(amounts[k]), 0),
  };
}

/** The wanted components that leave the cheapest plan when one, or failing that two, are given up. */
function withoutObstacle(problem: Problem, wanted: ReadonlyMap<number, number>): { dropped: number[]; pose: Pose } | undefined {
  const names = [...wanted.keys()];
  const pairs = names.flatMap((a, i) => names.slice(i + 1).map((b) => [a, b]));
  for (const tries of [names.map((name) => [name]), pairs, [names]]) {
    const plans = tries.flatMap((dropped) => {
      const pose = cheapest(problem, new Map([...wanted].filter(([name]) => !dropped.includes(name))));
      return pose
        ? [{ dropped, pose, missed: dropped.reduce((sum, name) => sum + Math.abs((wanted.get(name) ?? 0) - pose[name]), 0) }]
        : [];
    });
    const [best] = plans.sort((a, b) => a.missed - b.missed);
    if (best) return best;
  }
  return undefined;
}

const answer = z.object({
  feasible: z.boolean().register(fieldRegistry, { label: 'Whether what is wanted is possible' }),
  obstacle: z.string().nullish().register(fieldRegistry, { label: 'What stands in the way, where it is not' }),
  notHeld: z.boolean().optional().register(fieldRegistry, { label: 'No face holds what stands in the way' }),
  supports: z
    .record(z.string(), figure('deviation', 'Amount, + shim, − scrape'))
    .optional()
    .register(fieldRegistry, { label: 'What is done to each support, by its id' }),
  pose: z.record(z.string(), z.number()).optional().register(fieldRegistry, { label: 'All six components of the pose that results' }),
  watch: z
    .record(z.string(), z.record(z.string(), z.number()))
    .optional()
    .register(fieldRegistry, { label: 'How far the watched points move, µm along each axis' }),
  cost: maybe('deviation', 'Sum of area · amount'),
});

/** What is done to each face, those that are left alone at the end. */
function faceWords({ supports = {} }: PlanOf<typeof answer>, size: (um: number) => string): string[] {
  const told = Object.entries(supports).map(([id, amount]) => ({ id, amount, words: size(Math.abs(amount)) }));
  const left = told.filter(({ words }) => isZero(words)).map(({ id }) => id);
  return [
    ...told.filter(({ words }) => !isZero(words)).map(({ id, amount, words }) => `${id}: ${amount < 0 ? 'scrape' : 'shim'} ${words}`),
    ...(left.length ? [`leave ${left.join(', ')} as ${left.length > 1 ? 'they are' : 'it is'}`] : []),
  ];
}

const supportSteps = (facts: StepFacts<PlanOf<typeof answer>>): JobStep[] => [
  { text: 'Mark which way everything sat. Slacken the belt and take off everything mounted on the casting.', caution: ISOLATE },
  {
    text: 'Take the weight with rated gear, draw the bolts and lift it clear. Block it where it is worked on.',
    caution: 'Headstocks and columns are lifted with rated gear, never by hand over an edge; a hand never goes under.',
  },
  { text: 'Clean and deburr both faces. A burr under a face is a shim.' },
  ...(facts.plan.supports
    ? faceWords(facts.plan, facts.words.size).map((face, i) => ({
        text: face.charAt(0).toUpperCase() + face.slice(1) + '.',
        ...(i === 0 && { caution: 'Scrapers and shim edges cut; cast-iron dust and solvents: gloves, eyes, air.' }),
      }))
    : [{ text: `Work the faces until it stands ${facts.size} ${facts.direction}.`, caution: 'Scrapers cut: gloves, eyes, air.' }]),
  { text: 'Lay it back on clean faces, bolts snug and no more. Press every corner: it must not rock.' },
  watch(facts),
  { text: 'Tap or jack it over along its faces until the needle reads its target; a soft mallet, by hand.', needle: true },
  { text: 'Tighten in order, from the middle outward, a little each; read again after each bolt and log the shift.', shift: true },
  {
    text: 'What is forgotten: the belt on before the caps, seals under the bolts, oil holes clear, gear mesh felt with a strip of paper, guards back.',
  },
  { text: 'Take a new round under the same conditions, bar in and the spindle turned by hand.' },
];

/** The components of a pose that are wanted, by their index, µm or µm/m. */
function wantedPose(frame: 'lathe' | 'mill', want: Readonly<Record<string, unknown>>): ReadonlyMap<number, number> {
  const { components } = FRAMES[frame];
  const wanted = new Map<number, number>();
  for (const [name, raw] of Object.entries(want)) {
    const index = components.findIndex(([known]) => known === name);
    if (index < 0)
      refuse(
        `want.${name}`,
        `is not a pose component of a ${frame}; there are ${components.map(([known]) => known).join(', ')}`,
        components[4][0],
      );
    const parsed = quantitySchema(index < 3 ? 'deviation' : 'slope', { min: -FARTHEST, max: FARTHEST, workedOut: true }).safeParse(raw);
    if (!parsed.success) refuse(`want.${name}`, parsed.error.issues[0].message, index < 3 ? '20 um' : '30 um/m');
    else wanted.set(index, components[index][1] * parsed.data);
  }
  return wanted;
}

/**
 * Anything that sits on several faces: which faces to scrape or shim for a wanted change of its pose.
 * Finds t, ω and sₖ with nₖ·(t + ω × (pₖ − p₀)) = sₖ for every support, at least cost.
 *
 * @returns amounts per support (+ shim, − scrape, µm), all six pose components, the watched points;
 *   when it cannot be had, the component that stands in the way and the plan without it.
 */
export const supports = defineMove({
  kind: 'supports',
  title: 'Scrape or shim its supports',
  name: 'scrape or shim its supports',
  verb: 'Turn it',
  metal: true,
  answer,
  input: z.strictObject({
    frame: z.enum(['lathe', 'mill'], { error: 'must be "lathe" or "mill"' }),
    origin: vector,
    supports: z.array(supportSchema, { error: 'must be a list of supports' }).min(1, { error: 'must name one support at least' }).max(200),
    want: z.record(z.string(), z.unknown(), { error: 'must be an object of pose components' }),
    watch: z.array(z.strictObject({ id: z.string().min(1).max(60), at: vector })).optional(),
    prefer: z.enum(['least-metal', 'least-depth'], { error: 'must be "least-metal" or "least-depth"' }).optional(),
  }),
  fill: ({ amounts, given }) => {
    const known: readonly string[] = FRAMES[given['frame'] === 'mill' ? 'mill' : 'lathe'].components.map(([name]) => name);
    // The check's own quantities are wanted together: what is in must not be moved by putting the other right.
    const own = Object.fromEntries(Object.entries(amounts).filter(([name]) => known.includes(name)));
    return { want: { ...own, ...(given['want'] as Record<string, unknown> | undefined) } };
  },
  plan: ({ frame, origin, supports, want, watch = [], prefer = 'least-metal' }) => {
    const { components } = FRAMES[frame];
    const wanted = wantedPose(frame, want);
    const ids = supports.map((entry) => entry.id);
    const twice = ids.find((id, i) => ids.indexOf(id) !== i);
    if (twice !== undefined) refuse('supports', `has two supports called "${twice}"`, 'one id for each');
    const rows = supports.map(({ at, normal }) => supportRow(normal, [at[0] - origin[0], at[1] - origin[1], at[2] - origin[2]]));
    const problem: Problem = { frame, supports, rows, prefer };
    const loose = [...wanted].filter(([component, amount]) => amount !== 0 && !held(rows, component)).map(([component]) => component);
    if (loose.length) {
      const rest = new Map([...wanted].filter(([component]) => !loose.includes(component)));
      const nearest = cheapest(problem, rest) ?? withoutObstacle(problem, rest)?.pose;
      const obstacle = loose.map((component) => components[component][0]).join(', ');
      return { feasible: false, obstacle, notHeld: true, ...(nearest && described(problem, nearest, origin, watch)) };
    }
    const pose = cheapest(problem, wanted);
    if (pose) return { feasible: true, ...described(problem, pose, origin, watch) };
    const near = withoutObstacle(problem, wanted);
    return {
      feasible: false,
      obstacle: near?.dropped.map((index) => components[index][0]).join(', ') ?? null,
      ...(near && described(problem, near.pose, origin, watch)),
    };
  },
  steps: supportSteps,
  example: {
    frame: 'mill',
    origin: [0, 0, 0],
    supports: [
      { id: 'front', at: [0, -100, 0], normal: [0, 0, 1], allow: 'either' },
      { id: 'rear', at: [0, 100, 0], normal: [0, 0, 1], allow: 'either' },
    ],
    want: { leanY: '40 um/m' },
  },
});
