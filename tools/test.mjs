// npm test: everything, from lint to end-to-end, on databases that are thrown away. Ends with "N passed, N failed".
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { throwAwayDatabase } from './database.mjs';
import { bin, ensurePackages, ensureProgram, forgetOldBuilds, ROOT } from './shell.mjs';

const WORKSPACES = ['core', 'contract', 'work', 'server', 'web'];

const only = process.argv.slice(2).filter((argument) => !argument.startsWith('--'));
/** `--slow-api`: every answer of the API late and out of order. `--busy`: three busy loops beside the stories. */
const [slowApi, busy] = ['--slow-api', '--busy'].map((flag) => process.argv.includes(flag));
/** The shortest stories: in a full run they meet the slow API. */
const SHORT = '@short';
const totals = { passed: 0, failed: 0 };
/** What failed, with what it printed: told once more at the end, where a long run is looked at first. */
const broken = [];
/** Lines of each that are repeated. */
const REPEATED = 80;

/** Run a command, pass its output on, at once or (`held`) in one piece at its end, and hand it back. */
function stream(command, args, { held = false, ...options } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    const take = (chunk) => {
      output += chunk;
      if (!held) process.stdout.write(chunk);
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    child.once('close', (code) => resolve({ code, output }));
    child.once('error', (error) => resolve({ code: 1, output: error.message }));
  });
}

/** How each runner's closing line is read: passed and failed. */
const COUNTS = {
  single: (_output, code) => (code === 0 ? [1, 0] : [0, 1]),
  jasmine: (output) => {
    const found = /(\d+) specs?, (\d+) failures?/.exec(output);
    return found ? [Number(found[1]) - Number(found[2]), Number(found[2])] : [0, 0];
  },
  karma: (output) => {
    const found = [...output.matchAll(/Executed (\d+) of \d+(?: \((\d+) FAILED\))?/g)].pop();
    return found ? [Number(found[1]) - Number(found[2] ?? 0), Number(found[2] ?? 0)] : [0, 0];
  },
  playwright: (output) => [Number(/(\d+) passed/.exec(output)?.[1] ?? 0), Number(/(\d+) failed/.exec(output)?.[1] ?? 0)],
};

async function suite(name, kind, command, args, options) {
  if (only.length && !only.includes(name)) return;
  const start = Date.now();
  if (!options.held) console.log(`\n── ${name}`);
  const { code, output } = await stream(command, args, options);
  if (options.held) console.log(`\n── ${name}\n${output.trimEnd()}`);
  // eslint-disable-next-line no-control-regex
  let [passed, failed] = COUNTS[kind](output.replace(/\x1b\[[0-9;]*[A-Za-z]/g, ''), code);
  if (code !== 0 && failed === 0) failed = 1;
  if (code === 0 && passed === 0) [passed, failed] = [0, 1];
  totals.passed += passed;
  totals.failed += failed;
  if (failed) broken.push({ name, output });
  console.log(`── ${name}: ${passed} passed, ${failed} failed (${((Date.now() - start) / 1000).toFixed(0)} s)`);
}

/** Three processes that do nothing but keep the machine busy. */
const busyLoops = () => Array.from({ length: 3 }, () => spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }));

/** The specs of the server, on a database that is thrown away. */
async function onServer(env) {
  if (only.length && !only.includes('server')) return;
  // Reports are read back by two programs that did not write them.
  ensureProgram(['pdftotext'], 'poppler-utils', 'Reading reports back');
  ensureProgram(['qpdf'], 'qpdf', 'Reading reports back');
  ensureProgram(['zbarimg'], 'zbar-tools', 'Reading the codes of labels back');
  const database = await throwAwayDatabase();
  try {
    const onIt = { ...env, TEST_DATABASE_URL: database.url };
    await suite('server', 'jasmine', bin('jasmine'), ['--config=server/jasmine.json'], { env: onIt });
  } finally {
    await database.stop();
  }
}

async function main() {
  ensurePackages();
  const chromium = ensureProgram(['chromium', 'chromium-browser'], 'chromium', 'Testing the screens');
  const env = { ...process.env, CHROME_BIN: chromium, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0' };
  forgetOldBuilds();
  // Two lines of work at a time, because most of it leaves a core idle: what the program computes and keeps, told as it runs; and
  // beside it how it is written and what it shows, told in one piece each.
  const beside = { env, held: true };
  const types = suite('types', 'single', bin('tsc'), ['-b'], { env });
  const computed = async () => {
    await types;
    await suite('core', 'jasmine', bin('jasmine'), ['--config=core/jasmine.json', '--parallel=2'], { env });
    await suite('work', 'jasmine', bin('jasmine'), ['--config=work/jasmine.json'], { env });
    await onServer(env);
  };
  const shown = async () => {
    await suite('lint', 'single', bin('eslint'), ['.', '--max-warnings', '0'], beside);
    await suite('words', 'single', process.execPath, ['tools/words.mjs', '--check'], beside);
    const rooms = WORKSPACES.map((name) => `${name}/src`);
    await suite('arrows', 'single', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', ...rooms], beside);
    await types;
    await suite('formats', 'single', process.execPath, ['tools/formats.mjs', '--check'], beside);
    await suite('web', 'karma', bin('ng'), ['test', '--watch=false'], { ...beside, cwd: join(ROOT, 'web') });
    if (only.length && !only.includes('e2e')) return;
    const built = await stream(process.execPath, ['tools/build.mjs'], beside);
    if (built.code) throw new Error(`The screens could not be built:\n${built.output}`);
  };
  await Promise.all([computed(), shown()]);
  const loops = busy ? busyLoops() : [];
  const stories = (slow) => ({ cwd: join(ROOT, 'e2e'), env: { ...env, ...(slow && { SLOW_API: '1' }) } });
  // In a full run the shortest stories meet an API that answers late and out of order; the others run on it as it is.
  const full = !only.length && !slowApi;
  await suite('e2e', 'playwright', bin('playwright'), ['test', ...(full ? ['--grep-invert', SHORT] : [])], stories(slowApi));
  if (full) await suite('e2e, slow API', 'playwright', bin('playwright'), ['test', '--grep', SHORT], stories(true));
  for (const loop of loops) loop.kill();
}

await main().catch((error) => {
  console.error(error.message);
  totals.failed += 1;
});
for (const { name, output } of broken) console.log(`\n── failed: ${name}\n${output.trimEnd().split('\n').slice(-REPEATED).join('\n')}`);
console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exitCode = totals.failed ? 1 : 0;
