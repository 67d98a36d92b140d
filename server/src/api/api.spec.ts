import { ERROR_CODES, roundWriteOf, type KitItem, type RoundHead } from '@isometra/contract';
import { fillDemo, isEmpty } from '../services/demo/shop.js';
import { indicator, machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';

describe('the API', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const newRound = async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const begun = round(lathe.id);
    await shop.http.post('/api/rounds').send(begun).expect(201);
    return { lathe, begun };
  };

  describe('health', () => {
    it('is up and ready, with a request id', async () => {
      const { headers } = await shop.http.get('/api/health').expect(200, { status: 'up' });
      expect(headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/);
      expect(headers['content-security-policy']).toContain("script-src 'self'");
      await shop.http.get('/api/ready').expect(200, { status: 'ready' });
    });
  });

  describe('errors have one shape', () => {
    const faults = async (response: Promise<{ body: { errors: { path: string; example: string }[]; requestId: string } }>) => {
      const { body } = await response;
      expect(body.requestId).toBeTruthy();
      return body.errors.map((fault) => fault.path).sort();
    };
    it('for a body that is not JSON', async () => {
      expect(await faults(shop.http.post('/api/solve').set('Content-Type', 'application/json').send('{"a":').expect(400))).toEqual(['']);
    });
    it('for a sheet with several faults', async () => {
      const sheet = {
        format: 'isometra-sheet/1',
        check: 'tailstock-traverse',
        setup: { centreDistance: 'far' },
        readings: [{ plane: 'h', at: 20, value: 'x' }],
      };
      expect(await faults(shop.http.post('/api/solve').send(sheet).expect(400))).toEqual(['readings[0].value', 'setup.centreDistance']);
    });
    it('for a machine with several faults', async () => {
      const bad = { ...machine(), card: { number: '', kind: 'tractor', swing: 'wide' }, by: '' };
      expect(await faults(shop.http.post('/api/machines').send(bad).expect(400))).toEqual(['by', 'card.kind', 'card.number', 'card.swing']);
    });
    it('for what is not there', async () => {
      for (const path of ['/api/nothing', `/api/machines/${uuid()}`, '/api/machines/not-an-id', `/api/rounds/${uuid()}`]) {
        expect((await faults(shop.http.get(path).expect(404))).length)
          .withContext(path)
          .toBe(1);
      }
    });
    it('with a code for programs, which says more than the status does', async () => {
      const lathe = machine('L-9');
      await shop.http.post('/api/machines').send(lathe).expect(201);
      await shop.http.put(`/api/machines/${lathe.id}`).send({ ...lathe, card: { ...lathe.card, nickname: 'one' } });
      const late = { ...lathe, card: { ...lathe.card, nickname: 'two' } };
      const answers = [
        [shop.http.post('/api/solve').set('Content-Type', 'application/json').send('{"a":'), 'not-json'],
        [shop.http.post('/api/solve').send({}), 'invalid'],
        [shop.http.get('/api/nothing'), 'no-such-address'],
        [shop.http.get(`/api/rounds/${uuid()}`), 'not-found'],
        [shop.http.put(`/api/machines/${lathe.id}`).send(late), 'stale'],
        [shop.http.post('/api/machines').send(machine('L-9')), 'duplicate'],
      ] as const;
      for (const [answer, code] of answers) {
        const { body } = await answer;
        expect(body.code).withContext(JSON.stringify(body)).toBe(code);
        expect(ERROR_CODES).toContain(body.code);
      }
    });
    it('for a check that does not exist', async () => {
      const { lathe } = await newRound();
      const { body } = await shop.http
        .post('/api/rounds')
        .send({ ...round(lathe.id), check: 'tailstock-travers' })
        .expect(400);
      expect(body.errors[0]).toEqual(jasmine.objectContaining({ path: 'check', example: 'tailstock-traverse' }));
    });
    it('for a body that is too large', async () => {
      await shop.http
        .post('/api/solve')
        .send({ text: 'x'.repeat(1_100_000) })
        .expect(413);
    });
  });

  describe('solving', () => {
    it('gives the same finding as the core', async () => {
      const sheet = {
        format: 'isometra-sheet/1',
        check: 'tailstock-traverse',
        setup: { centreDistance: 400 },
        readings: [
          { plane: 'h', at: 0, value: '0 um' },
          { plane: 'h', at: 400, value: '-21 um' },
        ],
      };
      const { body } = await shop.http.post('/api/solve').send(sheet).expect(200);
      expect(body.quantities.offsetHorizontal.value).toBeCloseTo(-21, 9);
      const plan = await shop.http
        .post('/api/move')
        .send({ format: 'isometra-move/1', move: 'adjuster', amount: 21, pitch: 1.5 })
        .expect(200);
      expect(plan.body.turns).toBeCloseTo(0.014, 9);
    });
  });

  describe('machines', () => {
    it('are added once however often they are sent, and keep what was typed', async () => {
      const lathe = machine();
      await shop.http.post('/api/machines').send(lathe).expect(201);
      await shop.http.post('/api/machines').send(lathe).expect(201);
      const { body } = await shop.http.get('/api/machines').expect(200);
      expect(body.length).toBe(1);
      expect(body[0].card.adjuster.pitch).toBe('1.5 mm');
    });
    it('need a number of their own', async () => {
      await shop.http.post('/api/machines').send(machine('L-7')).expect(201);
      const { body } = await shop.http.post('/api/machines').send(machine('L-7')).expect(409);
      expect(body.errors[0].path).toBe('card.number');
    });
    it('a stale change gets 409 with the newer row', async () => {
      const lathe = machine();
      await shop.http.post('/api/machines').send(lathe);
      const change = (nickname: string) => ({ ...lathe, card: { ...lathe.card, nickname } });
      const first = await shop.http.put(`/api/machines/${lathe.id}`).send(change('one')).expect(200);
      expect(first.body.version).toBe(2);
      const second = await shop.http.put(`/api/machines/${lathe.id}`).send(change('two')).expect(409);
      expect(second.body.current.card.nickname).toBe('one');
      expect(second.body.errors[0].path).toBe('version');
    });
  });

  describe('kit', () => {
    it('is kept as typed and checked', async () => {
      const dial = indicator();
      await shop.http.post('/api/kit').send(dial).expect(201);
      const { body } = await shop.http
        .post('/api/kit')
        .send({ ...indicator(), data: { kind: 'lever', graduation: 'fine' } })
        .expect(400);
      expect(body.errors[0].path).toBe('data.graduation');
      await shop.http
        .put(`/api/kit/${dial.id}`)
        .send({ ...dial, name: 'Best lever' })
        .expect(200);
      await shop.http
        .put(`/api/kit/${dial.id}`)
        .send({ ...dial, name: 'Other' })
        .expect(409);
      expect((await shop.http.get('/api/kit')).body.map((item: { name: string }) => item.name)).toEqual(['Best lever']);
    });
  });

  describe('rounds and readings', () => {
    it('a round is solved from its readings, each time anew', async () => {
      const { begun } = await newRound();
      await shop.http
        .post(`/api/rounds/${begun.id}/readings`)
        .send([reading(20, '0 div'), reading(400, '-9.5 div')])
        .expect(201);
      const { body } = await shop.http.get(`/api/rounds/${begun.id}/finding`).expect(200);
      expect(body.finding.quantities.offsetHorizontal.value).toBeCloseTo(-21, 6);
      expect(body.finding.moves[0].turns).toBeCloseTo(0.014, 6);
      expect(body.faults).toEqual([]);
      expect(body.coreVersion).toMatch(/^[0-9a-f]{16}$/);
    });

    it('a reading sent twice is taken once, in order', async () => {
      const { begun } = await newRound();
      const first = reading(20, '0 div');
      await shop.http.post(`/api/rounds/${begun.id}/readings`).send(first).expect(201);
      const { body } = await shop.http
        .post(`/api/rounds/${begun.id}/readings`)
        .send([first, reading(400, '3 div')])
        .expect(201);
      expect(body.map((entry: { value: string }) => entry.value)).toEqual(['0 div', '3 div']);
    });

    it('readings sent by many at once all arrive', async () => {
      const { begun } = await newRound();
      await Promise.all(
        Array.from({ length: 12 }, (_, i) =>
          shop.http
            .post(`/api/rounds/${begun.id}/readings`)
            .send(reading(i, `${i} div`))
            .expect(201),
        ),
      );
      const { body } = await shop.http.get(`/api/rounds/${begun.id}`);
      expect(new Set(body.readings.map((entry: { sequence: number }) => entry.sequence)).size).toBe(12);
    });

    it('a reading is superseded with a reason, never changed, and only once', async () => {
      const { begun, lathe } = await newRound();
      const wrong = reading(20, '5 div');
      await shop.http.post(`/api/rounds/${begun.id}/readings`).send([wrong, reading(400, '0 div')]);
      const without = await shop.http
        .post(`/api/rounds/${begun.id}/readings`)
        .send(reading(20, '4 div', { supersedes: wrong.id }))
        .expect(400);
      expect(without.body.errors[0].path).toBe('why');
      const better = reading(20, '4 div', { supersedes: wrong.id, why: 'misread' });
      await shop.http.post(`/api/rounds/${begun.id}/readings`).send(better).expect(201);
      await shop.http
        .post(`/api/rounds/${begun.id}/readings`)
        .send(reading(20, '3 div', { supersedes: wrong.id, why: 'again' }))
        .expect(409);
      const { body } = await shop.http.get(`/api/rounds/${begun.id}`);
      expect(body.readings.length).toBe(3);
      const { finding } = (await shop.http.get(`/api/rounds/${begun.id}/finding`)).body;
      expect(finding.quantities.offsetHorizontal.value).toBeCloseTo((-8 * 420) / 380, 6);
      const log = await shop.http.get(`/api/log?machine=${lathe.id}`);
      expect(log.body.entries.map((entry: { text: string }) => entry.text)).toContain('Reading corrected to 4 div: misread');
    });

    it('a reading needs a value and a round', async () => {
      const { begun } = await newRound();
      const { body } = await shop.http.post(`/api/rounds/${begun.id}/readings`).send(reading(20, null)).expect(400);
      expect(body.errors[0].path).toBe('value');
      await shop.http.post(`/api/rounds/${uuid()}/readings`).send(reading(20, '1 div')).expect(404);
    });

    it('a round that is changed elsewhere gets 409', async () => {
      const { begun } = await newRound();
      await shop.http
        .put(`/api/rounds/${begun.id}`)
        .send({ ...begun, setup: { centreDistance: '500 mm' } })
        .expect(200);
      const { body } = await shop.http
        .put(`/api/rounds/${begun.id}`)
        .send({ ...begun, setup: { centreDistance: '600 mm' } })
        .expect(409);
      expect(body.current.setup.centreDistance).toBe('500 mm');
    });

    it('a round read back can be sent again with its set-up put right: the readings stay, the logbook says what was changed', async () => {
      const { begun, lathe } = await newRound();
      await shop.http
        .post(`/api/rounds/${begun.id}/readings`)
        .send([reading(20, '0 div'), reading(400, '-9.5 div')])
        .expect(201);
      const offset = async () => (await shop.http.get(`/api/rounds/${begun.id}/finding`)).body.finding.quantities.offsetHorizontal.value;
      const { body: shown } = await shop.http.get(`/api/rounds/${begun.id}`);
      const before = await offset();
      const right = { ...roundWriteOf(shown), by: 'QZ', setup: { centreDistance: '500 mm' }, conditions: {} };
      await shop.http.put(`/api/rounds/${begun.id}`).send(right).expect(200);
      const { body: put } = await shop.http.get(`/api/rounds/${begun.id}`);
      expect(put.readings).toEqual(shown.readings);
      expect(put.by).toBe(shown.by);
      expect(Math.abs(await offset())).toBeGreaterThan(Math.abs(before));
      await shop.http.put(`/api/rounds/${begun.id}`).send(right).expect(200);
      const {
        body: { entries: log },
      } = await shop.http.get(`/api/log?machine=${lathe.id}`);
      const lines = log.filter((entry: { by: string }) => entry.by === 'QZ');
      expect(lines.map((entry: { text: string }) => entry.text)).toEqual([
        jasmine.stringMatching(/, round 1: Distance between centres 420 mm → 500 mm; Quill lock.* on → not given/) as unknown as string,
      ]);
    });

    it('a round without enough readings has no quantities', async () => {
      const { begun } = await newRound();
      expect((await shop.http.get(`/api/rounds/${begun.id}/finding`)).body.finding.quantities).toEqual({});
    });
  });

  describe('moves', () => {
    it('keep what was seen at the screw, say which screw drives it, and refuse a dial that cannot be', async () => {
      const { begun, lathe } = await newRound();
      const planned = move(begun.id);
      await shop.http.post('/api/moves').send(planned).expect(201);
      const dial = { kitId: null, name: 'The dial', graduation: 10, readTo: 0.5, side: 'away', pressed: -1, over: null };
      const made = { dial, preset: 2, tightened: 3, rule: 'drive-near' };
      const { body } = await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, made })
        .expect(200);
      expect(body.made).toEqual(made);
      expect((await shop.http.get(`/api/rounds/${begun.id}`).expect(200)).body.moves[0].made).toEqual(made);
      const heads = (await shop.http.get(`/api/machines/${lathe.id}/heads`).expect(200)).body as { id: string; moves: unknown[] }[];
      expect(heads.find(({ id }) => id === begun.id)?.moves).toEqual([jasmine.objectContaining({ made })]);
      const refused = await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, version: 2, made: { ...made, dial: { ...dial, pressed: 0 } } })
        .expect(400);
      expect(refused.body.errors).toEqual([jasmine.objectContaining({ path: 'made.dial.pressed', message: 'must be 1 or -1' })]);
      const log = (await shop.http.get(`/api/log?machine=${lathe.id}`)).body.entries as { text: string }[];
      expect(log.some(({ text }) => text === 'At the screw: it goes toward the screw that is driven')).toBeTrue();
    });

    it('are ticked, done and logged', async () => {
      const { begun, lathe } = await newRound();
      const planned = move(begun.id);
      await shop.http.post('/api/moves').send(planned).expect(201);
      await shop.http.post('/api/moves').send(planned).expect(201);
      const ticked = await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, ticks: [0, 1] })
        .expect(200);
      expect(ticked.body.version).toBe(2);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...planned, ticks: [4] })
        .expect(409);
      await shop.http
        .put(`/api/moves/${planned.id}`)
        .send({ ...ticked.body, ticks: [0, 1, 2], doneAt: '2026-03-01T09:00:00.000Z', shift: '0.5 div' })
        .expect(200);
      const { body } = await shop.http.get(`/api/rounds/${begun.id}`);
      expect(body.moves).toEqual([jasmine.objectContaining({ doneAt: '2026-03-01T09:00:00.000Z', shift: '0.5 div', ticks: [0, 1, 2] })]);
      const log = (await shop.http.get(`/api/log?machine=${lathe.id}`)).body.entries;
      expect(log[0].text).toEqual(jasmine.stringMatching(/^Move done: .*, 21\.0 um toward the operator$/));
    });
    it('need their round', async () => {
      await shop.http.post('/api/moves').send(move(uuid())).expect(404);
    });
  });

  it('plans a job, and refuses a faulty one with its field', async () => {
    const job = {
      ...{ format: 'isometra-job/1', start: '2026-03-02', people: [{ id: 'EK', hours: { mon: 2 } }] },
      items: [{ id: 'twist', minutes: 60 }],
    };
    const { body } = await shop.http.post('/api/plan').send(job).expect(200);
    expect([body.format, body.finish.p50, body.chain]).toEqual(['isometra-schedule/1', '2026-03-02', ['twist']]);
    const refused = await shop.http
      .post('/api/plan')
      .send({ ...job, items: [{ id: 'twist', minutes: 60, after: ['zero'] }] })
      .expect(400);
    expect(refused.body.errors[0].path).toBe('items[0].after[0]');
  });

  describe('the demo shop', () => {
    /** The demo is some hundred rows and twenty photographs: on a busy machine that takes longer than an answer may, ms. */
    const FILLING = 40_000;

    it(
      'is filled whole or not at all, and once however many ask for it',
      async () => {
        const broken = shop.sequelize.transaction(async (transaction) => {
          await fillDemo(shop.sequelize, transaction);
          throw new Error('the power went');
        });
        await expectAsync(broken).toBeRejectedWithError('the power went');
        expect(await isEmpty()).toBeTrue();
        const told = await Promise.all([1, 2, 3].map(() => shop.http.post('/api/demo')));
        expect(told.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
        expect((await shop.http.get('/api/machines')).body.length).toBe(6);
        expect((await shop.http.get('/api/kit')).body.length).toBeLessThan(40);
      },
      FILLING,
    );

    it(
      'hangs together: kit that is there, times and people a machinist believes, figures of its own on every machine',
      async () => {
        const { body: machines } = (await shop.http.post('/api/demo').expect(201)) as { body: { id: string; card: { number: string } }[] };
        const kit = new Set(((await shop.http.get('/api/kit')).body as KitItem[]).map(({ name }) => name));
        const figures = new Map<string, string>();
        for (const { id, card } of machines) {
          const heads = (await shop.http.get(`/api/machines/${id}/heads`)).body as RoundHead[];
          for (const head of heads) {
            const about = `${card.number}, ${head.check} of ${head.at}`;
            expect(kit.has(head.instrumentName ?? ''))
              .withContext(`${about}: ${head.instrumentName}`)
              .toBeTrue();
            expect(['HB', 'RM', 'EK', 'SD']).withContext(about).toContain(head.by);
            const next = heads.find(({ check, at }) => check === head.check && at > head.at);
            const moved = head.moves.map(({ quantity }) => quantity);
            expect(new Set(moved).size).withContext(`${about}: one correction once`).toBe(moved.length);
            for (const { kind, begunAt, doneAt } of head.moves) {
              expect(doneAt).withContext(`${about}: what is unfinished has no round after it`).not.toBeNull();
              const hours = (Date.parse(doneAt ?? '') - Date.parse(begunAt)) / 3_600_000;
              const least = kind === 'supports' || kind === 'scrape' ? 24 : kind === 'shim-leaves' ? 1 : 0.1;
              expect(hours).withContext(`${about}: ${kind}`).toBeGreaterThan(least);
              if (next)
                expect(next.at > (doneAt ?? ''))
                  .withContext(`${about}: read again after ${kind}`)
                  .toBeTrue();
            }
            // A square or a level has its own error wherever it is used; below a micrometre figures meet by chance.
            for (const [name, { value }] of Object.entries(head.finding?.quantities ?? {})) {
              if (name === 'squareError' || Math.abs(value) < 1) continue;
              const key = `${head.check} ${name} ${value.toFixed(3)}`;
              expect(figures.get(key) ?? card.number)
                .withContext(key)
                .toBe(card.number);
              figures.set(key, card.number);
            }
          }
        }
      },
      FILLING,
    );

    it(
      'is put into an empty shop only, and its calls follow from its truths',
      async () => {
        const { body } = await shop.http.post('/api/demo').expect(201);
        expect(body.map((entry: { card: { number: string } }) => entry.card.number)).toEqual([
          'L-02',
          'L-14',
          'M-03',
          'M-11',
          'T-06',
          'V-20',
        ]);
        await shop.http.post('/api/demo').expect(409);
        const heads = (await shop.http.get(`/api/machines/${body[1].id}/heads`)).body as RoundHead[];
        const verdicts = heads
          .filter(({ check }) => check === 'tailstock-traverse')
          .map(({ finding }) => finding?.quantities['offsetHorizontal'].verdict);
        expect(verdicts).toEqual(['out', 'out', 'out', 'in']);
        // Of several ways to move one thing, one was taken.
        const [light] = (await shop.http.get(`/api/machines/${body[0].id}/heads`)).body as RoundHead[];
        expect(light.moves.map(({ quantity }) => quantity)).toEqual(['offsetVertical']);
        // What is left to do on each: by the last round of every check.
        const outs = body.map(async ({ id }: { id: string }) => {
          const all = (await shop.http.get(`/api/machines/${id}/heads`)).body as RoundHead[];
          const last = new Map(all.map(({ check, finding }) => [check, Object.entries(finding?.quantities ?? {})]));
          return [...last].flatMap(([check, found]) =>
            found.filter(([, { verdict }]) => verdict === 'out').map(([name]) => `${check}/${name}`),
          );
        });
        expect(await Promise.all(outs)).toEqual([
          [],
          ['dovetail-over-pins/widthRange'],
          [],
          ['head-tram/tilt'],
          ['turret-bore/offsetRadial'],
          ['axis-squareness/squareness'],
        ]);
      },
      FILLING,
    );
  });
});
