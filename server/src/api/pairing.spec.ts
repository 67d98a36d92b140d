import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import { pino } from 'pino';
import { createApp } from '../app.js';
import { DeviceRow } from '../db/shopModels.js';
import { Devices } from '../services/devices.js';
import { News } from '../services/news.js';
import { machine, openShop, round, type TestShop } from '../testing/shop.js';
import { namesOf } from './fence.js';

describe('phones and tablets of the network', () => {
  let shop: TestShop;
  let server: Server;
  let devices: Devices;
  let news: News;
  let port: number;
  let now = Date.now();

  beforeAll(async () => (shop = await openShop()));
  beforeEach(async () => {
    await shop.clear();
    await DeviceRow.destroy({ where: {} });
    now = Date.now();
    const { sequelize, solver } = shop;
    devices = new Devices(sequelize, () => now);
    news = new News();
    const lan = { devices, address: 'http://192.0.2.7:4780' };
    server = createServer(
      createApp({ sequelize, solver, news, lan, logger: pino({ level: 'silent' }), names: namesOf('0.0.0.0', ['shop.test']) }),
    );
    await new Promise<void>((ready) => server.listen(0, '0.0.0.0', ready));
    port = (server.address() as AddressInfo).port;
  });
  afterEach(
    () =>
      new Promise<void>((closed) => {
        server.close(() => closed());
        server.closeAllConnections();
      }),
  );
  afterAll(() => shop.close());

  /** As from another device: through a proxy, which no request from this machine itself has come through. */
  const from = (path: string, { cookie = '', ...more }: RequestInit & { cookie?: string } = {}) =>
    fetch(`http://127.0.0.1:${port}${path}`, { redirect: 'manual', ...more, headers: { 'x-forwarded-for': '192.0.2.9', cookie } });
  const pair = (code: string, name = 'Phone') => from('/pair', { method: 'POST', body: new URLSearchParams({ code, name }) });
  const cookieOf = (answer: Response) => (answer.headers.get('set-cookie') ?? '').split(';')[0];
  const wrong = (code: string) => (code === '000000' ? '000001' : '000000');

  it('let in whoever shows a token, to read and for nothing else', async () => {
    const { body } = await shop.http.post('/api/tokens').send({ name: 'Sheet', by: 'HB' }).expect(201);
    const with_ = (more: RequestInit, token: string) =>
      fetch(`http://127.0.0.1:${port}/api/machines`, {
        ...more,
        headers: { 'x-forwarded-for': '192.0.2.9', authorization: `Bearer ${token}` },
      });
    expect((await from('/api/machines')).status).toBe(401);
    expect((await with_({}, body.token as string)).status).toBe(200);
    expect((await with_({ method: 'POST', body: '{}' }, body.token as string)).status).toBe(403);
    expect((await with_({}, 'another')).status).toBe(401);
  });

  it('without pairing nothing is read, written or listened to, and no page but the question is given out', async () => {
    for (const path of ['/api/machines', '/api/lan', '/api/devices', '/api/health', '/api/rounds/x/events'])
      expect((await from(path)).status)
        .withContext(path)
        .toBe(401);
    const written = await from('/api/machines', { method: 'POST', body: JSON.stringify(machine()) });
    expect(written.status).toBe(401);
    expect(((await written.json()) as { code: string }).code).toBe('not-paired');
    const page = await from('/machines');
    expect([page.status, (await page.text()).includes('Code, six digits')]).toEqual([401, true]);
    // Else a browser sends its form with an origin of "null", which the fence refuses.
    expect(page.headers.get('referrer-policy')).toBe('same-origin');
    expect((await from('/api/lan/code', { method: 'POST' })).status).toBe(401);
    // On the machine itself nobody is asked.
    expect((await fetch(`http://127.0.0.1:${port}/api/machines`)).status).toBe(200);
  });

  it('a device of the network is asked by its address too, not only behind a proxy', async () => {
    const own = Object.values(networkInterfaces())
      .flat()
      .find((face) => face && face.family === 'IPv4' && !face.internal)?.address;
    if (own === undefined) return expect(own).toBeUndefined();
    expect((await fetch(`http://${own}:${port}/api/machines`)).status).toBe(401);
  });

  it('the code lets one device in, for a year, by a cookie that no script reads; then it is used up', async () => {
    const { code } = await devices.issue();
    expect(code).toMatch(/^\d{6}$/);
    const answer = await pair(`${code.slice(0, 3)} ${code.slice(3)}`, 'Phone at the lathe');
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/']);
    const set = answer.headers.get('set-cookie') ?? '';
    expect(set).toMatch(/Max-Age=31536000/);
    expect(set).toMatch(/HttpOnly/);
    const cookie = cookieOf(answer);
    expect((await from('/api/machines', { cookie })).status).toBe(200);
    expect((await pair(code)).status).toBe(403);
    // What is kept of it is no secret.
    const [row] = await DeviceRow.findAll();
    expect(row.name).toBe('Phone at the lathe');
    expect(row.secret).toMatch(/^\$argon2id\$/);
    expect(cookie).not.toContain(row.secret);
    // Another start of the server knows it too, and a guess at the same device is none.
    const again = new Devices(shop.sequelize);
    expect(await again.knows(cookie.split('=')[1])).toBeTrue();
    expect(await again.knows(`${row.id}.${'A'.repeat(43)}`)).toBeFalse();
  });

  it('three wrong tries, or ten minutes, and the code lets nobody in; three at once have no more', async () => {
    const first = await devices.issue();
    for (const left of ['2 more tries', 'One more try', 'lets nobody in any more']) {
      const answer = await pair(wrong(first.code));
      expect([answer.status, (await answer.text()).includes(left)]).toEqual([403, true]);
    }
    expect((await pair(first.code)).status).toBe(403);

    const second = await devices.issue();
    now += 10 * 60_000 + 1;
    expect((await pair(second.code)).status).toBe(403);

    const third = await devices.issue();
    const many = await Promise.all(Array.from({ length: 6 }, () => pair(wrong(third.code))));
    expect(many.map(({ status }) => status)).toEqual([403, 403, 403, 403, 403, 403]);
    expect((await pair(third.code)).status).toBe(403);

    const fourth = await devices.issue();
    const both = await Promise.all([pair(fourth.code), pair(fourth.code)]);
    expect(both.map(({ status }) => status).sort()).toEqual([303, 403]);
  });

  it('a device that is taken off the list is out at its next question, on a server that was started since too', async () => {
    const { code } = await devices.issue();
    const cookie = cookieOf(await pair(code));
    const [device] = (await (await from('/api/devices', { cookie })).json()) as { id: string }[];
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const sent = round(lathe.id);
    await shop.http.post('/api/rounds').send(sent).expect(201);
    const listened = await from(`/api/rounds/${sent.id}/events`, { cookie });
    const heard = listened.text().then((text) => text.replace('retry: 1000\n\n', ''));
    expect(news.listeners).toBe(1);
    const left = await from(`/api/devices/${device.id}?by=HB`, { cookie, method: 'DELETE' });
    expect(await left.json()).toEqual([]);
    // What it was listening to ends with it.
    expect(await heard).toBe('');
    expect(news.listeners).toBe(0);
    expect((await from(`/api/rounds/${sent.id}/events`, { cookie })).status).toBe(401);
    expect((await from('/api/machines', { cookie })).status).toBe(401);
    expect(await new Devices(shop.sequelize).knows(cookie.split('=')[1])).toBeFalse();
  });

  it('what is typed as a code never reaches the page as anything but text', async () => {
    const answer = await pair('<b>x</b>', '<script>');
    expect(await answer.text()).not.toMatch(/<b>x|<script>/);
  });
});

describe('a shop that serves its own machine only', () => {
  it('has no door to the network: nothing to pair, no devices', async () => {
    const shop = await openShop();
    const lan = await shop.http.get('/api/lan');
    expect(lan.body).toEqual({ on: false, address: '', picture: '' });
    await shop.http.post('/api/lan/code').expect(404);
    await shop.http.get('/api/devices').expect(404);
    await shop.close();
  });
});
