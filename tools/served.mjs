// The whole application on a database that is thrown away: for end-to-end tests, screenshots and the bench.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { createConnection } from 'mariadb';
import { freePort, throwAwayDatabase } from './database.mjs';
import { ROOT } from './shell.mjs';

/** The demo shop of a running MariaDB, filled once by the server itself; every test that wants it has a copy. */
const demos = new Map();

/** The tables of a database, with everything in them, into another one. */
async function copyTables(connection, from, to) {
  await connection.query('SET FOREIGN_KEY_CHECKS = 0');
  await connection.query(`USE ${to}`);
  for (const row of await connection.query(`SHOW FULL TABLES FROM ${from} WHERE Table_type = 'BASE TABLE'`)) {
    const table = Object.values(row)[0];
    const [{ 'Create Table': statement }] = await connection.query(`SHOW CREATE TABLE ${from}.\`${table}\``);
    await connection.query(statement);
    await connection.query(`INSERT INTO \`${table}\` SELECT * FROM ${from}.\`${table}\``);
  }
}

/** A database beside the others of a running one, empty or a copy: starting a MariaDB for every test costs more than the test. */
async function databaseWithin({ url }, from) {
  const name = `isometra_${randomBytes(4).toString('hex')}`;
  // On a busy machine a socket takes longer than the second that the driver gives it.
  const connection = await createConnection(`${url}?connectTimeout=20000`);
  await connection.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  if (from) await copyTables(connection, from, name);
  await connection.end();
  return { name, url: url.replace(/[^/]+$/, name), stop: () => Promise.resolve() };
}

/** A copy of the demo shop; the first one to ask has it filled. */
async function demoWithin(within) {
  if (!demos.has(within.url)) {
    const template = await databaseWithin(within);
    const filling = await served({ demo: true, database: template });
    await filling.stop();
    demos.set(within.url, template.name);
  }
  return databaseWithin(within, demos.get(within.url));
}

/**
 * Start server and database.
 * @param within a running MariaDB to put the database in; left out, one is started for it.
 * @returns its address; `stopServer` and `startServer` to lose the server and bring it back on the same data; `stop` ends all.
 */
export async function serve({ demo, within }) {
  if (!within) return served({ demo, database: await throwAwayDatabase() });
  return served({ demo, database: demo ? await demoWithin(within) : await databaseWithin(within) });
}

async function served({ demo, database }) {
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
