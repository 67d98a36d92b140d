// Builds what has changed: core, contract, work and server with tsc, the web application with the Angular builder.
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { bin, ensurePackages, ROOT, run, unlessDone } from './shell.mjs';

const SHARED = ['tsconfig.base.json', 'package-lock.json'];

/** The core alone: what the command line needs. */
export function ensureCore() {
  ensurePackages();
  unlessDone('core', ['core/dist/index.js'], [...SHARED, 'core'], () => run(bin('tsc'), ['-b', 'core']));
}

/** The core and what a shop knows on top of it: what stories of a machine need. */
export function ensureWork() {
  ensurePackages();
  const parts = ['core', 'contract', 'work'];
  const made = parts.map((name) => `${name}/dist/index.js`);
  unlessDone('work', made, [...SHARED, ...parts], () => run(bin('tsc'), ['-b', 'work']));
}

/** The server and what it stands on, without the web application. */
export function ensureServer() {
  ensurePackages();
  const parts = ['core', 'contract', 'work', 'server'];
  const made = parts.map((name) => `${name}/dist/${name === 'server' ? 'main' : 'index'}.js`);
  unlessDone('server', made, [...SHARED, ...parts], () => {
    console.error('Building core, contract, work and server …');
    run(bin('tsc'), ['-b', ...parts]);
  });
}

/** Everything that is served. */
export function buildAll() {
  ensureServer();
  unlessDone('web', ['web/dist/browser/index.html'], [...SHARED, 'core/src', 'contract/src', 'work/src', 'web'], () => {
    console.error('Building the web application …');
    run(bin('ng'), ['build'], { cwd: join(ROOT, 'web'), env: { ...process.env, NG_CLI_ANALYTICS: 'false' } });
  });
}

if (process.argv[1] === fileURLToPath(import.meta.url)) buildAll();
