import { LIMITS_FORMAT, startingSheet } from '@isometra/core';
import type { Board, KitItem, StoredSurvey, SurveyWrite } from '@isometra/contract';
import { surveyWriteOf } from '@isometra/work';
import { encodePhoto } from '../testing/photo.js';
import { indicator, machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';

describe('campaigns', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const lathe = async (kind = 'engine-lathe') => {
    const { card, ...rest } = machine();
    const sent = { ...rest, card: { ...card, kind } };
    await shop.http.post('/api/machines').send(sent).expect(201);
    return sent;
  };
  const surveys = async (machineId: string): Promise<StoredSurvey[]> =>
    (await shop.http.get(`/api/machines/${machineId}/surveys`).expect(200)).body as StoredSurvey[];
  const write = (survey: StoredSurvey): SurveyWrite & { by: string } => ({ ...surveyWriteOf(survey), by: 'AB' });
  const own = (high = 40) => ({
    id: uuid(),
    content: {
      format: LIMITS_FORMAT,
      name: 'Builder',
      lines: [{ check: 'tailstock-traverse', quantity: 'offsetHorizontal', zone: [-high, high] }],
    },
    version: 1,
    by: 'AB',
  });

  describe('a survey', () => {
    it('begins with the machine: default ladder, cascade, the limits usual for its kind', async () => {
      const [first] = await surveys((await lathe()).id);
      expect(first.order[0]).toBe('stiffness');
      expect([first.school, first.limits.sheet, first.judge.name]).toEqual(['cascade', 'general', 'General shop']);
      await shop.clear();
      const [light] = await surveys((await lathe('bench-lathe')).id);
      expect(light.limits).toEqual({ sheet: 'light-bench', version: 1 });
    });

    it('keeps order, rungs left out and school, and writes down what changed', async () => {
      const { id } = await lathe();
      const [survey] = await surveys(id);
      const order = [...survey.order].reverse();
      const at = '2026-03-01T08:00:00.000Z';
      const changed = { ...write(survey), order, school: 'top', skipped: [{ check: 'stiffness', why: 'known', by: 'AB', at }] };
      const { body } = await shop.http.put(`/api/surveys/${survey.id}`).send(changed).expect(200);
      expect((body as StoredSurvey).order).toEqual(order);
      const [again] = await surveys(id);
      expect([again.school, again.skipped[0].why, again.version]).toEqual(['top', 'known', 2]);
      const {
        body: { entries: log },
      } = await shop.http.get(`/api/log?machine=${id}`).expect(200);
      expect((log as { text: string }[])[0].text).toContain('order of the checks; Stiffness left out: known');
    });

    it('is safe to change twice, and refuses a stale change with the newer one', async () => {
      const { id } = await lathe();
      const [survey] = await surveys(id);
      const changed = { ...write(survey), title: 'After the crash' };
      await shop.http.put(`/api/surveys/${survey.id}`).send(changed).expect(200);
      await shop.http.put(`/api/surveys/${survey.id}`).send(changed).expect(200);
      const { body } = await shop.http
        .put(`/api/surveys/${survey.id}`)
        .send({ ...changed, title: 'Mine' })
        .expect(409);
      expect((body as { current: StoredSurvey }).current.title).toBe('After the crash');
    });

    it('a new one ends the one that ran, and rounds belong to the one they were taken in', async () => {
      const { id } = await lathe();
      const first = round(id);
      await shop.http.post('/api/rounds').send(first).expect(201);
      const [ran] = await surveys(id);
      const next = { ...write(ran), id: uuid(), title: 'After scraping', startedAt: '2026-05-01T08:00:00.000Z' };
      await shop.http.post('/api/surveys').send(next).expect(201);
      await shop.http.post('/api/surveys').send(next).expect(201);
      const later = { ...round(id), at: '2026-05-02T08:00:00.000Z' };
      await shop.http.post('/api/rounds').send(later).expect(201);
      const all = await surveys(id);
      expect(all.map((survey) => survey.endedAt !== null).sort()).toEqual([false, true]);
      const { body } = await shop.http.get(`/api/machines/${id}/rounds`).expect(200);
      const rounds = body as { id: string; surveyId: string; number: number }[];
      expect(rounds.find((entry) => entry.id === first.id)?.surveyId).toBe(ran.id);
      expect(rounds.find((entry) => entry.id === later.id)?.surveyId).toBe(next.id);
      expect(rounds.map((entry) => entry.number)).toEqual([1, 2]);
    });

    it('an ended one goes on, and then the one that ran ends: two never run at once', async () => {
      const { id } = await lathe();
      const [first] = await surveys(id);
      const next = { ...write(first), id: uuid(), title: 'After scraping', startedAt: '2026-05-01T08:00:00.000Z' };
      await shop.http.post('/api/surveys').send(next).expect(201);
      const ended = (await surveys(id)).find((survey) => survey.id === first.id) as StoredSurvey;
      await shop.http
        .put(`/api/surveys/${first.id}`)
        .send({ ...write(ended), endedAt: null })
        .expect(200);
      const all = await surveys(id);
      expect(Object.fromEntries(all.map(({ title, endedAt }) => [title, endedAt === null]))).toEqual({
        'As found': true,
        'After scraping': false,
      });
      const {
        body: { entries: log },
      } = await shop.http.get(`/api/log?machine=${id}`).expect(200);
      const texts = (log as { text: string }[]).map(({ text }) => text);
      expect(texts).toContain('Survey changed: taken up again');
      expect(texts).toContain('Survey ended: After scraping');
    });

    it('names the field that is wrong', async () => {
      const { id } = await lathe();
      const [survey] = await surveys(id);
      const bad = { ...write(survey), title: '', school: 'sideways' };
      const { body } = await shop.http.put(`/api/surveys/${survey.id}`).send(bad).expect(400);
      expect((body as { errors: { path: string }[] }).errors.map((fault) => fault.path)).toEqual(['title', 'school']);
      await shop.http.put(`/api/surveys/${uuid()}`).send(write(survey)).expect(400);
      await shop.http
        .post('/api/surveys')
        .send({ ...write(survey), id: uuid(), machineId: uuid() })
        .expect(404);
    });
  });

  describe('limit sheets', () => {
    it('are kept with all their versions', async () => {
      const sheet = own();
      await shop.http.post('/api/limits').send(sheet).expect(201);
      await shop.http.post('/api/limits').send(sheet).expect(201);
      const wider = { ...sheet, content: own(50).content };
      await shop.http.put(`/api/limits/${sheet.id}`).send(wider).expect(200);
      await shop.http.put(`/api/limits/${sheet.id}`).send(wider).expect(200);
      const { body: list } = await shop.http.get('/api/limits').expect(200);
      expect((list as { version: number }[]).map((entry) => entry.version)).toEqual([2]);
      const { body: versions } = await shop.http.get(`/api/limits/${sheet.id}/versions`).expect(200);
      expect((versions as { content: { lines: { zone: number[] }[] } }[]).map((entry) => entry.content.lines[0].zone[1])).toEqual([50, 40]);
      await shop.http
        .put(`/api/limits/${sheet.id}`)
        .send({ ...sheet, content: own(60).content })
        .expect(409);
    });

    it('are refused with every mistake named', async () => {
      const sheet = own();
      const bad = { ...sheet, content: { ...sheet.content, lines: [{ check: 'seat', quantity: 'rok', zone: [0, 5] }, { check: 'x' }] } };
      const { body } = await shop.http.post('/api/limits').send(bad).expect(400);
      expect((body as { errors: { path: string }[] }).errors.map((fault) => fault.path)).toEqual([
        'content.lines[0].quantity',
        'content.lines[1].check',
      ]);
      await shop.http.get(`/api/limits/${uuid()}/versions`).expect(404);
    });

    it('a survey judges by the version it pinned, also after the sheet has changed', async () => {
      const { id } = await lathe();
      const taken = round(id);
      await shop.http.post('/api/rounds').send(taken).expect(201);
      await shop.http
        .post(`/api/rounds/${taken.id}/readings`)
        .send([reading(0, '0 um'), reading(420, '30 um')])
        .expect(201);
      const verdict = async () => {
        const { body } = await shop.http.get(`/api/rounds/${taken.id}/finding`).expect(200);
        return (body as { finding: { quantities: Record<string, { verdict: string; limit: number[] }> } }).finding.quantities[
          'offsetHorizontal'
        ];
      };
      expect((await verdict()).verdict).toBe('out');
      const sheet = own();
      await shop.http.post('/api/limits').send(sheet).expect(201);
      const [survey] = await surveys(id);
      const pinned = { ...write(survey), limits: { sheet: sheet.id, version: 1 } };
      await shop.http.put(`/api/surveys/${survey.id}`).send(pinned).expect(200);
      expect((await verdict()).verdict).toBe('in');
      await shop.http
        .put(`/api/limits/${sheet.id}`)
        .send({ ...sheet, content: own(10).content })
        .expect(200);
      expect((await verdict()).limit).toEqual([-40, 40]);
      const wrong = { ...pinned, version: 2, limits: { sheet: sheet.id, version: 9 } };
      const { body } = await shop.http.put(`/api/surveys/${survey.id}`).send(wrong).expect(400);
      expect((body as { errors: { path: string }[] }).errors[0].path).toBe('limits.sheet');
    });

    it('a starting sheet may be chosen for a survey', async () => {
      const { id } = await lathe();
      const [survey] = await surveys(id);
      await shop.http
        .put(`/api/surveys/${survey.id}`)
        .send({ ...write(survey), limits: { sheet: 'toolroom', version: 1 } })
        .expect(200);
      expect((await surveys(id))[0].judge).toEqual(startingSheet('toolroom'));
    });
  });

  describe('the kit', () => {
    const kit = async (): Promise<KitItem[]> => (await shop.http.get('/api/kit').expect(200)).body as KitItem[];
    const piece = (kind: KitItem['kind'], data: object, care: object = {}) => ({ ...indicator(), kind, name: kind, data, care });
    const sent = ({ by: _by, ...item }: KitItem & { by: string }): KitItem => item;

    describe('in the archive', () => {
      const away = (path: string, is: boolean) => shop.http.post(`/api/${path}/archive`).send({ away: is, by: 'HB' });
      const listed = async (what: string) =>
        (await shop.http.get(`/api/${what}`).expect(200)).body as { id: string; archived?: { at: string; by: string } }[];

      it('takes machines, kit and sheets, keeps all of them, and gives them back', async () => {
        const { id } = await lathe();
        const bar = piece('test-bar', { diameter: '32 mm', finish: 'ground', bend: '2 um' }, { due: '2020-01-01' });
        await shop.http.post('/api/kit').send(bar).expect(201);
        const sheet = { id: uuid(), content: { ...startingSheet('general'), name: 'Ours' }, version: 1, by: 'HB' };
        await shop.http.post('/api/limits').send(sheet).expect(201);
        const board = async () => (await shop.http.get('/api/board').expect(200)).body as { plates: unknown[]; kit: unknown[] };
        expect([(await board()).plates.length, (await board()).kit.length]).toEqual([1, 1]);
        for (const path of [`machines/${id}`, `kit/${bar.id}`, `limits/${sheet.id}`]) {
          const { body } = await away(path, true).expect(200);
          expect((body as { archived: { by: string } }).archived.by).toBe('HB');
          await away(path, true).expect(200);
        }
        for (const what of ['machines', 'kit', 'limits']) expect((await listed(what)).map(({ archived }) => archived?.by)).toEqual(['HB']);
        expect([(await board()).plates.length, (await board()).kit.length]).toEqual([0, 0]);
        const {
          body: { entries: log },
        } = await shop.http.get(`/api/log?machine=${id}`).expect(200);
        expect((log as { text: string }[]).filter(({ text }) => text.endsWith('put in the archive')).length).toBe(1);
        for (const path of [`machines/${id}`, `kit/${bar.id}`, `limits/${sheet.id}`])
          expect((await away(path, false).expect(200)).body).toEqual({});
        for (const what of ['machines', 'kit', 'limits']) expect((await listed(what))[0].archived).toBeUndefined();
        expect((await board()).plates.length).toBe(1);
      });

      it('takes an earlier survey, tells the machine’s log, and refuses the one that runs', async () => {
        const { id } = await lathe();
        const surveys = async () => (await shop.http.get(`/api/machines/${id}/surveys`).expect(200)).body as StoredSurvey[];
        const [first] = await surveys();
        expect((await away(`surveys/${first.id}`, true).expect(409)).body.errors[0].message).toContain('this survey is running');
        const next = { ...surveyWriteOf(first), id: uuid(), title: 'Spring', startedAt: new Date().toISOString(), version: 1, by: 'HB' };
        await shop.http.post('/api/surveys').send(next).expect(201);
        await away(`surveys/${first.id}`, true).expect(200);
        expect((await surveys()).map(({ title, archived }) => [title, archived?.by])).toEqual([
          [first.title, 'HB'],
          ['Spring', undefined],
        ]);
        const { entries } = (await shop.http.get(`/api/log?machine=${id}`).expect(200)).body as {
          entries: { text: string; thing: string }[];
        };
        expect([entries[0].text, entries[0].thing]).toEqual([`Survey “${first.title}” put in the archive`, 'survey']);
        expect((await away(`surveys/${first.id}`, false).expect(200)).body).toEqual({});
      });

      it('a drawer in it offers no leaves; what is not there, or said wrongly, is named', async () => {
        const drawer = piece('shim-stock', { stock: [{ thickness: '0.05 mm', count: 4 }] });
        await shop.http.post('/api/kit').send(drawer).expect(201);
        await away(`kit/${drawer.id}`, true).expect(200);
        const { id } = await lathe();
        const taken = round(id);
        await shop.http.post('/api/rounds').send(taken).expect(201);
        const done = { ...move(taken.id), kind: 'shim-leaves', plan: { leaves: [50] }, doneAt: '2026-03-01T09:00:00.000Z' };
        await shop.http.post('/api/moves').send(done).expect(201);
        expect((await kit())[0].data['stock']).toEqual([{ thickness: '0.05 mm', count: 4 }]);
        await away(`kit/${uuid()}`, true).expect(404);
        await away('kit/none', true).expect(404);
        const { body } = await shop.http.post(`/api/kit/${drawer.id}/archive`).send({ away: 'yes', by: 'HB' }).expect(400);
        expect((body as { errors: { path: string }[] }).errors[0].path).toBe('away');
      });
    });

    it('keeps what each kind needs, with certificate and due date', async () => {
      const bar = piece(
        'test-bar',
        { diameter: '32 mm', bend: '2 um' },
        { certificate: 'C-7', due: '2026-12-31', notes: [{ at: '2026-01-05', by: 'HB', text: 'clean' }] },
      );
      await shop.http.post('/api/kit').send(bar).expect(201);
      const [known] = await kit();
      expect(known).toEqual(sent({ ...bar, photos: [], version: 1 } as KitItem & { by: string }));
      await shop.http
        .put(`/api/kit/${bar.id}`)
        .send({ ...known, by: 'AB', care: { ...known.care, due: '2027-12-31' } })
        .expect(200);
      expect((await kit())[0].care.due).toBe('2027-12-31');
    });

    it('names what is wrong in each kind', async () => {
      const faults = async (item: object) =>
        ((await shop.http.post('/api/kit').send(item).expect(400)).body as { errors: { path: string }[] }).errors.map(
          (fault) => fault.path,
        );
      expect(await faults(piece('square', { blade: 'long' }))).toEqual(['data.blade']);
      expect(await faults(piece('holder', { sag: '12 um' }))).toEqual(['data.sag']);
      expect(await faults(piece('pins', { diameter: '10 mm', colour: 'red' }))).toEqual(['data.colour']);
      expect(await faults(piece('blocks', { height: '50 mm' }, { due: 'soon' }))).toEqual(['care.due']);
    });

    it('keeps photographs that are pictures, at most twenty, and takes them off', async () => {
      const item = indicator();
      await shop.http.post('/api/kit').send(item).expect(201);
      const photo = Buffer.from(await encodePhoto(40, 30, { place: 'taken at home' }));
      const send = (bytes: Buffer | string, id = uuid(), type = 'image/jpeg') =>
        shop.http.post(`/api/kit/${item.id}/photos?id=${id}&by=HB`).set('Content-Type', type).send(bytes);
      const id = uuid();
      await send(photo, id).expect(201);
      await send(photo, id).expect(201);
      expect((await kit())[0].photos).toEqual([id]);
      const { body, headers } = await shop.http.get(`/api/photos/${id}`).expect(200);
      expect(headers['content-type']).toBe('image/jpeg');
      expect((body as Buffer).includes('taken at home')).toBeFalse();
      // Neither another kind of file, nor a header with garbage behind it, nor a page that is called a picture.
      await send('<svg/>', uuid(), 'image/svg+xml').expect(400);
      await send(Buffer.from([137, 80, 78, 71, 13, 10, 26, 10, 1, 2, 3]), uuid(), 'image/png').expect(400);
      await send('<html><script>alert(1)</script></html>', uuid(), 'image/png').expect(400);
      for (let k = 1; k < 20; k++) await send(photo).expect(201);
      const more = await send(photo).expect(409);
      expect((more.body as { errors: { message: string }[] }).errors[0].message).toContain('20 photographs');
      // The twenty-first did no harm: the item can be changed, and one can be taken off.
      const [now] = await kit();
      await shop.http
        .put(`/api/kit/${item.id}`)
        .send({ ...now, name: 'Lever dial, blue', by: 'HB' })
        .expect(200);
      await shop.http.delete(`/api/kit/${item.id}/photos/${id}?by=HB`).expect(200);
      await shop.http.delete(`/api/kit/${item.id}/photos/${id}?by=HB`).expect(200);
      expect((await kit())[0].photos.length).toBe(19);
      await shop.http.get(`/api/photos/${id}`).expect(404);
      await shop.http.get(`/api/photos/${uuid()}`).expect(404);
    });

    it('an eccentric sleeve stands where the last move left it: the next card starts there', async () => {
      const { id } = await lathe();
      const known = (await shop.http.get(`/api/machines/${id}`).expect(200)).body as { card: object };
      const card = { ...known.card, eccentric: { throw: '0.1 mm', angle: '0 deg' } };
      await shop.http
        .put(`/api/machines/${id}`)
        .send({ ...known, card, by: 'HB' })
        .expect(200);
      const taken = round(id);
      await shop.http.post('/api/rounds').send(taken).expect(201);
      const angle = async () =>
        ((await shop.http.get(`/api/machines/${id}`).expect(200)).body as { card: { eccentric: { angle: string } } }).card.eccentric.angle;
      const turned = { ...move(taken.id), kind: 'eccentric', plan: { angle: -33.7, turn: -33.7, heightChange: -16.8 } };
      await shop.http.post('/api/moves').send(turned).expect(201);
      expect(await angle()).toBe('0 deg');
      const done = { ...turned, doneAt: '2026-03-01T09:00:00.000Z' };
      await shop.http.put(`/api/moves/${turned.id}`).send(done).expect(200);
      await shop.http.put(`/api/moves/${turned.id}`).send(done).expect(200);
      expect(await angle()).toBe('-33.7 deg');
      const log = (await shop.http.get(`/api/log?machine=${id}`).expect(200)).body.entries as { text: string }[];
      expect(log.some(({ text }) => /Card of .* changed by a move.*-33\.7/.test(text))).toBeTrue();
      await shop.http
        .put(`/api/moves/${turned.id}`)
        .send({ ...done, doneAt: null, version: 2 })
        .expect(200);
      expect(await angle()).toBe('0 deg');
    });

    it('the shop board says of every machine what its ladder says, what was done last, and which kit is overdue', async () => {
      const { id } = await lathe();
      const board = async () => (await shop.http.get('/api/board').expect(200)).body as Board;
      const plate = async () => (await board()).plates.find(({ machineId }) => machineId === id);
      expect((await plate())?.next?.at).toBe('by-hand');
      expect((await plate())?.last).toBeNull();
      const taken = round(id);
      await shop.http.post('/api/rounds').send(taken).expect(201);
      await shop.http.post('/api/moves').send(move(taken.id)).expect(201);
      const now = await plate();
      expect(now?.last?.text).toMatch(/^Move planned/);
      expect(now?.strip.map(({ id: rung }) => rung)).toContain('tailstock-traverse');
      const old = { ...piece('test-bar', { diameter: '32 mm' }), name: 'Old bar', care: { due: '2020-01-01' } };
      await shop.http.post('/api/kit').send(old).expect(201);
      const [overdue] = (await board()).kit.filter(({ name }) => name === 'Old bar');
      expect(overdue.days).toBeGreaterThan(2000);
    });

    it('shims are out of the drawer when a move with them is done, and back when it was not', async () => {
      const drawer = piece('shim-stock', {
        stock: [
          { thickness: '2 thou', count: 2 },
          { thickness: '0.02 mm', count: 1 },
        ],
      });
      await shop.http.post('/api/kit').send(drawer).expect(201);
      const { id } = await lathe();
      const taken = round(id);
      await shop.http.post('/api/rounds').send(taken).expect(201);
      const counts = async () => ((await kit())[0].data['stock'] as { count: number }[]).map((row) => row.count);
      const planned = {
        ...move(taken.id),
        kind: 'shim-leaves',
        quantity: 'offsetVertical',
        plan: { leaves: [50.8, 50.8, 20], total: 121.6, error: 0 },
      };
      await shop.http.post('/api/moves').send(planned).expect(201);
      expect(await counts()).toEqual([2, 1]);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, doneAt: '2026-03-01T09:00:00.000Z' })
        .expect(200);
      expect(await counts()).toEqual([0, 0]);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, doneAt: '2026-03-01T09:00:00.000Z' })
        .expect(200);
      expect(await counts()).toEqual([0, 0]);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, doneAt: null, version: 2 })
        .expect(200);
      expect(await counts()).toEqual([2, 1]);
      // What really went in counts, not what was planned; and put right afterwards, it is counted again.
      const made = { dial: null, preset: 0, tightened: null, rule: null, wentIn: [50.8] };
      const done = { ...planned, doneAt: '2026-03-01T10:00:00.000Z' };
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...done, made, version: 3 })
        .expect(200);
      expect(await counts()).toEqual([1, 1]);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...done, made: { ...made, wentIn: [50.8, 20] }, version: 4 })
        .expect(200);
      expect(await counts()).toEqual([1, 0]);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...done, made, doneAt: null, version: 5 })
        .expect(200);
      expect(await counts()).toEqual([2, 1]);
      // Thinner ones in their place: what comes out lies in the drawer again.
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...done, made, version: 6 })
        .expect(200);
      const thinner = {
        ...move(taken.id),
        kind: 'swap-leaves',
        quantity: 'offsetVertical',
        plan: { out: [50.8], leaves: [20], total: 20 },
      };
      const swapped = { ...thinner, doneAt: '2026-03-02T09:00:00.000Z' };
      await shop.http.post('/api/moves').send(swapped).expect(201);
      expect(await counts()).toEqual([2, 0]);
      await shop.http
        .put(`/api/moves/${swapped.id}`)
        .send({ ...swapped, doneAt: null })
        .expect(200);
      expect(await counts()).toEqual([1, 1]);
    });
  });
});
