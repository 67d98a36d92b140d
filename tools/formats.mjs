// npm run formats: docs/formats and its JSON Schemas, from the schemas. `--check` fails where they are not current.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { descriptionText } from '../bin/describe.mjs';
import { ensureWork } from './build.mjs';
import { ownFiles, ROOT } from './shell.mjs';

const FOLDER = 'docs/formats';
const FOLDERS = { check: 'checks', move: 'moves', machine: 'machines' };
const HEADINGS = { check: 'Checks', move: 'Moves', machine: 'Kinds of machine' };

ensureWork();
const { described } = await import('@isometra/contract/describe');
const { fileSchema, jsonSchemaOf } = await import('@isometra/core/describe');
const { historySchema } = await import('@isometra/contract');
const { ARCHIVE_FILES, manifestSchema } = await import('@isometra/contract/archive');

const all = described();
const files = new Map();
for (const one of all) {
  const schema = fileSchema(one.name);
  const link = schema ? `\n\nJSON Schema: [${one.name}.json](../schemas/${one.name}.json)` : '';
  files.set(`${FOLDERS[one.kind]}/${one.name}.md`, `${descriptionText(one)}${link}\n`);
  if (schema) files.set(`schemas/${one.name}.json`, `${JSON.stringify(schema, null, 2)}\n`);
}
files.set('schemas/history.json', `${JSON.stringify(jsonSchemaOf(historySchema), null, 2)}\n`);
files.set('schemas/archive-manifest.json', `${JSON.stringify(jsonSchemaOf(manifestSchema), null, 2)}\n`);
for (const [kind, schema] of Object.entries(ARCHIVE_FILES))
  files.set(`schemas/archive-${kind}.json`, `${JSON.stringify(jsonSchemaOf(schema), null, 2)}\n`);
const index = Object.entries(HEADINGS).flatMap(([kind, heading]) => [
  `## ${heading}`,
  all
    .filter((one) => one.kind === kind)
    .map(({ name, title }) => `- [\`${name}\`](${FOLDERS[kind]}/${name}.md) ${title}`)
    .join('\n'),
]);
const about = [
  '# What a file may hold',
  'Every key of every sheet, move and machine card, with its unit, its meaning and an example. `npm run formats` makes these pages from the schemas that read the files; `isometra describe NAME` prints one of them. A [history](schemas/history.json) is made of sheets and moves. An [archive](../archives.md) is a zip of JSON files and photographs, each file with a schema of its own, named after its folder. [Sheets](../sheets.md) tells how the files belong together.',
  'A number without a unit is in the unit of its row; with a unit written behind it (`"0.5 thou"`) any unit will do. A key that is required is required within its group: a card without an `adjuster` needs no `adjuster.pitch`.',
];
files.set('README.md', `${[...about, ...index].join('\n\n')}\n`);

const stale = [...files].filter(([name, text]) => {
  const path = join(ROOT, FOLDER, name);
  return !existsSync(path) || readFileSync(path, 'utf8') !== text;
});
const left = ownFiles(FOLDER).filter((path) => !files.has(path.slice(FOLDER.length + 1)));
if (process.argv.includes('--check')) {
  for (const name of [...stale.map(([one]) => `${FOLDER}/${one}`), ...left]) console.log(`${name} is not current: npm run formats`);
  console.log(`${files.size} pages and schemas, ${stale.length + left.length} not current`);
  process.exitCode = stale.length + left.length ? 1 : 0;
} else {
  for (const path of left) rmSync(join(ROOT, path));
  for (const [name, text] of stale) {
    const path = join(ROOT, FOLDER, name);
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, text);
  }
  console.log(`${stale.length} of ${files.size} written, ${left.length} taken away`);
}
