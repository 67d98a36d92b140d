// npm run new check NAME | npm run new move NAME: a file that works, its spec, two cases, and its place in every list.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bin, ensurePackages, ROOT, run } from './shell.mjs';

const [what, name] = process.argv.slice(2);
if (!['check', 'move'].includes(what) || !/^[a-z]+(-[a-z]+)*$/.test(name ?? '')) {
  console.error('usage: npm run new check NAME | npm run new move NAME   (NAME in small letters: table-squareness)');
  process.exit(2);
}
const camel = name.replace(/-([a-z])/g, (_, letter) => letter.toUpperCase());
const title = name.replaceAll('-', ' ').replace(/^./, (letter) => letter.toUpperCase());

const path = (file) => join(ROOT, file);
const read = (file) => readFileSync(path(file), 'utf8');
const written = [];

function write(file, text) {
  writeFileSync(path(file), text);
  written.push(file);
}

/** Lines with one more, in the order of the alphabet among those that match. */
function withLine(file, pattern, line) {
  const lines = read(file).split('\n');
  const own = lines.flatMap((text, i) => (pattern.test(text) ? [i] : []));
  const after = own.findLast((i) => lines[i] < line) ?? own[0] - 1;
  lines.splice(after + 1, 0, line);
  write(file, lines.join('\n'));
}

/** The list of names in CONTRIBUTING, with this one. */
function named(label) {
  const text = read('CONTRIBUTING.md');
  const found = new RegExp(`^${label}: (.*)\\.$`, 'm').exec(text);
  const names = [...found[1].split(', '), `\`${name}\``].sort();
  write('CONTRIBUTING.md', text.replace(found[0], `${label}: ${names.join(', ')}.`));
}

const CHECK = `import { defineTraverse } from '../generalTraverse.js';
import { ACROSS } from '../words.js';

/** TODO: what is measured, and why. This measures the slope of a line, read along a travel and again with the reference turned. */
export const ${camel} = defineTraverse({
  id: '${name}',
  title: '${title}',
  question: 'Does the ${title.toLowerCase()} run parallel to the travel?',
  choose: 'After the checks it depends on.',
  machines: ['mill'],
  subject: '${title}',
  words: ACROSS,
  slope: [-50, 50],
  part: { name: '${title.toLowerCase()}', faces: 'faces of the ${title.toLowerCase()}', clamp: 'bolts of the ${title.toLowerCase()}' },
  moves: ['adjuster'],
  picture: { drawing: 'table-in-plan', words: { shows: 'jaw', along: 'x' } },
  hangsOn: ['table-level'],
  cannotSee: ['A part that lifts when it is clamped.'],
  advice: ['Clamp it as it is used, then read it.'],
});
`;

const CHECK_SPEC = `import { solve } from '../../solve/solve.js';

describe('${title}', () => {
  it('by hand: 18 µm over 150 mm is 120 µm/m', () => {
    const readings = [0, 50, 100, 150].flatMap((at) => [0, 180].map((turn) => ({ at, turn, value: (0.12 * at) / 2 })));
    const { quantities } = solve({
      format: 'isometra-sheet/1',
      check: '${name}',
      instrument: { kind: 'plunger', graduation: '2 um', sense: 1 },
      setup: {},
      readings,
    });
    expect(quantities['slope'].value).toBeCloseTo(120, 6);
    expect(quantities['slope'].verdict).toBe('out');
  });
});
`;

const MOVE = `import * as z from 'zod';
import { measure } from '../input/fields.js';
import { bare } from './answer.js';
import { defineMove, type PlanOf } from './define.js';
import { after, ISOLATE, SNUG, turnsInWords, watch, type JobStep, type StepFacts } from './jobSteps.js';

const answer = z.object({ turns: bare('Turns of the screw') });

const steps = (facts: StepFacts<PlanOf<typeof answer>>): JobStep[] => [
  { text: 'Loosen the bolts to snug.', caution: \`\${ISOLATE} \${SNUG}\` },
  watch(facts),
  {
    text: \`Turn the screw \${facts.direction}, \${turnsInWords(facts.plan.turns ?? 0)}, until the needle reads its target.\`,
    needle: true,
  },
  ...after,
];

/**
 * TODO: what is moved, and by what. This moves a part with one screw: turns = amount / pitch.
 *
 * @returns \`turns\`, signed like the amount.
 */
export const ${camel} = defineMove({
  kind: '${name}',
  title: '${title}',
  name: '${title.toLowerCase()}',
  verb: 'Move it',
  amountKey: 'amount',
  signed: true,
  input: z.strictObject({
    amount: measure('deviation', { label: 'Amount', example: '21 um' }),
    pitch: measure('pitch', { label: 'Screw pitch', above: 0, max: 20, example: '1.5 mm' }),
  }),
  answer,
  plan: ({ amount, pitch }) => ({ turns: amount / (pitch * 1000) }),
  does: ({ pitch }, { turns }) => turns * pitch * 1000,
  handFigures: ['turns'],
  steps,
  example: { amount: '21 um', pitch: 1.5 },
});
`;

const MOVE_SPEC = `import { stepsOf } from '../testing/jobs.js';
import { planMove } from './registry.js';

describe('${title}', () => {
  it('by hand: 0.30 mm by a screw of 1.5 mm is a fifth of a turn', () => {
    const plan = planMove({ format: 'isometra-move/1', move: '${name}', amount: '0.30 mm', pitch: 1.5 });
    expect(plan['turns']).toBeCloseTo(0.2, 9);
    expect(stepsOf('${name}', { direction: 'toward you', plan }).some(({ text }) => text.includes('toward you, about 72°'))).toBeTrue();
  });
});
`;

const MODEL = `  '${name}': alongModel('${name}', { slope: 90, wave: 1, length: 150, places: 4 }),`;
const json = (value) => `${JSON.stringify(value, null, 2)}\n`;

/** Two rounds of the forward model, with what is hidden behind them: nothing here was worked out by the solver. */
async function checkCases() {
  ensurePackages();
  run(bin('tsc'), ['-b', 'core']);
  const { practiceRound } = await import(path('core/dist/practice/models.js'));
  const { CHECKS } = await import(path('core/dist/checks/registry.js'));
  [1, 2].forEach((seed, i) => {
    const { sheet, truth } = practiceRound(name, seed);
    const told = Object.entries(truth).map(([key, value]) => [key, { value, unit: CHECKS.get(name).quantities[key].unit, tol: 0.05 }]);
    write(`core/cases-own/checks/${name}-${i}.json`, json({ sheet, expect: { quantities: Object.fromEntries(told), notes: [] } }));
  });
}

function moveCases() {
  [
    { amount: '21 um', pitch: 1.5, turns: 0.014 },
    { amount: '-0.25 mm', pitch: 2, turns: -0.125 },
  ].forEach(({ turns, ...input }, i) => {
    const move = { format: 'isometra-move/1', move: name, ...input };
    write(`core/cases-own/moves/${name}-${i}.json`, json({ move, expect: { kind: name, turns } }));
  });
}

const file = what === 'check' ? `core/src/checks/catalogue/${camel}.ts` : `core/src/moves/${camel}.ts`;
if (existsSync(path(file))) {
  console.error(`${file} is there already`);
  process.exit(2);
}
if (what === 'check') {
  write(file, CHECK);
  write(file.replace(/\.ts$/, '.spec.ts'), CHECK_SPEC);
  withLine('core/src/checks/catalogue/index.ts', /^import \{ \w+ \} from '\.\/\w+\.js';$/, `import { ${camel} } from './${camel}.js';`);
  withLine('core/src/checks/catalogue/index.ts', /^ {2}\w+,$/, `  ${camel},`);
  withLine('core/src/practice/millModels.ts', /^ {2}'[a-z-]+': /, MODEL);
  named('Checks');
  await checkCases();
} else {
  write(file, MOVE);
  write(file.replace(/\.ts$/, '.spec.ts'), MOVE_SPEC);
  withLine('core/src/moves/registry.ts', /^import \{ \w+ \} from '\.\/\w+\.js';$/, `import { ${camel} } from './${camel}.js';`);
  withLine('core/src/moves/registry.ts', /^ {2}\w+,$/, `  ${camel},`);
  named('Moves');
  moveCases();
}
console.log([...new Set(written)].join('\n'));
console.log('Next: npm test -- core, then change what the file measures or moves. npm run formats writes its page.');
