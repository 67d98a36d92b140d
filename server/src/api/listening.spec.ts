import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import type { RoundNews } from '@isometra/contract';
import { createApp } from '../app.js';
import { News } from '../services/news.js';
import { machine, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';
import { namesOf } from './fence.js';

describe('a second screen at the same round', () => {
  let shop: TestShop;
  let server: Server;
  let news: News;
  let port: number;
  const listeners: IncomingMessage[] = [];

  beforeAll(async () => {
    shop = await openShop();
    news = new News();
    const { sequelize, solver } = shop;
    server = createServer(createApp({ sequelize, solver, news, logger: pino({ level: 'silent' }), names: namesOf('127.0.0.1') }));
    await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
    port = (server.address() as AddressInfo).port;
  });
  beforeEach(() => shop.clear());
  afterEach(() => {
    for (const response of listeners.splice(0)) response.destroy();
  });
  afterAll(async () => {
    news.close();
    await new Promise<void>((closed) => {
      server.close(() => closed());
      server.closeAllConnections();
    });
    await shop.close();
  });

  const send = async (path: string, body: object): Promise<number> => {
    const headers = { 'content-type': 'application/json' };
    const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, { method: 'POST', headers, body: JSON.stringify(body) });
    return answer.status;
  };
  const begun = async (number = 'L-1') => {
    const lathe = machine(number);
    await send('/machines', lathe);
    const sent = round(lathe.id);
    expect(await send('/rounds', sent)).toBe(201);
    return sent;
  };
  /** Listen to a round: its status, and a wait for the next piece of news. */
  const listen = (id: string) =>
    new Promise<{ status: number | undefined; next: () => Promise<RoundNews> }>((heard, failed) => {
      get({ host: '127.0.0.1', port, path: `/api/rounds/${id}/events` }, (response) => {
        listeners.push(response);
        let text = '';
        const waiting: ((news: RoundNews) => void)[] = [];
        response.setEncoding('utf8').on('data', (part: string) => {
          text += part;
          for (let found = /^data: (.*)\n\n/m.exec(text); found; found = /^data: (.*)\n\n/m.exec(text)) {
            text = text.slice(found.index + found[0].length);
            waiting.shift()?.(JSON.parse(found[1]) as RoundNews);
          }
        });
        heard({ status: response.statusCode, next: () => new Promise((told) => waiting.push(told)) });
      }).on('error', failed);
    });

  it('hears of every reading as it is written, and who wrote it', async () => {
    const { id } = await begun();
    const { status, next } = await listen(id);
    expect(status).toBe(200);
    const told = next();
    const written = reading(20, '3 div', { by: 'CD' });
    expect(await send(`/rounds/${id}/readings`, written)).toBe(201);
    expect(await told).toEqual({ what: 'reading', ids: [written.id], by: 'CD' });
  });

  it('does not hear of another round, and is forgotten when it leaves', async () => {
    const [one, other] = [await begun(), await begun('L-2')];
    const { next } = await listen(one.id);
    expect(news.listeners).toBe(1);
    const told = next();
    await send(`/rounds/${other.id}/readings`, reading(20, '1 div'));
    const own = reading(40, '2 div');
    await send(`/rounds/${one.id}/readings`, own);
    expect((await told).ids).toEqual([own.id]);
    const gone = new Promise((left) => listeners[0].once('close', left));
    listeners[0].destroy();
    await gone;
    for (let i = 0; i < 100 && news.listeners > 0; i++) await new Promise((later) => setImmediate(later));
    expect(news.listeners).toBe(0);
  });

  it('a round that is not there is refused, and one who listens is let go when the server stops', async () => {
    const answer = await fetch(`http://127.0.0.1:${port}/api/rounds/${uuid()}/events`);
    expect(answer.status).toBe(404);
    const { id } = await begun();
    await listen(id);
    const ended = new Promise((left) => listeners[0].once('end', left));
    listeners[0].resume();
    news.close();
    await ended;
    expect(listeners[0].complete).toBeTrue();
  });
});
