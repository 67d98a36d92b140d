// The whole application on a database that is thrown away: for end-to-end tests, screenshots and the bench.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { createConnection } from 'mariadb';
import chromiumFlags from './chromium-flags.cjs';
import { freePort, throwAwayDatabase } from './database.mjs';
import { ROOT } from './shell.mjs';

/** The demo shop and the empty one of a running MariaDB, made once by the server itself; every test has a copy of one of them. */
const templates = new Map();

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

/** A database beside the others of a running one, bare or a copy: starting a MariaDB for every test costs more than the test. */
async function databaseWithin({ url }, from) {
  const name = `isometra_${randomBytes(4).toString('hex')}`;
  // On a busy machine a socket takes longer than the second that the driver gives it.
  const connection = await createConnection(`${url}?connectTimeout=20000`);
  await connection.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  if (from) await copyTables(connection, from, name);
  await connection.end();
  return { name, url: url.replace(/[^/]+$/, name), stop: () => Promise.resolve() };
}

/** A copy of the demo shop or of the empty one; the first one to ask has it made. */
async function copyWithin(within, demo) {
  const key = `${within.url} ${demo}`;
  if (!templates.has(key)) {
    const template = await databaseWithin(within);
    const filling = await served({ demo, database: template, begin: inProcess });
    await filling.stop();
    templates.set(key, template.name);
  }
  return databaseWithin(within, templates.get(key));
}

/**
 * Start server and database.
 * @param within a running MariaDB to put the database in: then the server runs in this process too, because starting one
 *   for every test costs more than many a test; left out, both are started for it.
 * @returns its address; `stopServer` and `startServer` to lose the server and restore on the same data; `stop` ends all.
 */
export async function serve({ demo, within }) {
  if (!within) return served({ demo, database: await throwAwayDatabase(), begin: ownProcess });
  return served({ demo, database: await copyWithin(within, demo), begin: inProcess });
}

async function served({ demo, database, begin }) {
  const env = {
    PORT: '',
    DATABASE_URL: database.url,
    WEB_ROOT: join(ROOT, 'web/dist/browser'),
    DEMO: demo ? 'yes' : 'no',
    LOG_LEVEL: 'error',
  };
  let [stopServer, address] = [undefined, ''];
  const startServer = async () => {
    stopServer = await begin(env);
    return address;
  };
  await onFreePort(async (port) => {
    env.PORT = String(port);
    address = `http://127.0.0.1:${port}`;
    await startServer();
  });
  return {
    address,
    database: database.url,
    startServer,
    stopServer: () => stopServer(),
    stop: async () => {
      await stopServer();
      await database.stop();
    },
  };
}

/** How often another port is tried where somebody else was faster. */
const TRIES = 5;

/** Start something on a port that nobody uses; a port is only sure once it is listened on. */
async function onFreePort(start, tries = TRIES) {
  try {
    await start(await freePort());
  } catch (error) {
    if (error.code !== 'EADDRINUSE' || tries <= 1) throw error;
    await onFreePort(start, tries - 1);
  }
}

/** A server as a process of its own. @returns what stops it. */
function ownProcess(env) {
  return new Promise((resolve, reject) => {
    const server = spawn(process.execPath, [join(ROOT, 'server/dist/main.js')], {
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, ...env },
    });
    server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    const stop = () =>
      new Promise((done) => {
        server.removeAllListeners('exit');
        server.once('exit', done);
        server.kill('SIGTERM');
      });
    server.stdout.once('data', () => resolve(stop));
  });
}

/** What the servers of this process share: the program, and the threads that solve. */
let shared;
async function sharedParts() {
  const load = (file) => import(join(ROOT, 'server/dist', file));
  const [{ startServing }, { readConfig }, { Solver }] = await Promise.all(['serving.js', 'config.js', 'services/solver.js'].map(load));
  return { startServing, readConfig, solver: new Solver() };
}

/** A server in this process; one at a time. @returns what stops it. */
async function inProcess(env) {
  shared ??= sharedParts();
  const { startServing, readConfig, solver } = await shared;
  const serving = await startServing(readConfig(env), solver);
  return serving.stop;
}

/** How Chromium is started here. */
export const CHROMIUM_FLAGS = chromiumFlags;
