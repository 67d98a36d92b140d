import { namesOf } from './fence.js';
import { openShop, type TestShop } from '../testing/shop.js';

describe('the fence', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  afterAll(() => shop.close());

  const asked = async (headers: Readonly<Record<string, string>>): Promise<number> =>
    (await shop.http.get('/api/health').set(headers)).status;

  it('answers to its own names, whatever the port', async () => {
    for (const host of ['127.0.0.1:4780', 'localhost', 'LOCALHOST:1', '[::1]:4780'])
      expect(await asked({ Host: host }))
        .withContext(host)
        .toBe(200);
  });

  it('answers to no other name, however it is written', async () => {
    for (const host of ['shop.example', '127.0.0.1.shop.example:4780', 'localhost.shop.example', '127.0.0.1@shop.example', ''])
      expect(await asked({ Host: host }))
        .withContext(host)
        .not.toBe(200);
    const { body } = await shop.http.get('/api/machines').set({ Host: 'shop.example' }).expect(403);
    expect(body.errors[0].path).toBe('Host');
  });

  it('refuses pages of another origin, also of another port, and takes its own', async () => {
    const from = (Origin: string) => asked({ Host: 'localhost:4780', Origin });
    expect(await from('http://localhost:4780')).toBe(200);
    for (const origin of ['http://shop.example', 'http://localhost:4781', 'null', 'nonsense'])
      expect(await from(origin))
        .withContext(origin)
        .toBe(403);
    expect(await asked({ Host: 'localhost:4780', 'Sec-Fetch-Site': 'cross-site' })).toBe(403);
    expect(await asked({ Host: 'localhost:4780', 'Sec-Fetch-Site': 'same-origin' })).toBe(200);
  });

  it('is drawn by what it listens on: one address, or all of this machine’s own', () => {
    expect([...namesOf('127.0.0.1')]).toContain('localhost');
    expect([...namesOf('shop.local', ['Front.Door'])]).toEqual(['shop.local', 'front.door']);
    expect(namesOf('0.0.0.0').size).toBeGreaterThan(3);
  });
});
