import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { freePort } from '../../tools/database.mjs';

const START = fileURLToPath(new URL('../../tools/start.mjs', import.meta.url));

interface Started {
  readonly child: ChildProcess;
  readonly output: () => string;
  readonly ended: Promise<number | null>;
}

/** The start script on data of its own. */
function start(data: string, args: string[]): Started {
  const child = spawn(process.execPath, [START, ...args], {
    env: { ...process.env, ISOMETRA_DATA: data },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let output = '';
  child.stdout?.on('data', (chunk) => (output += chunk));
  child.stderr?.on('data', (chunk) => (output += chunk));
  return { child, output: () => output, ended: new Promise((resolve) => child.once('exit', resolve)) };
}

const serving = async (started: Started): Promise<void> =>
  expect.poll(started.output, { timeout: 120_000 }).toContain('Isometra is at http');
const runs = (pid: number): boolean => existsSync(`/proc/${pid}`);

test.describe.configure({ mode: 'serial' });

test('starts with its own database, stops cleanly, and keeps the shop', async ({ request }) => {
  const data = mkdtempSync(join(tmpdir(), 'isometra-start-'));
  const [port, databasePort] = [await freePort(), await freePort()];
  const args = ['--port', String(port), '--db-port', String(databasePort)];
  try {
    const first = start(data, args);
    await serving(first);
    const answer = await request.get(`http://127.0.0.1:${port}/api/machines`);
    const machines = await answer.json();
    expect(machines.length).toBe(6);
    // A browser uses a line again that was quiet for as long as five minutes: it must not be closed before.
    expect(Number(/timeout=(\d+)/.exec(answer.headers()['keep-alive'])?.[1])).toBeGreaterThan(300);

    const beside = start(data, args);
    expect(await beside.ended).toBe(1);
    expect(beside.output()).toContain('already running');

    const database = Number(readFileSync(join(data, 'mariadb/mariadb.pid'), 'utf8'));
    expect(runs(database)).toBe(true);
    first.child.kill('SIGINT');
    expect(await first.ended).toBe(0);
    expect(runs(database)).toBe(false);
    expect(existsSync(join(data, 'isometra.pid'))).toBe(false);

    const again = start(data, args);
    await serving(again);
    expect(again.output()).not.toContain('Building');
    expect(await (await request.get(`http://127.0.0.1:${port}/api/machines`)).json()).toEqual(machines);

    // Everything killed at once, as by a power cut: the next start recovers by itself.
    again.child.kill('SIGKILL');
    await again.ended;
    const third = start(data, args);
    await serving(third);
    third.child.kill('SIGTERM');
    expect(await third.ended).toBe(0);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
});

test('brings the server back when it dies, and the database, and keeps what was entered', async ({ request }) => {
  const data = mkdtempSync(join(tmpdir(), 'isometra-start-'));
  const port = await freePort();
  const ready = async (): Promise<number> =>
    (await request.get(`http://127.0.0.1:${port}/api/ready`, { failOnStatusCode: false }).catch(() => undefined))?.status() ?? 0;
  try {
    const started = start(data, ['--port', String(port), '--db-port', String(await freePort())]);
    await serving(started);
    const machines = await (await request.get(`http://127.0.0.1:${port}/api/machines`)).json();
    for (const [name, file] of [
      ['server', 'server.pid'],
      ['database', 'mariadb/mariadb.pid'],
    ]) {
      process.kill(Number(readFileSync(join(data, file), 'utf8')), 'SIGKILL');
      await expect.poll(started.output, { timeout: 120_000 }).toContain(`The ${name} has stopped (SIGKILL). Starting it again in 1 s`);
      await expect.poll(started.output, { timeout: 120_000 }).toContain(`The ${name} is running again.`);
      await expect.poll(ready, { timeout: 120_000 }).toBe(200);
    }
    expect(await (await request.get(`http://127.0.0.1:${port}/api/machines`)).json()).toEqual(machines);
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
});

test('--lan lets a phone in by the code that is printed, and nobody without it', async ({ browser }) => {
  const data = mkdtempSync(join(tmpdir(), 'isometra-start-'));
  const port = await freePort();
  try {
    const started = start(data, ['--lan', '--no-demo', '--port', String(port), '--db-port', String(await freePort())]);
    await serving(started);
    await expect.poll(started.output, { timeout: 60_000 }).toMatch(/good for ten minutes: \d{3} \d{3}/);
    const [, address] = /of this network find it at (\S+)/.exec(started.output()) ?? [];
    const [, code] = /good for ten minutes: (\d{3} \d{3})/.exec(started.output()) ?? [];
    // The same address as a picture in the terminal.
    expect(started.output()).toMatch(/[▀▄█]{8}/);
    // A phone: not this machine, as a proxy tells that it asks for somebody else.
    const context = await browser.newContext({ extraHTTPHeaders: { 'x-forwarded-for': '192.0.2.9' } });
    const phone = await context.newPage();
    await phone.goto(address);
    await expect(phone.getByRole('heading', { name: 'Pair this device' })).toBeVisible();
    expect((await phone.request.get(`${address}/api/machines`, { failOnStatusCode: false })).status()).toBe(401);
    await phone.getByLabel('Code, six digits').fill('12');
    await phone.getByRole('button', { name: 'Let this device in' }).click();
    await expect(phone.getByRole('alert')).toContainText('This is not the code. 2 more tries.');
    await phone.getByLabel('Code, six digits').fill(code);
    await phone.getByLabel('What this device is called').fill('Phone at the lathe');
    await phone.getByRole('button', { name: 'Let this device in' }).click();
    const devices = phone.getByRole('region', { name: 'Phones and tablets' });
    await expect(devices).toContainText('Phone at the lathe');
    // It is no page that a browser holds for safe, and all the same what is read there is kept and sent.
    expect(await phone.evaluate(() => window.isSecureContext)).toBe(false);
    const id = crypto.randomUUID();
    const lathe = { number: 'L-96', kind: 'engine-lathe', centreDistance: '600 mm' };
    await phone.request.post(`${address}/api/machines`, { data: { id, card: lathe, version: 1, by: 'HB' } });
    await phone.goto(`${address}/machines/${id}/bench/tailstock-traverse`);
    await phone.getByLabel('I have read and done this').check();
    await phone.getByLabel('Distance between centres').fill('600 mm');
    await phone.getByLabel('Bar diameter').fill('40 mm');
    await phone.getByLabel('One division').fill('0.01 mm');
    await phone.getByText('it counts up').click();
    await phone.getByRole('button', { name: 'Start the round' }).click();
    await phone.waitForSelector('#reading');
    await phone.locator('#reading').fill('3');
    await phone.locator('#reading').press('Enter');
    const round = phone.url().split('/').at(-1);
    const kept = async () => (await (await phone.request.get(`${address}/api/rounds/${round}`)).json()).readings?.length;
    await expect.poll(kept, { timeout: 20_000 }).toBe(1);
    await phone.goto(`${address}/machines`);
    // It shuts itself out: the next page is the question again.
    await devices.getByRole('button', { name: 'Shut out Phone at the lathe' }).click();
    await devices.getByRole('button', { name: 'Shut Phone at the lathe out' }).click();
    await expect(devices).toContainText('No device has been let in yet.');
    await phone.reload();
    await expect(phone.getByRole('heading', { name: 'Pair this device' })).toBeVisible();
    await context.close();
    started.child.kill('SIGINT');
    expect(await started.ended).toBe(0);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
});

test('an empty shop when asked, and clear words for a busy or a wrong port', async ({ request }) => {
  const data = mkdtempSync(join(tmpdir(), 'isometra-start-'));
  const blocker = createServer();
  const busy = await new Promise<number>((resolve) =>
    blocker.listen(0, '127.0.0.1', () => resolve((blocker.address() as AddressInfo).port)),
  );
  try {
    const blocked = start(data, ['--port', String(busy), '--db-port', String(await freePort())]);
    expect(await blocked.ended).toBe(1);
    expect(blocked.output()).toContain(`Port ${busy} is in use by another program. Choose another: PORT=4790 npm start`);

    const wrong = start(data, ['--port', 'high']);
    expect(await wrong.ended).toBe(1);
    expect(wrong.output()).toContain('--port "high" is not a port number');

    const port = await freePort();
    const empty = start(data, ['--no-demo', '--port', String(port), '--db-port', String(await freePort())]);
    await serving(empty);
    expect(await (await request.get(`http://127.0.0.1:${port}/api/machines`)).json()).toEqual([]);
    empty.child.kill('SIGINT');
    expect(await empty.ended).toBe(0);
  } finally {
    blocker.close();
    rmSync(data, { recursive: true, force: true });
  }
});
