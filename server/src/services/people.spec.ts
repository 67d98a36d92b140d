import type { ListedPerson, LogPage, Remark, StateHead } from '@isometra/contract';
import { SHOP_ID } from '@isometra/contract';
import { machine, openShop, uuid, type TestShop } from '../testing/shop.js';

describe('the page of the shop', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const write = (card: object, version: number, more: object = {}, status = 200) =>
    shop.http
      .put('/api/shop/card')
      .send({ card, mark: null, version, by: 'HB', ...more })
      .expect(status);

  it('is kept as typed, with every state it has had; a stale change gets what stands now', async () => {
    expect((await shop.http.get('/api/shop/card').expect(200)).body).toEqual({ card: {}, mark: null, version: 0 });
    await write({ name: 'Tarnside Works' }, 0);
    const hours = [{ day: 'Tuesday', from: '19:00', to: '22:00' }];
    const { body } = await write({ name: 'Tarnside Works', paper: 'A4', hours }, 1);
    expect(body).toEqual({ card: { name: 'Tarnside Works', paper: 'A4', hours }, mark: null, version: 2 });
    const late = (await write({ name: 'Other' }, 1, {}, 409)).body;
    expect([late.code, late.current.version]).toEqual(['stale', 2]);
    // Sent twice it is there once.
    await write({ name: 'Tarnside Works', paper: 'A4', hours }, 1);
    const states = (await shop.http.get(`/api/shops/${SHOP_ID}/states`).expect(200)).body as StateHead[];
    expect(states.map(({ version, by, changes }) => [version, by, changes.map(({ field, to }) => [field, to])])).toEqual([
      [
        2,
        'HB',
        [
          ['Paper', 'A4'],
          ['Hours of work', 'Tuesday, 19:00, 22:00'],
        ],
      ],
      [1, 'HB', []],
    ]);
  });

  it('names the field that is wrong', async () => {
    const hours = [{ day: 'Tuesday', from: '22:00', to: '19:00' }];
    const { body } = await write({ paper: 'A5', hours, durations: { setUp: '-3' } }, 0, {}, 400);
    expect(body.errors.map(({ path }: { path: string }) => path).sort()).toEqual([
      'card.durations.setUp',
      'card.hours[0].to',
      'card.paper',
    ]);
    expect((await write({}, 0, { mark: 'a'.repeat(64) }, 400)).body.errors[0].path).toBe('mark');
  });
});

describe('people of the shop', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const people = async (): Promise<ListedPerson[]> => (await shop.http.get('/api/people').expect(200)).body;
  const keep = (initials: string, more: object = {}, status = 200) =>
    shop.http
      .put(`/api/people/${initials}`)
      .send({ initials, name: '', meant: null, by: 'HB', ...more })
      .expect(status);
  const note = (by: string, text = 'Felt torn'): Remark => ({
    ...{ id: uuid(), machineId: null, part: null, place: { path: '/kit', words: 'Kit' } },
    ...{ text, pictures: [], supersedes: null, by, at: '2026-03-01T08:00:00.000Z' },
  });
  const write = (sent: Remark) => shop.http.post('/api/remarks').send(sent).expect(201);
  const log = async (query: Record<string, string> = {}): Promise<LogPage> =>
    (await shop.http.get('/api/log').query(query).expect(200)).body;

  it('are those who were added, and initials that were only used', async () => {
    await write(note('SD'));
    await write(note('SD'));
    await keep('HB', { name: 'Hanna' });
    expect((await people()).map(({ initials, name, entries, added }) => [initials, name, entries, added])).toEqual([
      ['HB', 'Hanna', 1, true],
      ['SD', '', 2, false],
    ]);
    await keep('SD', { name: 'Sam' });
    expect((await people())[1].added).toBeTrue();
  });

  it('mistyped initials are put right everywhere, whatever was kept, and that is taken back', async () => {
    await shop.http.post('/api/machines').send(machine()).expect(201);
    const [mistyped, own] = [note('HBB'), note('HB', 'Felt found')];
    await write(mistyped);
    await write(own);
    const told = async () => {
      const { entries, choices } = await log({ what: 'note' });
      const here = (await shop.http.get('/api/remarks').query({ path: '/kit' }).expect(200)).body as Remark[];
      const { body: finder } = await shop.http.get('/api/finder').expect(200);
      return [
        entries.map(({ by }) => by).sort(),
        choices?.people.includes('HBB'),
        here.map(({ by }) => by).sort(),
        finder.people.includes('HBB'),
      ];
    };
    const before = await told();
    expect(before).toEqual([['HB', 'HBB'], true, ['HB', 'HBB'], true]);
    await keep('HBB', { meant: 'HB' });
    expect(await told()).toEqual([['HB', 'HB'], false, ['HB', 'HB'], false]);
    // Who asks for one finds what was written under either.
    expect((await log({ by: 'HB', what: 'note' })).entries.length).toBe(2);
    // Sent again from a device that still has them: the note is known, and told under the right ones.
    expect((await write(mistyped)).body.by).toBe('HB');
    // In the list of people they stand as they were typed.
    expect((await people()).find(({ initials }) => initials === 'HBB')).toEqual({
      initials: 'HBB',
      name: '',
      meant: 'HB',
      entries: 1,
      added: true,
    });
    await keep('HBB');
    expect(await told()).toEqual(before);
    expect((await log({ what: 'shop' })).entries.map(({ text }) => text)).toEqual([
      'HBB are initials of their own',
      'HBB was a typing mistake for HB',
    ]);
  });

  it('mistakes do not lean on mistakes, nor on themselves', async () => {
    await keep('HBB', { meant: 'HB' });
    expect((await keep('HBBB', { meant: 'HBB' }, 400)).body.errors[0]).toEqual({
      ...{ path: 'meant', message: 'is itself a typing mistake for HB', example: 'HB' },
    });
    expect((await keep('HB', { meant: 'SD' }, 400)).body.errors[0].path).toBe('initials');
    expect((await keep('SD', { meant: 'SD' }, 400)).body.errors[0].path).toBe('meant');
    await shop.http.put('/api/people/SD').send({ initials: 'RM', name: '', meant: null, by: 'HB' }).expect(400);
  });
});
