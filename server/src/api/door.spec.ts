import { CHECKS } from '@isometra/core';
import { machine, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';
import { ReadingRow, RoundRow } from '../db/surveyModels.js';

const paths = ({ body }: { body: { errors: { path: string }[] } }): string[] => body.errors.map(({ path }) => path).sort();

describe('the door of the notebook', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const lathe = async () => {
    const added = machine();
    await shop.http.post('/api/machines').send(added).expect(201);
    return added.id;
  };
  const begun = async () => {
    const sent = round(await lathe());
    await shop.http.post('/api/rounds').send(sent).expect(201);
    return sent;
  };

  it('lets no round in that its check cannot read, and says what would do', async () => {
    const machineId = await lathe();
    const bad = { ...round(machineId), check: 'head-tram', setup: { radius: 'banana' }, plan: { angles: 'all' } };
    const refused = await shop.http.post('/api/rounds').send(bad).expect(400);
    expect(paths(refused)).toContain('setup.radius');
    expect(refused.body.errors.every(({ message }: { message: string }) => message !== '')).toBeTrue();
    expect(await RoundRow.count()).toBe(0);
  });

  it('lets no change in either: the round stays as it was', async () => {
    const sent = await begun();
    const refused = await shop.http
      .put(`/api/rounds/${sent.id}`)
      .send({ ...sent, setup: { centreDistance: 'far' } })
      .expect(400);
    expect(paths(refused)).toEqual(['setup.centreDistance']);
    const { body } = await shop.http.get(`/api/rounds/${sent.id}`);
    expect(body.setup).toEqual(sent.setup);
  });

  it('lets no reading in with a key or a value that its check does not take', async () => {
    const { id } = await begun();
    const send = (keys: object, value = '1 div') => shop.http.post(`/api/rounds/${id}/readings`).send({ ...reading(20, value), keys });
    expect(paths(await send({ plane: 'h', at: 20, foo: 1 }).expect(400))).toEqual(['keys.foo']);
    expect(paths(await send({ plane: 'h' }).expect(400))).toEqual(['keys.at']);
    expect(paths(await send({ plane: 'h', at: 20 }, 'about ten').expect(400))).toEqual(['value']);
    expect(await ReadingRow.count()).toBe(0);
  });

  it('garble of any kind is a 400, for every check', async () => {
    const machineId = await lathe();
    const garbles = [
      { a: [{ b: null }] },
      { radius: { toString: 1 } },
      { supports: 'x', bar: 7, stack: [null] },
      { __proto__: { x: 1 }, level: -1e308 },
    ];
    for (const check of CHECKS.keys()) {
      for (const setup of garbles) {
        const { status } = await shop.http
          .post('/api/rounds')
          .send({ ...round(machineId), id: uuid(), check, setup, plan: { stations: 'x' } });
        expect(status)
          .withContext(`${check} ${JSON.stringify(setup)}`)
          .toBe(400);
      }
    }
  });

  it('what an older version let in silences itself only, and is told beside the finding', async () => {
    const { id } = await begun();
    await shop.http
      .post(`/api/rounds/${id}/readings`)
      .send([reading(20, '0 div'), reading(400, '-9.5 div')])
      .expect(201);
    const [first] = await ReadingRow.findAll({ where: { roundId: id } });
    await ReadingRow.create({ ...first.get(), keys: { plane: 'h', at: 200, foo: 1 }, id: uuid(), sequence: 3 });
    const { body } = await shop.http.get(`/api/rounds/${id}/finding`).expect(200);
    expect(body.finding.quantities.offsetHorizontal.value).toBeCloseTo(-21, 6);
    expect(body.faults.map(({ path }: { path: string }) => path)).toEqual(['readings[2].foo']);
    await RoundRow.update({ setup: { centreDistance: 'banana' } }, { where: { id } });
    const broken = (await shop.http.get(`/api/rounds/${id}/finding`).expect(200)).body;
    expect(broken.finding).toBeNull();
    expect(broken.faults.map(({ path }: { path: string }) => path)).toContain('setup.centreDistance');
  });
});

describe('bounds', () => {
  let shop: TestShop;
  beforeAll(async () => {
    shop = await openShop();
    await shop.http.post('/api/move').send({});
  });
  afterAll(() => shop.close());

  const sheet = (check: string, readings: readonly object[], setup: object = {}) => ({
    format: 'isometra-sheet/1',
    check,
    setup,
    readings,
  });
  const sweep = (count: number) =>
    sheet(
      'tailstock-sweep',
      Array.from({ length: count }, (_, i) => ({ angle: (360 * i) / count, value: `${i % 3} um` })),
      { radius: '30 mm' },
    );
  const leaves = Array.from({ length: 60 }, (_, i) => ({ thickness: `${(20 + 7.3 * i).toFixed(1)} um`, count: 9 }));
  const heavy: Readonly<Record<string, () => [string, object]>> = {
    'a sweep of ten thousand readings': () => ['/api/solve', sweep(10_000)],
    'three thousand level steps': () => [
      '/api/solve',
      sheet(
        'way-straightness',
        Array.from({ length: 3000 }, (_, i) => ({ at: `${i * 100} mm`, value: `${i % 5} um/m` })),
        { method: 'level', base: '100 mm' },
      ),
    ],
    'a step-scrape of ten million strips': () => [
      '/api/move',
      { format: 'isometra-move/1', move: 'step-scrape', amount: 1, length: '10000 m', depth: '10 mm', blade: '1 mm', perPass: '0.001 um' },
    ],
    'sixty kinds of shim leaf': () => ['/api/move', { format: 'isometra-move/1', move: 'shim-leaves', amount: 12_345.6, stock: leaves }],
  };
  for (const [name, make] of Object.entries(heavy)) {
    it(`${name} is answered or refused, and another request does not wait for it`, async () => {
      const [path, body] = make();
      const long = shop.http.post(path).send(body);
      const light = shop.http.get('/api/health');
      const order: string[] = [];
      const [told] = await Promise.all([long.then((answer) => (order.push('heavy'), answer)), light.then(() => order.push('light'))]);
      expect([200, 400, 413, 422]).toContain(told.status);
      expect(order).toEqual(['light', 'heavy']);
    });
  }
});
