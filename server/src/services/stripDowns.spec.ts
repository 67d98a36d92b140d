import type { LogPage, NeededPart, Part, PartWrite, StateHead, StoredStripDown } from '@isometra/contract';
import { machine, openShop, uuid, type TestShop } from '../testing/shop.js';

const AT = '2026-03-01T08:00:00.000Z';

describe('a strip-down', () => {
  let shop: TestShop;
  let machineId: string;
  let stripDownId: string;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(async () => {
    await shop.clear();
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    machineId = lathe.id;
    stripDownId = uuid();
    await shop.http.post('/api/strip-downs').send(begun()).expect(201);
  });
  afterAll(() => shop.close());

  const begun = (more: object = {}) => ({ id: stripDownId, machineId, name: 'Headstock', version: 1, by: 'HB', at: AT, ...more });
  const part = (number: number, details: Record<string, unknown> = {}, more: Partial<PartWrite> = {}): PartWrite => ({
    ...{ id: uuid(), stripDownId, number, place: number, details: { name: `Part ${number}`, ...details } },
    ...{ need: null, fitted: null, pictures: [], version: 1, by: 'HB', at: AT },
    ...more,
  });
  const add = async (sent: PartWrite, status = 201) => (await shop.http.post('/api/parts').send(sent).expect(status)).body;
  const change = async (sent: PartWrite, status = 200) => (await shop.http.put(`/api/parts/${sent.id}`).send(sent).expect(status)).body;
  const all = async (): Promise<StoredStripDown[]> => (await shop.http.get(`/api/machines/${machineId}/strip-downs`).expect(200)).body;
  const texts = async (): Promise<string[]> =>
    ((await shop.http.get('/api/log').query({ what: 'strip-down' }).expect(200)).body as LogPage).entries.map(({ text }) => text).reverse();

  it('keeps its parts as typed, in the order in which they came off, and tells them in the logbook', async () => {
    const shims = [{ joint: 'headstock', thickness: '12 thou' }];
    await add(part(2));
    await add(part(1, { shims }));
    expect((await all()).map(({ name, parts }) => [name, parts.map(({ number, details }) => [number, details['shims']])])).toEqual([
      [
        'Headstock',
        [
          [1, shims],
          [2, undefined],
        ],
      ],
    ]);
    expect(await texts()).toEqual(['Headstock: strip-down begun', 'Headstock: 2 Part 2 came off', 'Headstock: 1 Part 1 came off']);
  });

  it('sent twice, also at the same moment, a part is there once', async () => {
    const sent = part(1);
    const answers = await Promise.all(Array.from({ length: 4 }, () => shop.http.post('/api/parts').send(sent)));
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201, 201]);
    expect((await all())[0].parts.length).toBe(1);
    await shop.http.post('/api/strip-downs').send(begun()).expect(201);
    expect((await all()).length).toBe(1);
  });

  it('gives a number to one part: another is told who has it and which is free; a removed one gives it back', async () => {
    const first = await add(part(5, { name: 'Quill' }));
    const refused = await add(part(5), 409);
    expect([refused.errors[0].path, refused.errors[0].message, refused.errors[0].example]).toEqual([
      'number',
      '5 is on Quill already',
      '6',
    ]);
    await change({ ...first, removed: true, by: 'SD', at: AT });
    await add(part(5));
    // The number is taken now: the removed one comes back only with another.
    await change({ ...first, version: 2, removed: false, by: 'SD', at: AT }, 409);
    await change({ ...first, version: 2, number: 6, removed: false, by: 'SD', at: AT });
    expect((await all())[0].parts.map(({ number, removed }) => [number, removed])).toEqual([
      [5, undefined],
      [6, undefined],
    ]);
  });

  it('two people who take the same number at the same moment: one of them gets it', async () => {
    const answers = await Promise.all([1, 2, 3].map(() => shop.http.post('/api/parts').send(part(7))));
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
  });

  it('names the field that is wrong, also deep in the record', async () => {
    const { errors } = await add(part(1, { name: ' ', shims: [{ joint: 'headstock', thickness: 'thick' }] }), 400);
    expect(errors.map(({ path }: { path: string }) => path)).toEqual(['details.name', 'details.shims[0].thickness']);
    expect((await add(part(1, {}, { pictures: [{ hash: 'a'.repeat(64), marks: [] }] }), 400)).errors[0].path).toBe('pictures[0].hash');
    expect((await add({ ...part(1), stripDownId: uuid() }, 404)).errors[0].path).toBe('id');
  });

  it('keeps every state of a part, told field by field; a stale change gets what stands now', async () => {
    const first: Part = await add(part(1, { condition: 'order', box: 'box 1' }));
    const ordered = await change({ ...first, need: { state: 'ordered', expected: '2026-04-01' }, by: 'SD', at: AT });
    await change({ ...ordered, details: { ...ordered.details, box: 'box 2' }, by: 'SD', at: AT });
    const late = await change({ ...first, details: { ...first.details, box: 'box 3' }, by: 'RM', at: AT }, 409);
    expect([late.code, late.current.details.box]).toEqual(['stale', 'box 2']);
    const states = (await shop.http.get(`/api/parts/${first.id}/states`).expect(200)).body as StateHead[];
    expect(states.map(({ version, by, changes }) => [version, by, changes])).toEqual([
      [3, 'SD', [{ field: 'Kept in', from: 'box 1', to: 'box 2' }]],
      [
        2,
        'SD',
        [
          { field: 'State', from: null, to: 'ordered' },
          { field: 'Expected', from: null, to: '2026-04-01' },
        ],
      ],
      [1, 'HB', []],
    ]);
    expect((await texts()).slice(2)).toEqual([
      'Headstock: 1 Part 1: order a new one: ordered, expected 1 Apr 2026',
      'Headstock: 1 Part 1: changed',
    ]);
  });

  it('says when a part is fitted, and when it is not after all', async () => {
    const first: Part = await add(part(1));
    const fitted = await change({ ...first, fitted: { by: 'HB', at: AT, ticks: ['marks'] }, by: 'HB', at: AT });
    await change({ ...fitted, fitted: null, by: 'HB', at: AT });
    expect((await texts()).slice(2)).toEqual(['Headstock: 1 Part 1: fitted', 'Headstock: 1 Part 1: not fitted after all']);
  });

  it('lists what is needed across the shop: not what is done, archived, or of an archived machine', async () => {
    const needed = async (): Promise<number[]> =>
      ((await shop.http.get('/api/parts').expect(200)).body as NeededPart[]).map(({ part: { number } }) => number);
    await add(part(1, { condition: 'clean' }));
    await add(part(2, { condition: 'order' }, { need: { state: 'done' } }));
    await add(part(3, { condition: 'order' }, { need: { state: 'ordered', expected: '2026-02-01' } }));
    await add(part(4, { condition: 'good' }));
    expect(await needed()).toEqual([3, 1]);
    const archived = begun({ archived: true });
    await shop.http.put(`/api/strip-downs/${stripDownId}`).send(archived).expect(200);
    expect(await needed()).toEqual([]);
    await shop.http
      .put(`/api/strip-downs/${stripDownId}`)
      .send({ ...archived, archived: false, name: 'Apron' })
      .expect(409);
    await shop.http
      .put(`/api/strip-downs/${stripDownId}`)
      .send({ ...archived, archived: false, version: 2 })
      .expect(200);
    expect(await needed()).toEqual([3, 1]);
    await shop.http.post(`/api/machines/${machineId}/archive`).send({ away: true, by: 'HB' }).expect(200);
    expect(await needed()).toEqual([]);
  });

  it('is found by name, with its parts', async () => {
    await add(part(1, { name: 'Front cap' }));
    const { body } = await shop.http.get('/api/finder').expect(200);
    expect(body.parts.map(({ name, number }: { name: string; number: number | null }) => [name, number])).toEqual([
      ['Front cap', 1],
      ['Headstock', null],
    ]);
  });
});
