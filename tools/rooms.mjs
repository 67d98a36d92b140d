// npm run rooms: docs/rooms.md, a picture of the rooms of each package and of the packages, from the imports.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { cruise } from 'dependency-cruiser';
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config';
import { ROOT } from './shell.mjs';

const PACKAGES = ['core', 'contract', 'work', 'server', 'web'];
const ABOUT = {
  core: 'The metrology: no interface, no clock, no I/O.',
  work: 'What is known of a machine and its campaign, as pure functions over what happened.',
  server: 'The API over MariaDB.',
  web: 'The screens. Every screen uses `ui` and `data`; arrows to those two are left out.',
};
/** Rooms that every other one of their package leans on: their arrows would hide the others. */
const EVERYWHERE = { web: ['ui', 'data'] };

process.chdir(ROOT);
const { output } = await cruise(
  PACKAGES.map((name) => `${name}/src`),
  {
    exclude: '\\.spec\\.ts$|/testing/|/dist/',
    doNotFollow: 'node_modules',
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.arrows.json' },
  },
  { exportsFields: ['exports'], conditionNames: ['types', 'import', 'default'] },
  { tsConfig: extractTSConfig('tsconfig.arrows.json') },
);

/** The room of a file: its folder within its package. */
function roomOf(path) {
  const [, name, rest] = /^(\w+)\/src\/(?:app\/)?(.+)$/.exec(path) ?? [];
  return rest?.includes('/') ? { name, room: rest.split('/')[0] } : { name, room: undefined };
}

const arrows = output.modules.flatMap(({ source, dependencies }) =>
  dependencies.map(({ resolved }) => ({ from: roomOf(source), to: roomOf(resolved) })),
);

/** Each arrow once, without those that a longer way shows. */
function reduced(pairs) {
  const next = new Map();
  for (const [from, to] of pairs) if (from !== to) next.set(from, (next.get(from) ?? new Set()).add(to));
  const reaches = (from, to, seen = new Set()) =>
    [...(next.get(from) ?? [])].some((by) => by === to || (!seen.has(by) && (seen.add(by), reaches(by, to, seen))));
  return [...next].flatMap(([from, all]) =>
    [...all].filter((to) => ![...all].some((by) => by !== to && reaches(by, to) && !reaches(to, by))).map((to) => [from, to]),
  );
}

const picture = (pairs) => ['```mermaid', 'flowchart TD', ...pairs.map(([from, to]) => `  ${from} --> ${to}`).sort(), '```'].join('\n');
const within = (name) => {
  const hidden = EVERYWHERE[name] ?? [];
  const own = arrows.filter(({ from, to }) => from.name === name && to.name === name && from.room && to.room);
  return picture(reduced(own.map(({ from, to }) => [from.room, to.room]).filter(([, to]) => !hidden.includes(to))));
};
const packages = picture(reduced(arrows.filter(({ from, to }) => from.name && to.name).map(({ from, to }) => [from.name, to.name])));

const page = [
  '# Rooms',
  'Made by `npm run rooms` from the imports. An arrow means "uses"; one that a longer way shows already is left out. dependency-cruiser breaks the build when an arrow turns round.',
  '## Packages',
  packages,
  ...Object.entries(ABOUT).flatMap(([name, about]) => [`## ${name}`, about, within(name)]),
].join('\n\n');
writeFileSync(join(ROOT, 'docs/rooms.md'), `${page}\n`);
