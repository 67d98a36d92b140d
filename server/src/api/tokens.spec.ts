import { TokenRow } from '../db/archiveModels.js';
import { machine, openShop, type TestShop } from '../testing/shop.js';

describe('a token', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  it('reads, and does nothing else; once revoked it does not even that', async () => {
    const { body: made } = await shop.http.post('/api/tokens').send({ name: 'Wall screen', by: 'HB' }).expect(201);
    const bearer = { Authorization: `Bearer ${made.token}` };
    await shop.http.get('/api/machines').set(bearer).expect(200);
    const { body } = await shop.http.post('/api/machines').set(bearer).send(machine()).expect(403);
    expect(body.errors[0].message).toBe('this token may only read');
    expect((await shop.http.get('/api/machines').expect(200)).body).toEqual([]);
    // It is told once: neither the list nor the database has it.
    expect(JSON.stringify((await shop.http.get('/api/tokens').expect(200)).body)).not.toContain(made.token);
    expect(JSON.stringify(await TokenRow.findAll())).not.toContain(made.token);
    await shop.http.delete(`/api/tokens/${made.id}`).query({ by: 'HB' }).expect(200);
    await shop.http.get('/api/machines').set(bearer).expect(401);
    await shop.http.get('/api/machines').set({ Authorization: 'Bearer nonsense' }).expect(401);
    await shop.http.delete(`/api/tokens/${made.id}`).query({ by: 'HB' }).expect(404);
    await shop.http.post('/api/tokens').send({ name: ' ', by: 'HB' }).expect(400);
  });
});
