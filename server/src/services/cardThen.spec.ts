import type { CardThen, RoundFinding } from '@isometra/contract';
import { machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';

describe('the card of then', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const READ: readonly (readonly [number, string])[] = [
    [20, '0 div'],
    [400, '-9.5 div'],
  ];

  /** A lathe with a round that was read and whose card says another pitch since. */
  const changedSince = async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const first = { ...round(lathe.id), at: new Date().toISOString() };
    await shop.http.post('/api/rounds').send(first).expect(201);
    const readings = READ.flatMap(([at, value]) =>
      ['h', 'v'].map((plane) => ({ ...reading(at, value), keys: { plane, at }, at: first.at })),
    );
    await shop.http.post(`/api/rounds/${first.id}/readings`).send(readings).expect(201);
    const card = { ...lathe.card, adjuster: { pitch: '3 mm' } };
    await shop.http
      .put(`/api/machines/${lathe.id}`)
      .send({ ...lathe, card })
      .expect(200);
    return { lathe, first };
  };
  const turns = async (id: string): Promise<number> => {
    const { finding } = (await shop.http.get(`/api/rounds/${id}/finding`).expect(200)).body as RoundFinding;
    return Number(finding?.moves.find(({ kind }) => kind === 'adjuster')?.['turns']);
  };
  const then = async (id: string): Promise<CardThen> => (await shop.http.get(`/api/rounds/${id}/card`).expect(200)).body;

  it('a round that still counts goes by the card of today; once it is read again, by its own', async () => {
    const { lathe, first } = await changedSince();
    const today = await turns(first.id);
    const next = { ...round(lathe.id), at: new Date().toISOString() };
    await shop.http.post('/api/rounds').send(next).expect(201);
    expect(await turns(first.id)).toBeCloseTo(2 * today, 9);
  });

  it('tells how the card stood, and what of it was changed since', async () => {
    const { first } = await changedSince();
    const told = await then(first.id);
    expect(told.card['adjuster']).toEqual({ pitch: '1.5 mm' });
    expect(told.since.map(({ from, to }) => [from, to])).toEqual([['1.5 mm', '3 mm']]);
    expect(told.at).toBe(first.at);
  });

  it('a move that was made after the change went by the new card', async () => {
    const { first } = await changedSince();
    const at = new Date().toISOString();
    await shop.http
      .post('/api/moves')
      .send({ ...move(first.id), begunAt: at, doneAt: at })
      .expect(201);
    expect((await then(first.id)).since).toEqual([]);
  });

  it('of a round that is older than everything that was kept, the oldest known card is told', async () => {
    const { lathe } = await changedSince();
    const old = { ...round(lathe.id), at: '2020-01-01T08:00:00.000Z' };
    await shop.http.post('/api/rounds').send(old).expect(201);
    expect((await then(old.id)).card['adjuster']).toEqual({ pitch: '1.5 mm' });
    await shop.http.get(`/api/rounds/${uuid()}/card`).expect(404);
  });

  it('cautions that were ticked stand in the logbook with their round', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const begun = { ...round(lathe.id), cautions: ['Chuck out.', 'Mains off.'] };
    await shop.http.post('/api/rounds').send(begun).expect(201);
    await shop.http.post('/api/rounds').send(begun).expect(201);
    const { entries } = (await shop.http.get(`/api/log?machine=${lathe.id}&what=caution`).expect(200)).body;
    expect(entries.map(({ text, thingId, by }: Record<string, unknown>) => [text, thingId, by])).toEqual([
      ['Cautions read and ticked: Chuck out. Mains off.', begun.id, 'AB'],
    ]);
  });
});
