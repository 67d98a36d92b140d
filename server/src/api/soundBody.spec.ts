import { openShop, machine, move, reading, round, type TestShop } from '../testing/shop.js';
import { unsound } from './soundBody.js';

const nested = (depth: number): unknown => {
  let value: unknown = 1;
  for (let k = 0; k < depth; k++) value = { a: value };
  return value;
};

describe('a body that could not be stored', () => {
  it('is told with its path, whatever is wrong with it', () => {
    expect(unsound({ card: { nickname: 'long \ud83d\ude00 lathe', width: 3 } })).toEqual([]);
    expect(unsound({ card: { nickname: 'half \ud800' } }).map(({ path }) => path)).toEqual(['card.nickname']);
    expect(unsound({ list: [1, { by: 'A\u0000' }] }).map(({ path }) => path)).toEqual(['list[1].by']);
    expect(unsound({ '\udc00': 1 })[0].message).toContain('name');
    expect(unsound({ amount: 1e308 }).map(({ path }) => path)).toEqual(['amount']);
    expect(unsound(nested(29))).toEqual([]);
    expect(unsound(nested(100_000)).length).toBe(1);
    expect(unsound(Array.from({ length: 500 }, () => 1e300)).length).toBe(20);
    for (const fault of unsound({ a: '\ud800', b: 1e300, c: nested(60) })) expect(fault.message && fault.example).toBeTruthy();
  });
});

describe('the API', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  it('answers 400 with the field to what the database would refuse', async () => {
    const refused = async (path: string, body: object): Promise<string[]> =>
      ((await shop.http.post(path).send(body).expect(400)).body as { errors: { path: string }[] }).errors.map((fault) => fault.path);
    const lathe = machine();
    expect(await refused('/api/machines', { ...lathe, card: { ...lathe.card, nickname: 'x\ud800' } })).toEqual(['card.nickname']);
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const taken = round(lathe.id);
    expect(await refused('/api/rounds', { ...taken, plan: nested(40) as object })).toEqual([jasmine.stringMatching(/^plan/)]);
    await shop.http.post('/api/rounds').send(taken).expect(201);
    expect(await refused(`/api/rounds/${taken.id}/readings`, { ...reading(20, '1 div'), why: '\udfff' })).toEqual(['why']);
    expect(await refused('/api/moves', { ...move(taken.id), amount: 1e308 })).toEqual(['amount']);
  });

  it('tells a story, and every fault of a file', async () => {
    const sheet = {
      format: 'isometra-sheet/1',
      check: 'tailstock-traverse',
      instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1 },
      setup: { centreDistance: 420 },
      readings: [20, 400].map((at) => ({ plane: 'h', at, value: at / 10 })),
    };
    const file = {
      format: 'isometra-history/1',
      machine: { kind: 'engine-lathe', adjuster: { pitch: '1.5 mm' } },
      entries: [{ at: '2026-03-02T18:00:00Z', id: 'r1', round: sheet }],
    };
    const { body } = await shop.http.post('/api/history').send(file).expect(200);
    expect(body.format).toBe('isometra-story/1');
    expect(body.steps[0].plan.kind).toBe('adjuster');
    const refused = await shop.http
      .post('/api/history')
      .send({ ...file, machine: {} })
      .expect(400);
    expect(refused.body.errors[0].path).toBe('machine.kind');
  });
});
