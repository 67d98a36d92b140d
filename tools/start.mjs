// npm start: installs what is missing, builds, starts the database and the server, and stops both on Ctrl-C.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildAll } from './build.mjs';
import { endLeftover, portFree, startDatabase } from './database.mjs';
import { DATA, ROOT } from './shell.mjs';

const USAGE = `usage: npm start -- [--no-demo] [--port N] [--db-port N]
environment: PORT (4780), DB_PORT (4781), HOST (127.0.0.1), DATABASE_URL for a MariaDB of your own, ISOMETRA_DATA (.data)`;

const SERVER = join(ROOT, 'server/dist/main.js');

function option(name, fallback) {
  const at = process.argv.indexOf(`--${name}`);
  const text = at > 0 ? process.argv[at + 1] : (process.env[name === 'port' ? 'PORT' : 'DB_PORT'] ?? String(fallback));
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    fail(`--${name} "${text ?? ''}" is not a port number. Give one like --${name} 4790.`);
  return port;
}

function fail(message) {
  console.error(message);
  process.exit(1);
}

/** Refuse to run beside another one on the same data; a stale pid is no obstacle. */
function claim(port) {
  const file = join(DATA, 'isometra.pid');
  const [pid, address] = existsSync(file) ? readFileSync(file, 'utf8').split('\n') : [];
  const alive =
    pid &&
    existsSync(`/proc/${pid}/cmdline`) &&
    readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('tools/start.mjs') &&
    Number(pid) !== process.pid;
  if (alive) fail(`Isometra is already running on this data (process ${pid}): ${address}`);
  mkdirSync(DATA, { recursive: true });
  writeFileSync(file, `${process.pid}\nhttp://127.0.0.1:${port}`);
  return () => rmSync(file, { force: true });
}

async function main() {
  if (process.argv.includes('--help')) return console.log(USAGE);
  const port = option('port', 4780);
  const databasePort = option('db-port', 4781);
  const ownDatabase = !process.env.DATABASE_URL;
  const release = claim(port);
  const serverPid = join(DATA, 'server.pid');
  await endLeftover('server', serverPid, SERVER);
  if (!(await portFree(port))) {
    release();
    fail(`Port ${port} is in use by another program. Choose another: PORT=4790 npm start`);
  }
  buildAll();

  let stopping = false;
  let server;
  let database;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    if (server && server.exitCode === null) {
      const ended = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGTERM');
      await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 5000))]);
    }
    await database?.stop();
    rmSync(serverPid, { force: true });
    release();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

  if (ownDatabase) {
    const onExit = () => {
      if (stopping) return;
      console.error('The database has stopped. Start Isometra again; it recovers by itself.');
      void stop(1);
    };
    try {
      if (!existsSync(join(DATA, 'mariadb', 'mariadb.pid')) && !(await portFree(databasePort)))
        throw new Error(`Port ${databasePort} is in use by another program. Choose another: DB_PORT=4791 npm start`);
      database = await startDatabase({ folder: join(DATA, 'mariadb'), port: databasePort, onExit });
    } catch (error) {
      console.error(error.message);
      return stop(1);
    }
  }
  server = spawn(process.execPath, [SERVER], {
    cwd: ROOT,
    detached: true,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      LOG_LEVEL: 'warn',
      ...process.env,
      PORT: String(port),
      DATABASE_URL: database?.url ?? process.env.DATABASE_URL,
      WEB_ROOT: join(ROOT, 'web/dist/browser'),
      DEMO: process.argv.includes('--no-demo') ? 'no' : 'yes',
    },
  });
  writeFileSync(serverPid, String(server.pid));
  server.stdout.on('data', (chunk) => {
    const address = /listening (http\S+)/.exec(String(chunk))?.[1];
    if (address) console.log(`\nIsometra is at ${address}   (Ctrl-C stops it)`);
  });
  server.once('exit', (code) => void stop(stopping ? 0 : code || 1));
}

main().catch((error) => fail(error.message));
