// The whole application on a database that is thrown away: for end-to-end tests, screenshots and the bench.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { freePort, throwAwayDatabase } from './database.mjs';
import { ROOT } from './shell.mjs';

/**
 * Start server and database.
 * @returns its address; `stopServer` and `startServer` to lose the server and bring it back on the same data; `stop` ends all.
 */
export async function serve({ demo }) {
  const database = await throwAwayDatabase();
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  let server;

  const startServer = () =>
    new Promise((resolve, reject) => {
      server = spawn(process.execPath, [join(ROOT, 'server/dist/main.js')], {
        stdio: ['ignore', 'pipe', 'inherit'],
        env: {
          ...process.env,
          PORT: String(port),
          DATABASE_URL: database.url,
          WEB_ROOT: join(ROOT, 'web/dist/browser'),
          DEMO: demo ? 'yes' : 'no',
          LOG_LEVEL: 'error',
        },
      });
      server.stdout.once('data', () => resolve(address));
      server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });

  const stopServer = () =>
    new Promise((resolve) => {
      server.removeAllListeners('exit');
      server.once('exit', resolve);
      server.kill('SIGTERM');
    });

  await startServer();
  return {
    address,
    database: database.url,
    startServer,
    stopServer,
    stop: async () => {
      await stopServer();
      await database.stop();
    },
  };
}

/** How Chromium is started here. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
