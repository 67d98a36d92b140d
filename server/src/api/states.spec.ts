import { EarlierStateRow } from '../db/shopModels.js';
import { surveyWriteOf } from '@isometra/work';
import { indicator, machine, openShop, round, uuid, type TestShop } from '../testing/shop.js';

interface Head {
  readonly version: number;
  readonly by: string | null;
  readonly at: string | null;
  readonly changes: readonly object[];
}

describe('earlier states', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const statesOf = async (path: string): Promise<readonly Head[]> => (await shop.http.get(`/api${path}/states`).expect(200)).body;

  it('of a card that was changed five times: each with who, when and what; as it stood after the second; put back as a sixth', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const notes = ['one', 'two', 'three', 'four', 'five'];
    for (const [i, note] of notes.entries()) {
      const card = { ...lathe.card, notes: note, swing: `${360 + i} mm` };
      await shop.http
        .put(`/api/machines/${lathe.id}`)
        .send({ ...lathe, card, version: i + 1, by: `U${i}` })
        .expect(200);
    }
    const states = await statesOf(`/machines/${lathe.id}`);
    expect(states.map(({ version, by }) => [version, by])).toEqual([
      [6, 'U4'],
      [5, 'U3'],
      [4, 'U2'],
      [3, 'U1'],
      [2, 'U0'],
      [1, lathe.by],
    ]);
    expect(states[0].changes).toEqual([
      { field: 'Swing over bed', from: '363 mm', to: '364 mm' },
      { field: 'Notes', from: 'four', to: 'five' },
    ]);
    const { body: then } = await shop.http.get(`/api/machines/${lathe.id}/states/3`).expect(200);
    expect(then.state).toEqual({ ...lathe.card, notes: 'two', swing: '361 mm' });
    await shop.http
      .put(`/api/machines/${lathe.id}`)
      .send({ ...lathe, card: then.state, version: 6, by: 'HB' })
      .expect(200);
    const [newest, ...before] = await statesOf(`/machines/${lathe.id}`);
    expect([newest.version, newest.by, before.length]).toEqual([7, 'HB', 6]);
    expect(newest.changes).toContain({ field: 'Notes', from: 'five', to: 'two' });
  });

  it('a card that is older than this keeps the state before its first change; nobody knows whose that was', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    await EarlierStateRow.destroy({ where: {} });
    const card = { ...lathe.card, nickname: 'the long one' };
    await shop.http
      .put(`/api/machines/${lathe.id}`)
      .send({ ...lathe, card, version: 1, by: 'RM' })
      .expect(200);
    const states = await statesOf(`/machines/${lathe.id}`);
    expect(states.map(({ version, by, at }) => [version, by, at === null])).toEqual([
      [2, 'RM', false],
      [1, null, true],
    ]);
    const { body: then } = await shop.http.get(`/api/machines/${lathe.id}/states/1`).expect(200);
    expect(then.state).toEqual(lathe.card);
  });

  it('what was sent twice, or changes nothing, is no state of its own; a stale change neither', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    await shop.http.post('/api/machines').send(lathe).expect(201);
    await shop.http
      .put(`/api/machines/${lathe.id}`)
      .send({ ...lathe, version: 1 })
      .expect(200);
    await shop.http
      .put(`/api/machines/${lathe.id}`)
      .send({ ...lathe, version: 1, card: { ...lathe.card, notes: 'late' } })
      .expect(409);
    expect((await statesOf(`/machines/${lathe.id}`)).length).toBe(1);
  });

  it('of a piece of kit are told in the words of its form', async () => {
    const dial = indicator();
    await shop.http
      .post('/api/kit')
      .send({ ...dial, by: 'HB' })
      .expect(201);
    await shop.http
      .put(`/api/kit/${dial.id}`)
      .send({ ...dial, name: 'Renamed', version: 1, by: 'SD' })
      .expect(200);
    const [now, first] = await statesOf(`/kit/${dial.id}`);
    expect([now.by, now.changes]).toEqual(['SD', [{ field: 'name', from: dial.name, to: 'Renamed' }]]);
    expect(first.changes).toEqual([]);
  });

  it('that are not there say so', async () => {
    expect(await statesOf(`/machines/${uuid()}`)).toEqual([]);
    await shop.http.get(`/api/machines/${uuid()}/states/1`).expect(404);
    await shop.http.get(`/api/machines/${uuid()}/states/first`).expect(404);
  });

  it('of the set-up of a round: what it was begun with, and what was put right, in the words of its form', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const begun = round(lathe.id);
    await shop.http.post('/api/rounds').send(begun).expect(201);
    const setup = { ...begun.setup, bar: { ...(begun.setup['bar'] as object), diameter: '28 mm' } };
    await shop.http
      .put(`/api/rounds/${begun.id}`)
      .send({ ...begun, setup, by: 'SD' })
      .expect(200);
    const { body } = await shop.http.get(`/api/rounds/${begun.id}/states`).expect(200);
    expect(body.map(({ version, by }: { version: number; by: string }) => [version, by])).toEqual([
      [2, 'SD'],
      [1, begun.by],
    ]);
    expect(body[0].changes).toEqual([jasmine.objectContaining({ field: jasmine.stringContaining('iameter'), to: '28 mm' })]);
    const first = (await shop.http.get(`/api/rounds/${begun.id}/states/1`).expect(200)).body;
    expect(first.state.setup).toEqual(begun.setup);
  });

  it('of a survey: title, order, what is left out and its limits', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const [survey] = (await shop.http.get(`/api/machines/${lathe.id}/surveys`).expect(200)).body;
    const changed = { ...surveyWriteOf(survey), title: 'Autumn', order: survey.order.slice(1), by: 'SD' };
    await shop.http.put(`/api/surveys/${survey.id}`).send(changed).expect(200);
    const { body } = await shop.http.get(`/api/surveys/${survey.id}/states`).expect(200);
    expect(body[0].changes.map(({ field }: { field: string }) => field).sort()).toEqual(['Checks in order', 'Title']);
    expect(body[0].changes.find(({ field }: { field: string }) => field === 'Title')).toEqual({
      field: 'Title',
      from: survey.title,
      to: 'Autumn',
    });
    expect((await shop.http.get(`/api/surveys/${survey.id}/states/1`).expect(200)).body.state.order).toEqual(survey.order);
  });
});
