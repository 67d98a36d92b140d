import type { RoundHead, StoredSurvey } from '@isometra/contract';
import { indicator, machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';

/** The same request several times at once. */
const atOnce = <T>(times: number, send: (i: number) => PromiseLike<T>): Promise<T[]> =>
  Promise.all(Array.from({ length: times }, (_, i) => send(i)));
const all = (status: number, times: number) => Array.from({ length: times }, () => status);

describe('sent at the same moment', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const post = (path: string, body: object) => shop.http.post(`/api${path}`).send(body);
  const statuses = async (times: number, send: (i: number) => PromiseLike<{ status: number }>) =>
    (await atOnce(times, send)).map(({ status }) => status);
  const lathe = async () => {
    const added = machine();
    await post('/machines', added).expect(201);
    return added.id;
  };
  const begun = async () => {
    const sent = round(await lathe());
    await post('/rounds', sent).expect(201);
    return sent;
  };

  it('four times one machine, one piece of kit, one round, one move: each is there once', async () => {
    const added = machine();
    expect(await statuses(4, () => post('/machines', added))).toEqual(all(201, 4));
    const dial = indicator();
    expect(await statuses(4, () => post('/kit', dial))).toEqual(all(201, 4));
    const sent = round(added.id);
    expect(await statuses(4, () => post('/rounds', sent))).toEqual(all(201, 4));
    const decided = move(sent.id);
    expect(await statuses(4, () => post('/moves', decided))).toEqual(all(201, 4));
    const heads = (await shop.http.get(`/api/machines/${added.id}/heads`)).body as RoundHead[];
    expect(heads.map(({ moves }) => moves.length)).toEqual([1]);
    const log = (await shop.http.get(`/api/log?machine=${added.id}`)).body.entries as { what: string }[];
    expect(log.map(({ what }) => what).sort()).toEqual(['machine', 'move', 'round']);
  });

  it('four first rounds of a new check all succeed, in one rung', async () => {
    const machineId = await lathe();
    expect(await statuses(4, () => post('/rounds', round(machineId)))).toEqual(all(201, 4));
    const heads = (await shop.http.get(`/api/machines/${machineId}/heads`)).body as RoundHead[];
    expect(heads.map(({ number }) => number).sort()).toEqual([1, 2, 3, 4]);
    const [{ count }] = await shop.sequelize.query<{ count: number }>('SELECT COUNT(*) AS count FROM checks', { type: 'SELECT' as never });
    expect(Number(count)).toBe(1);
  });

  it('readings of one round, each several times: every one once, in its own place', async () => {
    const { id } = await begun();
    const readings = Array.from({ length: 8 }, (_, i) => reading(i, `${i} div`));
    expect(await statuses(24, (i) => post(`/rounds/${id}/readings`, readings[i % 8]))).toEqual(all(201, 24));
    const { body } = await shop.http.get(`/api/rounds/${id}`);
    expect(body.readings.map((entry: { sequence: number }) => entry.sequence)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  });

  it('one reading is replaced by one of two, and the other is told so', async () => {
    const { id } = await begun();
    const first = reading(20, '1 div');
    await post(`/rounds/${id}/readings`, first).expect(201);
    const told = await statuses(2, (i) =>
      post(`/rounds/${id}/readings`, reading(20, `${i} div`, { supersedes: first.id, why: 'misread' })),
    );
    expect(told.sort()).toEqual([201, 409]);
  });

  it('two changes of one move: the second is told what the first made of it, whatever it changed', async () => {
    const decided = move((await begun()).id);
    await post('/moves', decided).expect(201);
    const put = (change: object) => shop.http.put(`/api/moves/${decided.id}`).send({ ...decided, ...change });
    const told = await Promise.all([put({ ticks: [0] }), put({ plan: { turns: 2 } })]);
    expect(told.map(({ status }) => status).sort()).toEqual([200, 409]);
    const refused = told.find(({ status }) => status === 409)?.body;
    expect(refused.current.version).toBe(2);
    await put({ ticks: [0], version: 2, doneAt: '2026-03-01T07:00:00.000Z' }).expect(400);
  });

  it('two surveys begun: one of them runs', async () => {
    const machineId = await lathe();
    const [{ judge: _judge, notes: _notes, ...ran }] = (await shop.http.get(`/api/machines/${machineId}/surveys`)).body as StoredSurvey[];
    const next = (i: number) => ({ ...ran, id: uuid(), title: `Survey ${i}`, by: 'AB', startedAt: `2026-05-0${i + 1}T08:00:00.000Z` });
    expect(await statuses(4, (i) => post('/surveys', next(i)))).toEqual(all(201, 4));
    const surveys = (await shop.http.get(`/api/machines/${machineId}/surveys`)).body as StoredSurvey[];
    expect(surveys.filter(({ endedAt }) => endedAt === null).length).toBe(1);
  });

  it('an id that belongs to something else is told as such', async () => {
    const sent = await begun();
    const taken = reading(20, '1 div');
    await post(`/rounds/${sent.id}/readings`, taken).expect(201);
    const other = round(sent.machineId);
    await post('/rounds', other).expect(201);
    const { body } = await post(`/rounds/${other.id}/readings`, taken).expect(409);
    expect(body.errors[0].path).toBe('id');
    await post('/rounds', { ...sent, check: 'bed-twist', setup: {}, plan: {}, instrument: null }).expect(409);
  });
});
