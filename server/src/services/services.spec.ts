import type { ReadingWrite, RoundFinding, StoredRound } from '@isometra/contract';
import { indicator, machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';

describe('the shop’s memory', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const lathe = async (number = 'L-1') => {
    const added = machine(number);
    await shop.http.post('/api/machines').send(added).expect(201);
    return added;
  };
  const begin = async (machineId: string, more: Partial<ReturnType<typeof round>> = {}) => {
    const begun = { ...round(machineId), ...more };
    await shop.http.post('/api/rounds').send(begun).expect(201);
    return begun;
  };
  const rounds = async (machineId: string): Promise<StoredRound[]> =>
    (await shop.http.get(`/api/machines/${machineId}/rounds`).expect(200)).body;

  it('numbers the rounds of each check by their time, whatever the order they were sent in', async () => {
    const { id } = await lathe();
    await begin(id, { at: '2026-03-03T08:00:00.000Z' });
    await begin(id, { at: '2026-03-01T08:00:00.000Z' });
    await begin(id, {
      at: '2026-03-02T08:00:00.000Z',
      check: 'bed-twist',
      setup: {},
      plan: {},
      instrument: { kind: 'level', graduation: '20 um/m' },
    });
    const listed = await rounds(id);
    expect(listed.map((entry) => [entry.check, entry.number])).toEqual([
      ['tailstock-traverse', 1],
      ['bed-twist', 1],
      ['tailstock-traverse', 2],
    ]);
    expect(listed[0].at).toBe('2026-03-01T08:00:00.000Z');
  });

  it('keeps what was typed to the letter: fractions, units, accents and signs', async () => {
    const { id } = await lathe('Ä-7 “é”');
    const begun = await begin(id, {
      setup: { centreDistance: '16 1/2 in', bar: { diameter: '1,25 in' } },
      conditions: { place: 600, note: 'µ − ½' },
    });
    const typed = ['5 1/2 div', '−0,5 thou', '+12 µm', '3'];
    await shop.http
      .post(`/api/rounds/${begun.id}/readings`)
      .send(typed.map((value, i) => reading(10 + i, value)))
      .expect(201);
    await shop.http
      .post(`/api/rounds/${begun.id}/readings`)
      .send({ ...reading(50, null), value: 3.25 })
      .expect(201);
    const [kept] = await rounds(id);
    expect(kept.readings.map((entry) => entry.value)).toEqual([...typed, 3.25]);
    expect(kept.setup).toEqual({ centreDistance: '16 1/2 in', bar: { diameter: '1,25 in' } });
    expect(kept.conditions).toEqual({ place: 600, note: 'µ − ½' });
  });

  it('takes five hundred readings at once, and the same again without a double', async () => {
    const { id } = await lathe();
    const begun = await begin(id);
    const many = Array.from({ length: 500 }, (_, i) => reading(i / 2, `${i % 7} div`));
    await shop.http.post(`/api/rounds/${begun.id}/readings`).send(many).expect(201);
    const { body } = await shop.http.post(`/api/rounds/${begun.id}/readings`).send(many).expect(201);
    expect(body.length).toBe(500);
    expect(body.map((entry: { id: string }) => entry.id)).toEqual(many.map((entry) => entry.id));
  });

  it('two clients that send the same reading at once leave one', async () => {
    const { id } = await lathe();
    const begun = await begin(id);
    const same = reading(20, '1 div');
    await Promise.all([1, 2, 3, 4].map(() => shop.http.post(`/api/rounds/${begun.id}/readings`).send(same).expect(201)));
    expect((await rounds(id))[0].readings.length).toBe(1);
  });

  it('one bad reading among many takes none of them', async () => {
    const { id } = await lathe();
    const begun = await begin(id);
    const batch: ReadingWrite[] = [reading(20, '1 div'), reading(400, null)];
    const { body } = await shop.http.post(`/api/rounds/${begun.id}/readings`).send(batch).expect(400);
    expect(body.errors[0].path).toBe('[1].value');
    expect((await rounds(id))[0].readings).toEqual([]);
  });

  it('refuses readings and rounds whose parts are wrong, each by its path', async () => {
    const { id } = await lathe();
    const begun = await begin(id);
    const bad = { ...reading(20, '1 div'), by: '', at: 'yesterday', set: 0, id: 'one' };
    const { body } = await shop.http.post(`/api/rounds/${begun.id}/readings`).send(bad).expect(400);
    expect(body.errors.map((fault: { path: string }) => fault.path).sort()).toEqual(['at', 'by', 'id', 'set']);
    const other = await shop.http
      .post('/api/rounds')
      .send({ ...round(uuid()), id: uuid() })
      .expect(400);
    expect(other.body.errors[0].path).toBe('machineId');
    await shop.http
      .put(`/api/rounds/${begun.id}`)
      .send({ ...begun, id: uuid() })
      .expect(400);
  });

  it('a change that arrives twice is no conflict', async () => {
    const { id } = await lathe();
    const begun = await begin(id);
    const change = { ...begun, setup: { centreDistance: '500 mm' } };
    await shop.http.put(`/api/rounds/${begun.id}`).send(change).expect(200);
    await shop.http.put(`/api/rounds/${begun.id}`).send(change).expect(200);
    const dial = indicator();
    await shop.http.post('/api/kit').send(dial);
    const renamed = { ...dial, name: 'Renamed' };
    await shop.http.put(`/api/kit/${dial.id}`).send(renamed).expect(200);
    await shop.http.put(`/api/kit/${dial.id}`).send(renamed).expect(200);
  });

  it('writes down who did what, newest first', async () => {
    const { id } = await lathe();
    const begun = await begin(id);
    await shop.http.post('/api/moves').send(move(begun.id)).expect(201);
    const {
      body: { entries: body },
    } = await shop.http.get(`/api/log?machine=${id}`).expect(200);
    expect(body.map((entry: { what: string }) => entry.what).sort()).toEqual(['machine', 'move', 'round']);
    for (const entry of body) expect(entry.by).toBe('AB');
  });

  it('the finding of a round uses the machine’s adjuster and the shims in the drawer', async () => {
    const { id } = await lathe();
    await shop.http
      .post('/api/kit')
      .send({ id: uuid(), kind: 'shim-stock', name: 'Drawer', data: { stock: [{ thickness: '0.03 mm', count: 2 }] }, by: 'AB', version: 1 })
      .expect(201);
    const begun = await begin(id);
    const top = (at: number, value: string) => ({ ...reading(at, value), keys: { plane: 'v', at } });
    await shop.http
      .post(`/api/rounds/${begun.id}/readings`)
      .send([reading(20, '0 div'), reading(400, '-9.5 div'), top(20, '0 div'), top(400, '-13.5 div')])
      .expect(201);
    const { finding } = (await shop.http.get(`/api/rounds/${begun.id}/finding`)).body as RoundFinding;
    const kinds = finding?.moves.map((entry) => [entry.kind, entry['turns'] ?? entry['leaves']]);
    expect(kinds).toEqual([
      ['adjuster', jasmine.any(Number)],
      ['shim-leaves', [30]],
    ]);
  });
});
