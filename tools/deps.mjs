// npm run deps: what the project is built on. Licences, packages that nothing imports, and newer versions that there are.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ownFiles, ROOT } from './shell.mjs';

/** Licences under which a package may be delivered with the application; OFL for its fonts. */
const FREE =
  /^\(?(MIT|MIT-0|ISC|BSD-[23]-Clause|0BSD|Apache-2\.0|BlueOak-1\.0\.0|CC0-1\.0|CC-BY-[34]\.0|Unlicense|Python-2\.0|OFL-1\.1|LGPL-2\.1-or-later)( (OR|AND) [\w.-]+)*\)?$/;
/** Likewise, for what only tests and builds use. */
const FREE_IN_TESTS = /^MPL-2\.0$/;
/** Whose licence is told in words, with what they come to. */
const READ = { primeng: 'MIT', busboy: 'MIT', streamsearch: 'MIT', 'png-js': 'MIT' };
/** Needed without being imported: run by name, read from a configuration, or asked for by another package. */
const BY_NAME = new Set([
  'typescript',
  'prettier',
  'jasmine',
  'tslib',
  'zone.js',
  'dependency-cruiser',
  '@angular/compiler',
  '@angular/compiler-cli',
  'jasmine-core',
  '@angular/cli',
  '@angular/build',
  'mariadb',
]);

const json = (path) => JSON.parse(readFileSync(join(ROOT, path), 'utf8'));
const lock = json('package-lock.json').packages;

/** What a package says of its licence, as it is installed or as the lock has it. */
function licenceOf(path, license) {
  const own = existsSync(join(ROOT, path, 'package.json')) ? json(`${path}/package.json`) : {};
  return READ[own.name] ?? license ?? own.license?.type ?? own.license ?? 'not stated';
}

function licences() {
  const found = {};
  const odd = [];
  for (const [path, { link, license, dev }] of Object.entries(lock)) {
    if (!path.includes('node_modules/') || link) continue;
    const name = licenceOf(path, license);
    found[name] = (found[name] ?? 0) + 1;
    if (!FREE.test(name) && !(dev && FREE_IN_TESTS.test(name)))
      odd.push(`${path.replace(/^.*node_modules\//, '')} (${name}${dev ? ', development only' : ''})`);
  }
  console.log('Licences');
  for (const [name, count] of Object.entries(found).sort(([, a], [, b]) => b - a)) console.log(`  ${String(count).padStart(5)}  ${name}`);
  return odd;
}

/** Packages that a workspace names and nothing in it mentions. */
function unused() {
  const files = ownFiles().filter(
    (file) => /\.(ts|mts|mjs|cjs|js|json|html|css)$/.test(file) && !file.endsWith('package.json') && !file.endsWith('package-lock.json'),
  );
  const texts = new Map(files.map((file) => [file, readFileSync(join(ROOT, file), 'utf8')]));
  const workspaces = ['', ...json('package.json').workspaces.map((name) => `${name}/`)];
  return workspaces.flatMap((folder) => {
    const { dependencies = {}, devDependencies = {} } = json(`${folder}package.json`);
    const own = [...texts].filter(([file]) => file.startsWith(folder)).map(([, text]) => text);
    return Object.keys({ ...dependencies, ...devDependencies })
      .filter((name) => !BY_NAME.has(name) && !name.startsWith('@types/'))
      .filter((name) => !own.some((text) => text.includes(`'${name}`) || text.includes(`"${name}`) || text.includes(`${name}/`)))
      .map((name) => `${name} in ${folder || 'the root'}package.json`);
  });
}

function outdated() {
  const asked = spawnSync('npm', ['outdated', '--json', '--workspaces', '--include-workspace-root'], { cwd: ROOT, encoding: 'utf8' });
  const found = JSON.parse(asked.stdout || '{}');
  return Object.entries(found).map(([name, entry]) => {
    const { current, latest } = Array.isArray(entry) ? entry[0] : entry;
    return `${name} ${current ?? 'not installed'}, latest ${latest}`;
  });
}

const list = (heading, lines) => console.log(`\n${heading}\n${lines.length ? lines.map((line) => `  ${line}`).join('\n') : '  none'}`);
const [odd, idle] = [licences(), unused()];
list('Licences to look at', odd);
list('Named, but never imported', idle);
list('Newer versions', outdated());
process.exitCode = odd.length + idle.length ? 1 : 0;
