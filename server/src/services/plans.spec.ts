import type { PlanItem, PlanWrite, ShopPlan } from '@isometra/contract';
import { machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';
import { jobOf, planJob, planToSchedule } from '@isometra/work';
import { timings } from './timings.js';

describe('plans', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const lathe = async (number = 'L-1') => {
    const added = machine(number);
    await shop.http.post('/api/machines').send(added).expect(201);
    return added;
  };
  const planOf = async (id: string): Promise<ShopPlan> => (await shop.http.get(`/api/machines/${id}/plan`).expect(200)).body;
  const itemOf = ({ machines: [first] }: ShopPlan, key: string) => first.items.find((item) => item.key === key);
  const own = (title: string) => ({
    ...{ id: uuid(), title, minutes: [10, 20, 40] as [number, number, number], wait: null, people: 1, who: [], things: [], after: [] },
    ...{ notBefore: null, doneAt: null, by: 'AB', at: '2026-03-01T08:00:00.000Z' },
  });
  const settle = (machineId: string, more: Partial<PlanWrite> = {}) =>
    shop.http.put(`/api/machines/${machineId}/plan`).send({ machineId, changes: [], own: [], order: [], version: 0, by: 'AB', ...more });

  /** A round that was begun, set up in eight minutes and read every minute. */
  const timed = async (machineId: string, day: number, pause = 1, by = 'AB') => {
    const at = (minute: number): string => new Date(Date.UTC(2026, 2, day, 18, minute)).toISOString();
    const begun = { ...round(machineId), at: at(0), by };
    await shop.http.post('/api/rounds').send(begun).expect(201);
    const keys = ['h', 'v'].flatMap((plane) => [20, 400].map((place) => ({ plane, at: place })));
    const readings = keys.map((each, i) => ({ ...reading(20, '0 div'), keys: each, at: at(8 + i * pause), by }));
    await shop.http.post(`/api/rounds/${begun.id}/readings`).send(readings).expect(201);
    return begun;
  };

  it('a machine that was never measured has all of its ladder to be read; what is measured and in falls off the list', async () => {
    const { id } = await lathe();
    const plan = await planOf(id);
    expect(itemOf(plan, 'read tailstock-traverse')).toEqual(jasmine.objectContaining({ kind: 'read', from: 'starting' }));
    await timed(id, 1);
    expect(itemOf(await planOf(id), 'read tailstock-traverse')).toBeUndefined();
    await shop.http.get(`/api/machines/${uuid()}/plan`).expect(404);
  });

  it('a rough look counts in the plan until its check is measured; one that cannot be read is refused by name', async () => {
    const { id } = await lathe();
    const look = { check: 'spindle-axis', quantity: 'slopeH', out: '0.1 mm in 300 mm', by: 'AB', at: '2026-03-01T08:00:00.000Z' };
    expect(itemOf(await planOf(id), 'move spindle-axis slopeH')).toBeUndefined();
    const { body: refused } = await settle(id, { looks: [{ ...look, out: '0.1' }] }).expect(400);
    expect(refused.errors[0].path).toBe('looks[0].out');
    expect(refused.errors[0].message).toContain('0.1 mm in 300 mm would do');
    await settle(id, { looks: [look] }).expect(200);
    const plan = await planOf(id);
    expect(itemOf(plan, 'move spindle-axis slopeH')?.why).toContain('about 0.1 mm in 300 mm out (AB)');
    expect(itemOf(plan, 'again spindle-axis')).toBeDefined();
    const { body: log } = await shop.http.get(`/api/log?machine=${id}`).expect(200);
    expect(JSON.stringify(log)).toContain('rough look at “Spindle axis”');
    // The same once more is nothing new.
    expect((await settle(id, { looks: [look], version: 1 }).expect(200)).body.version).toBe(1);
  });

  it('the share that is out at first is counted check by check, and is the same in the plan of a machine and of the shop', async () => {
    const [{ id }, other, third] = [await lathe(), await lathe('L-2'), await lathe('L-3')];
    await timed(id, 1);
    await timed(other.id, 2);

    const { body: whole } = await shop.http.get('/api/plans').expect(200);
    const ofShop = (whole as ShopPlan).machines.find(({ machineId }) => machineId === third.id);
    const own = await planOf(third.id);
    const why = (plan: { readonly items: readonly PlanItem[] } | undefined, check: string) =>
      plan?.items.find(({ key }) => key === `perhaps ${check}`)?.why;
    // Two were in at first: two of four, and none of two.
    expect(why(own.machines[0], 'tailstock-traverse')).toContain('33 %');
    expect(why(own.machines[0], 'spindle-axis')).toContain('50 %');
    expect(own.machines[0].items).toEqual([...(ofShop?.items ?? [])]);
  });

  it('minutes are learned from what was timed: set-ups, rounds without their pauses, moves', async () => {
    const { id } = await lathe();
    const first = await timed(id, 1);
    await timed(id, 2, 30);
    const begunAt = '2026-03-03T18:00:00.000Z';
    await shop.http
      .post('/api/moves')
      .send({ ...move(first.id), begunAt, doneAt: '2026-03-03T18:25:00.000Z' })
      .expect(201);
    const all = (await timings(shop.sequelize)).map(({ work, minutes }) => `${work} ${Math.round(minutes * 100) / 100}`);
    // Half an hour between two readings is no work: of that round only its set-up is known.
    expect(all.sort()).toEqual(['round 3', 'screw 25', 'setUp 8', 'setUp 8']);
  });

  it('hours of a machine are told by survey, check and person; another machine’s are not among them', async () => {
    const [{ id }, other] = [await lathe(), await lathe('L-2')];
    await timed(id, 1);
    await timed(id, 2);
    await timed(other.id, 3);
    const { body } = await shop.http.get(`/api/machines/${id}/hours`).expect(200);
    const [survey] = (await shop.http.get(`/api/machines/${id}/surveys`).expect(200)).body;
    expect(body).toEqual([{ surveyId: survey.id, check: 'tailstock-traverse', by: 'AB', minutes: 22 }]);
    await shop.http.get(`/api/machines/${uuid()}/hours`).expect(404);
  });

  it('learned minutes change the plan', async () => {
    const [{ id }, other] = [await lathe(), await lathe('L-2')];
    const before = itemOf(await planOf(other.id), 'read tailstock-traverse');
    for (let day = 1; day <= 12; day++) await timed(id, day);
    const after = itemOf(await planOf(other.id), 'read tailstock-traverse');
    expect(before?.minutes?.[1]).toBe(25);
    // Eight to set up and three to read, four times as heavy as the starting values of 10 and 15.
    expect(after?.minutes?.[1]).toBeLessThan(16);
    expect(after?.from).toBe('learned');
    expect(after?.timings).toBe(12);
  });

  it('a year of readings moves the date on which the next machine is done', async () => {
    const [{ id }, other] = [await lathe(), await lathe('L-2')];
    const done = (shopPlanned: ShopPlan): string => {
      const made = jobOf(
        shopPlanned.machines.map((one) => planToSchedule(one, '2027-01-04')),
        { start: '2027-01-04', timeZone: null, people: shopPlanned.people, draws: 200 },
      );
      return planJob(made?.job).finish.p50;
    };
    const before = await planOf(other.id);
    // Three minutes for each of the four readings is half as long again as the starting values; twenty between two readings is work as well.
    for (let month = 0; month < 12; month++) await timed(id, 1 + 28 * month, 19);
    const after = await planOf(other.id);
    const minutes = (plan: ShopPlan): number => plan.machines[0].items.reduce((sum, one) => sum + (one.minutes?.[1] ?? 0), 0);
    expect(minutes(after)).toBeGreaterThan(1.3 * minutes(before));
    expect(done(after) > done(before)).toBeTrue();
  });

  it('the minutes are those of whoever is named for an item, or works alone', async () => {
    const [{ id }, other] = [await lathe(), await lathe('L-2')];
    for (let day = 1; day <= 5; day++) await timed(id, day, 19);
    const read = async (): Promise<number> => itemOf(await planOf(other.id), 'read tailstock-traverse')?.minutes?.[1] ?? 0;
    const hours = { hours: { mon: 2 }, off: [] };
    for (const initials of ['AB', 'EK'])
      await shop.http.put(`/api/people/${initials}`).send({ initials, name: '', meant: null, by: 'AB', working: hours }).expect(200);
    // EK reads fast: five rounds of three minutes; AB's took an hour each.
    for (let day = 11; day <= 15; day++) await timed(id, day, 1, 'EK');
    const both = await read();
    const why = { why: 'his turn', by: 'AB', at: '2026-03-20T08:00:00.000Z' };
    await settle(other.id, { changes: [{ key: 'read tailstock-traverse', who: ['EK'], ...why }] }).expect(200);
    const fast = await read();
    await settle(other.id, { changes: [{ key: 'read tailstock-traverse', who: ['AB'], ...why }], version: 1 }).expect(200);
    const slow = await read();
    expect(fast).toBeLessThan(both);
    expect(slow).toBeGreaterThan(both);
  });

  it('what is settled is kept, told in the logbook with its earlier states, and not written over unseen', async () => {
    const { id } = await lathe();
    const item = own('Order felt');
    const first = (await settle(id, { own: [item] }).expect(200)).body;
    expect(first.version).toBe(1);
    expect((await settle(id, { own: [item] }).expect(200)).body.version).toBe(1);
    expect((await settle(id, { own: [item, own('Belt')] }).expect(409)).body.current.version).toBe(1);
    await settle(id, { own: [{ ...item, doneAt: '2026-03-02T08:00:00.000Z' }], version: 1 }).expect(200);
    const { entries } = (await shop.http.get(`/api/log?machine=${id}&what=plan`).expect(200)).body;
    expect(entries.map(({ text }: { text: string }) => text)).toEqual(['Plan: “Order felt” is done', 'Plan: added “Order felt”']);
    const states = (await shop.http.get(`/api/plans/${id}/states`).expect(200)).body;
    expect(states[0].changes).toEqual([{ field: 'added', from: 'Order felt, 20 min', to: 'Order felt, 20 min (done)' }]);
    // What comes round again is done until its next turn; each change of it is told.
    const oil = { ...item, doneAt: null, every: 14, price: 3.5 };
    await settle(id, { own: [oil], version: 2 }).expect(200);
    await settle(id, { own: [{ ...oil, notBefore: '2026-04-16', lastAt: '2026-04-02T18:00:00.000Z' }], version: 3 }).expect(200);
    const [last, turn] = (await shop.http.get(`/api/plans/${id}/states`).expect(200)).body;
    expect(turn.changes).toEqual([
      { field: 'added', from: 'Order felt, 20 min (done)', to: 'Order felt, 20 min, every 2 weeks, costs 3.5' },
    ]);
    expect(last.changes[0].to).toBe('Order felt, 20 min, every 2 weeks, not before 16 Apr 2026, costs 3.5');
    const log = (await shop.http.get(`/api/log?machine=${id}&what=plan`).expect(200)).body.entries;
    expect(log[0].text).toBe('Plan: “Order felt” is done, next on 16 Apr 2026');
    await settle(id, { own: [{ ...oil, every: 0 }], version: 4 }).expect(400);
    await settle(id, { own: [{ ...item, minutes: [30, 20, 10] }], version: 4 }).expect(400);
    await settle(uuid()).expect(404);
  });

  it('with whom: hours of a person are kept, told, and planned with; days away too', async () => {
    const { id } = await lathe();
    expect((await planOf(id)).people.map(({ id: who, from }) => [who, from])).toEqual([['AB', 'starting']]);
    const person = { initials: 'EK', name: 'E', meant: null, by: 'AB' };
    const working = { hours: { mon: 2, sat: 4.5 }, off: ['2026-12-24'] };
    await shop.http
      .put('/api/people/EK')
      .send({ ...person, working })
      .expect(200);
    // A change of the name alone leaves the hours.
    await shop.http
      .put('/api/people/EK')
      .send({ ...person, name: 'Elin' })
      .expect(200);
    const { people } = await planOf(id);
    expect(people).toEqual([{ id: 'EK', name: 'Elin', ...working, from: 'own' }]);
    const { entries } = (await shop.http.get('/api/log?what=shop').expect(200)).body;
    await shop.http
      .put('/api/people/EK')
      .send({ ...person, name: 'Elin', working: { hours: { mon: 25 }, off: [] } })
      .expect(400);
    await shop.http
      .put('/api/people/EK')
      .send({ ...person, name: 'Elin', working: { hours: { mon: 3 }, off: [] } })
      .expect(200);
    const told = (await shop.http.get('/api/log?what=shop').expect(200)).body.entries;
    expect(told.length).toBe(entries.length + 1);
    expect(told[0].text).toBe('EK works mon 3 h');
  });

  it('a date is named once a day for the survey that runs, and held against its end', async () => {
    const { id } = await lathe();
    const name = (p50: string) =>
      shop.http.post(`/api/machines/${id}/plan/named`).send({ p10: '2027-01-01', p50, p90: '2027-03-01' }).expect(204);
    await name('2027-02-01');
    await name('2027-02-02');
    const { named, widen } = await planOf(id);
    expect(named.map(({ p50, came }) => [p50, came])).toEqual([['2027-02-02', null]]);
    expect(widen).toBe(1);
    const [survey] = (await shop.http.get(`/api/machines/${id}/surveys`).expect(200)).body;
    const { judge: _judge, notes: _notes, ...write } = survey;
    await shop.http
      .put(`/api/surveys/${survey.id}`)
      .send({ ...write, endedAt: '2027-02-10T12:00:00.000Z', by: 'AB' })
      .expect(200);
    expect((await planOf(id)).named[0].came).toBe('2027-02-10');
    await shop.http.post(`/api/machines/${id}/plan/named`).send({ p10: 'soon', p50: '2027-02-01', p90: '2027-03-01' }).expect(400);
  });

  it('the shop’s plan holds every machine that is not in the archive', async () => {
    const [one, other] = [await lathe(), await lathe('L-2')];
    await shop.http.post(`/api/machines/${other.id}/archive`).send({ away: true, by: 'AB' }).expect(200);
    const { machines } = (await shop.http.get('/api/plans').expect(200)).body as ShopPlan;
    expect(machines.map(({ machineId }) => machineId)).toEqual([one.id]);
  });
});
