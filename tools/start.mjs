// npm start: installs what is missing, builds, starts the database and the server, brings either back when it dies, and
// stops both on Ctrl-C.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { buildAll } from './build.mjs';
import { endLeftover, portFree, startDatabase } from './database.mjs';
import { keep } from './keeper.mjs';
import { DATA, ROOT } from './shell.mjs';

const USAGE = `usage: npm start -- [--lan] [--no-demo] [--port N] [--db-port N]
--lan lets phones and tablets of this network in, each with a code
environment: PORT (4780), DB_PORT (4781), HOST (127.0.0.1), DATABASE_URL for a MariaDB of your own, ISOMETRA_DATA (.data)`;

/** Where it listens: on this machine only, or with --lan for its network. */
const HOST = process.argv.includes('--lan') ? '0.0.0.0' : (process.env.HOST ?? '127.0.0.1');
const LOOPBACK = ['localhost', '::1'].includes(HOST) || HOST.startsWith('127.');

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

  const parts = [];
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    for (const part of parts.toReversed()) await part.stop();
    rmSync(serverPid, { force: true });
    release();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

  try {
    let url = process.env.DATABASE_URL;
    if (ownDatabase) {
      if (!existsSync(join(DATA, 'mariadb', 'mariadb.pid')) && !(await portFree(databasePort)))
        throw new Error(`Port ${databasePort} is in use by another program. Choose another: DB_PORT=4791 npm start`);
      const begin = async () => {
        const database = await startDatabase({ folder: join(DATA, 'mariadb'), port: databasePort });
        url = database.url;
        return database;
      };
      parts.push(await keep('database', begin));
    }
    parts.push(await keep('server', () => startServer(port, url, serverPid)));
  } catch (error) {
    console.error(error.message);
    return stop(1);
  }
  for (const line of await whereItIs(port)) console.log(line);
}

/** Where it is, and for others of the network the same as a picture to be photographed. */
async function whereItIs(port) {
  const here = `\nIsometra is at http://${LOOPBACK ? shownHost(HOST) : '127.0.0.1'}:${port}   (Ctrl-C stops it)`;
  if (LOOPBACK) return [here];
  const address = lanAddress(port);
  // Installed by now, which it is not on the first start before the build.
  const { renderUnicodeCompact } = await import('uqr');
  return [
    here,
    `Phones and tablets of this network find it at ${address}`,
    renderUnicodeCompact(address, { border: 2 }),
    'Each of them is asked once for a code. More codes, and the list of devices that are let in: on the page Machines.',
  ];
}

const shownHost = (host) => (host.includes(':') ? `[${host}]` : host);

/** Where others of the network reach this machine. */
const lanAddress = (port) => `http://${shownHost(['0.0.0.0', '::'].includes(HOST) ? (ownAddress() ?? '127.0.0.1') : HOST)}:${port}`;

/** The first address of this machine that others can reach. */
function ownAddress() {
  const all = Object.values(networkInterfaces()).flat();
  return all.find((entry) => entry && entry.family === 'IPv4' && !entry.internal)?.address;
}

/** The server, once it listens. */
function startServer(port, databaseUrl, pidFile) {
  const server = spawn(process.execPath, [SERVER], {
    cwd: ROOT,
    detached: true,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      LOG_LEVEL: 'warn',
      ...process.env,
      PORT: String(port),
      DATABASE_URL: databaseUrl,
      WEB_ROOT: join(ROOT, 'web/dist/browser'),
      HOST,
      ...(!LOOPBACK && { ADDRESS: lanAddress(port) }),
      DEMO: process.argv.includes('--no-demo') ? 'no' : 'yes',
    },
  });
  writeFileSync(pidFile, String(server.pid));
  const ended = new Promise((resolve) => server.once('exit', (code, signal) => resolve(signal ?? `code ${code}`)));
  const stop = async () => {
    if (server.exitCode !== null || server.signalCode !== null) return;
    server.kill('SIGTERM');
    await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 5000))]);
  };
  return new Promise((resolve, reject) => {
    let said = '';
    server.stdout.on('data', (part) => {
      said += part;
      if (/^listening .*\n/m.test(said)) resolve({ ended, stop });
      const [, code] = /^pairing (\d+)\n/m.exec(said) ?? [];
      if (!code) return;
      said = '';
      console.log(`Code for the first phone or tablet, good for ten minutes: ${code.slice(0, 3)} ${code.slice(3)}`);
    });
    void ended.then((how) => reject(new Error(`The server did not start (${how}).`)));
  });
}

main().catch((error) => fail(error.message));
