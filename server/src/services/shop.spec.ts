import { LogRow } from '../db/shopModels.js';
import { machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';

const LATER = '2199-01-03T10:00:00.000Z';
const READ = '2026-03-01T18:40:00.000Z';

describe('the time of the shop', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  it('is that of the first browser until somebody chooses one; later browsers change nothing', async () => {
    expect((await shop.http.get('/api/shop').expect(200)).body).toEqual({ timeZone: null, chosenBy: null });
    const first = (timeZone: string) => shop.http.post('/api/shop/first-browser').send({ timeZone });
    const [one, other] = await Promise.all([first('Europe/Lisbon'), first('Asia/Tokyo')]);
    expect(one.body).toEqual(other.body);
    expect((await first('America/Chicago').expect(200)).body).toEqual(one.body);
    const chosen = { timeZone: 'Pacific/Auckland', chosenBy: 'AB' };
    expect((await shop.http.put('/api/shop').send({ timeZone: 'Pacific/Auckland', by: 'AB' }).expect(200)).body).toEqual(chosen);
    expect((await first('Europe/Lisbon')).body).toEqual(chosen);
    expect((await LogRow.findOne())?.text).toBe(`Time zone of the shop: Pacific/Auckland, was ${one.body.timeZone}`);
  });

  it('takes no zone that is not one, and names the field', async () => {
    const refused = await shop.http.put('/api/shop').send({ timeZone: 'Mars/Olympus', by: 'AB' }).expect(400);
    expect(refused.body.errors).toEqual([
      jasmine.objectContaining({ path: 'timeZone', message: jasmine.stringContaining('Europe/Lisbon') }),
    ]);
    await shop.http.post('/api/shop/first-browser').send({}).expect(400);
  });
});

/** Everything of a machine that a list shows. */
const heads = async (shop: TestShop, machineId: string) => (await shop.http.get(`/api/machines/${machineId}/heads`).expect(200)).body;

describe('a round dated beyond the server’s own time', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const dated = async (at: string) => {
    const added = machine();
    await shop.http.post('/api/machines').send(added).expect(201);
    const sent = { ...round(added.id), at };
    await shop.http.post('/api/rounds').send(sent).expect(201);
    for (const place of [20, 400])
      for (const turn of [0, 180])
        await shop.http
          .post(`/api/rounds/${sent.id}/readings`)
          .send(reading(place, `${turn / 90} div`))
          .expect(201);
    return sent;
  };
  const rungOf = (plate: { strip: { id: string; state: string }[] }) => plate.strip.find(({ id }) => id === 'tailstock-traverse')?.state;
  const board = async () => (await shop.http.get('/api/board').expect(200)).body.plates[0];

  it('is kept and marked, and does not rule on the board; nothing is moved by it', async () => {
    const sent = await dated(LATER);
    const [head] = await heads(shop, sent.machineId);
    expect(head.ahead).toBeTrue();
    expect((await shop.http.get(`/api/rounds/${sent.id}`)).body.ahead).toBeTrue();
    expect(rungOf(await board())).toBe('none');
    const refused = await shop.http.post('/api/moves').send(move(sent.id)).expect(409);
    expect(refused.body.errors[0]).toEqual(
      jasmine.objectContaining({ path: 'roundId', message: jasmine.stringContaining('put its date right') }),
    );
    // What was written down in the log is dated when it came in.
    const [log] = await LogRow.findAll({ where: { what: 'round' } });
    expect(log.at.getTime()).toBeLessThanOrEqual(Date.now());
  });

  it('is dated anew with a reason, once, and rules from then on', async () => {
    const sent = await dated(LATER);
    const redate = { id: sent.id, at: READ, why: 'clock of the tablet', by: 'AB', version: 1 };
    const send = (more: object = {}) => shop.http.post(`/api/rounds/${sent.id}/date`).send({ ...redate, ...more });
    expect((await send({ why: ' ' }).expect(400)).body.errors[0].path).toBe('why');
    expect((await send({ at: LATER }).expect(400)).body.errors[0]).toEqual(
      jasmine.objectContaining({ path: 'at', message: jasmine.stringContaining('clock of the server') }),
    );
    await send({ id: uuid() }).expect(400);
    const { body } = await send().expect(200);
    expect([body.at, body.version]).toEqual([READ, 2]);
    // Sent twice it stands; another date by somebody who did not see it is a conflict.
    await send().expect(200);
    await send({ at: '2026-03-02T18:40:00.000Z' }).expect(409);
    const [head] = await heads(shop, sent.machineId);
    expect([head.ahead, head.at]).toEqual([undefined, READ]);
    expect(rungOf(await board())).not.toBe('none');
    await shop.http.post('/api/moves').send(move(sent.id)).expect(201);
    const log = (await LogRow.findAll({ where: { what: 'round' }, order: [['id', 'DESC']] }))[0].text;
    expect(log).toBe('Bar between centres, round 1: date put right from 3 Jan 2199, 10:00 to 1 Mar 2026, 18:40. clock of the tablet');
  });

  it('is the rule only for rounds: what else comes with a clock that is ahead is dated when it comes in', async () => {
    const sent = await dated(READ);
    const late = { ...move(sent.id), begunAt: LATER, doneAt: LATER };
    const { body } = await shop.http.post('/api/moves').send(late).expect(201);
    expect(Date.parse(body.doneAt)).toBeLessThanOrEqual(Date.now());
    expect((await LogRow.findOne({ where: { what: 'move' } }))?.text).toContain('Its clock was ahead');
  });
});

describe('a spoilt round', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const read = async () => {
    const added = machine();
    await shop.http.post('/api/machines').send(added).expect(201);
    const sent = round(added.id);
    await shop.http.post('/api/rounds').send(sent).expect(201);
    for (const [place, value] of [
      [20, '0 div'],
      [400, '2 div'],
    ] as const)
      await shop.http.post(`/api/rounds/${sent.id}/readings`).send(reading(place, value)).expect(201);
    return sent;
  };
  const strike = (id: string, why: string | null, version: number) =>
    shop.http.post(`/api/rounds/${id}/strike`).send({ id, why, by: 'AB', version });
  const state = async () => {
    const { body } = await shop.http.get('/api/board').expect(200);
    return body.plates[0].strip.find(({ id }: { id: string }) => id === 'tailstock-traverse').state;
  };

  it('is struck out with a reason, kept, and counted nowhere; taken back it counts again', async () => {
    const { id, machineId } = await read();
    expect(await state()).not.toBe('none');
    expect((await strike(id, '  ', 1).expect(400)).body.errors[0].path).toBe('why');
    await strike(id, 'the bar was not home', 1).expect(200);
    // Sent twice it is struck out once.
    await strike(id, 'the bar was not home', 1).expect(200);
    expect(await state()).toBe('none');
    const [head] = await heads(shop, machineId);
    expect(head.struck).toEqual(jasmine.objectContaining({ why: 'the bar was not home', by: 'AB' }));
    expect((await shop.http.get(`/api/rounds/${id}`)).body.struck.why).toBe('the bar was not home');
    expect((await shop.http.post('/api/moves').send(move(id)).expect(409)).body.errors[0].message).toContain('discarded');
    await strike(id, null, 1).expect(409);
    await strike(id, null, 2).expect(200);
    expect(await state()).not.toBe('none');
    const log = (await LogRow.findAll({ where: { what: 'round' }, order: [['id', 'DESC']] })).map(({ text }) => text);
    expect(log.slice(0, 2)).toEqual([
      'Bar between centres, round 1: restored',
      'Bar between centres, round 1: discarded. the bar was not home',
    ]);
  });

  it('stays where its move was done: what was moved was moved', async () => {
    const { id } = await read();
    await shop.http
      .post('/api/moves')
      .send({ ...move(id), doneAt: READ })
      .expect(201);
    expect((await strike(id, 'spoilt', 1).expect(409)).body.errors[0].message).toContain('its move was done');
  });
});
