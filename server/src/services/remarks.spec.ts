import type { LogPage, Remark } from '@isometra/contract';
import { encodePhoto } from '../testing/photo.js';
import { machine, openShop, uuid, type TestShop } from '../testing/shop.js';

const PATH = '/machines/m/bench/tailstock-traverse/r';

describe('notes from any screen', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const remark = (more: Partial<Remark> = {}): Remark => ({
    ...{ id: uuid(), machineId: null, part: null, place: { path: PATH, words: 'Bar between centres, round 3' } },
    ...{ text: 'Felt torn on the left', pictures: [], supersedes: null, by: 'HB', at: '2026-03-01T08:00:00.000Z' },
    ...more,
  });
  const write = (sent: Remark, status = 201) => shop.http.post('/api/remarks').send(sent).expect(status);
  const here = async (path = PATH): Promise<Remark[]> => (await shop.http.get('/api/remarks').query({ path }).expect(200)).body;
  const log = async (query: Record<string, string> = {}): Promise<LogPage> =>
    (await shop.http.get('/api/log').query(query).expect(200)).body;

  it('stand where they were written and in the logbook, and are found by their words', async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const sent = remark({ machineId: lathe.id, part: 'tailstock-traverse' });
    await write(sent);
    expect(await here()).toEqual([sent]);
    expect(await here('/kit')).toEqual([]);
    const { entries } = await log({ words: 'felt torn', machine: lathe.id });
    expect(entries.map(({ what, text, remark: now, part, at }) => [what, text, now?.id, part, at])).toEqual([
      ['note', sent.text, sent.id, 'tailstock-traverse', sent.at],
    ]);
  });

  it('sent twice, also at the same moment, are there once', async () => {
    const sent = remark();
    const answers = await Promise.all(Array.from({ length: 4 }, () => shop.http.post('/api/remarks').send(sent)));
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201, 201]);
    expect((await log()).entries.length).toBe(1);
  });

  it('are ticked, changed and taken back by another that supersedes them; the logbook says which', async () => {
    const first = remark({ text: 'Felt torn\n[ ] order felt\n[ ] clean' });
    await write(first);
    const done = remark({ text: 'Felt torn\n[x] order felt\n[ ] clean', supersedes: first.id, by: 'SD' });
    await write(done);
    let { entries } = await log();
    expect(entries.map(({ text, by }) => [text, by])).toEqual([
      ['Done: order felt', 'SD'],
      [first.text, 'HB'],
    ]);
    // Ticked, the note still says what it said; what stands now is shown.
    expect(entries.map(({ note, remark: now }) => [note, now?.id])).toEqual([
      ['about', done.id],
      ['stands', done.id],
    ]);
    expect((await log({ todo: 'open' })).entries.map(({ thingId }) => thingId)).toEqual([done.id]);
    const other = remark({ text: 'Felt torn\n[x] order felt\n[x] clean the way', supersedes: done.id });
    await write(other);
    ({ entries } = await log());
    expect(entries.map(({ note }) => note)).toEqual(['stands', 'about', 'reworded']);
    expect((await log({ todo: 'open' })).entries).toEqual([]);
    await write(remark({ text: '', supersedes: other.id }));
    ({ entries } = await log());
    expect([entries[0].text, entries[0].was]).toEqual(['A note was taken back', other.text]);
    expect(entries.map(({ note, remark: now }) => [note, now])).toEqual([
      ['about', null],
      ['reworded', null],
      ['about', null],
      ['reworded', null],
    ]);
    expect(await here()).toEqual([]);
  });

  it('two people tick two things of one note at the same moment: both are done', async () => {
    const first = remark({ text: '[ ] order felt\n[ ] clean\n[ ] paint' });
    await write(first);
    await Promise.all([
      write(remark({ text: '[x] order felt\n[ ] clean\n[ ] paint', supersedes: first.id, by: 'SD' })),
      write(remark({ text: '[ ] order felt\n[x] clean\n[ ] paint', supersedes: first.id, by: 'RM' })),
    ]);
    expect((await here()).map(({ text }) => text)).toEqual(['[x] order felt\n[x] clean\n[ ] paint']);
    expect(
      (await log()).entries
        .slice(0, 2)
        .map(({ text, by }) => `${by} ${text}`)
        .sort(),
    ).toEqual(['RM Done: clean', 'SD Done: order felt']);
  });

  it('that were changed meanwhile are not changed over it: what stands now comes back', async () => {
    const first = remark();
    await write(first);
    const mine = remark({ text: 'Felt torn on the right', supersedes: first.id });
    await write(mine);
    const late = await write(remark({ text: 'Felt fine', supersedes: first.id }), 409);
    expect([late.body.code, late.body.current.id]).toEqual(['stale', mine.id]);
  });

  it('carry photographs with marks; a picture that was never sent is refused', async () => {
    const { body: kept } = await shop.http
      .post('/api/pictures?by=HB')
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(await encodePhoto(64, 48)))
      .expect(201);
    const marks: Remark['pictures'][number]['marks'] = [
      { kind: 'arrow', from: [0.1, 0.1], to: [0.5, 0.5] },
      { kind: 'words', at: [0.5, 0.5], text: 'here' },
    ];
    const sent = remark({ text: '', pictures: [{ hash: kept.hash, marks }] });
    await write(sent);
    expect((await here())[0].pictures).toEqual(sent.pictures);
    expect((await log()).entries[0].text).toBe('(Photograph)');
    const { body } = await write(remark({ pictures: [{ hash: 'a'.repeat(64), marks: [] }] }), 400);
    expect(body.errors[0].path).toBe('pictures[0].hash');
  });

  it('say what is wrong with them', async () => {
    const wrong: readonly (readonly [Partial<Remark>, string])[] = [
      [{ text: '  ' }, 'text'],
      [{ machineId: uuid() }, 'machineId'],
      [{ supersedes: uuid() }, 'supersedes'],
      [{ place: { path: '//elsewhere.example', words: 'x' } }, 'place.path'],
      [{ text: 'x'.repeat(10_001) }, 'text'],
    ];
    for (const [more, path] of wrong) expect((await write(remark(more), 400)).body.errors[0].path).toBe(path);
  });
});
