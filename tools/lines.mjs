// npm run lines: lines of code and the share of tests, blank lines not counted.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ownFiles, ROOT } from './shell.mjs';

const CODE = /\.(ts|mjs|cjs|js|css|scss|html)$/;
const TEST = /\.spec\.ts$|^e2e\//;

const files = ownFiles().filter((file) => CODE.test(file));
const groups = {};
for (const file of files) {
  const lines = readFileSync(join(ROOT, file), 'utf8')
    .split('\n')
    .filter((line) => line.trim()).length;
  const group = (groups[file.split('/')[0]] ??= { code: 0, tests: 0 });
  group[TEST.test(file) ? 'tests' : 'code'] += lines;
}
const total = Object.values(groups).reduce((sum, group) => ({ code: sum.code + group.code, tests: sum.tests + group.tests }), {
  code: 0,
  tests: 0,
});
for (const [name, { code, tests }] of Object.entries({ ...groups, total })) {
  console.log(
    `${name.padEnd(18)} ${String(code).padStart(7)} code ${String(tests).padStart(7)} tests ${String(Math.round((100 * tests) / (code + tests))).padStart(4)} %`,
  );
}
