// Builds what has changed: core, contract, work and server with tsc, the web application with the Angular builder.
import { fileURLToPath } from 'node:url';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { bin, ensurePackages, ROOT, run, unlessDone } from './shell.mjs';

const SHARED = ['tsconfig.base.json', 'package-lock.json'];

/** The core alone: what the command line needs. */
export function ensureCore() {
  ensurePackages();
  const missing = !existsSync(join(ROOT, 'core/dist/index.js'));
  unlessDone(missing ? 'core-missing' : 'core', [...SHARED, 'core'], () => run(bin('tsc'), ['-b', 'core']));
}

/** Everything that is served. */
export function buildAll() {
  ensurePackages();
  const needed = (path) => (existsSync(join(ROOT, path)) ? '' : '-missing');
  unlessDone(`server${needed('server/dist/main.js')}`, [...SHARED, 'core', 'contract', 'work', 'server'], () => {
    console.error('Building core, contract, work and server …');
    run(bin('tsc'), ['-b', 'core', 'contract', 'work', 'server']);
  });
  unlessDone(`web${needed('web/dist/browser/index.html')}`, [...SHARED, 'core/src', 'contract/src', 'work/src', 'web'], () => {
    console.error('Building the web application …');
    run(bin('ng'), ['build'], { cwd: join(ROOT, 'web'), env: { ...process.env, NG_CLI_ANALYTICS: 'false' } });
  });
}

if (process.argv[1] === fileURLToPath(import.meta.url)) buildAll();
