import type { RoundHead, StoredSurvey } from '@isometra/contract';
import { surveyWriteOf } from '@isometra/work';
import { FindingRow } from '../db/surveyModels.js';
import { machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';
import { listHeads } from './heads.js';
import { Solver } from './solver.js';

/** Counts what is worked out. */
class CountingSolver extends Solver {
  worked = 0;
  override heads(tasks: Parameters<Solver['heads']>[0]) {
    this.worked += tasks.length;
    return super.heads(tasks);
  }
}

describe('rounds in short', () => {
  let shop: TestShop;
  let solver: CountingSolver;
  beforeAll(async () => {
    shop = await openShop();
    solver = new CountingSolver();
  });
  beforeEach(async () => {
    await shop.clear();
    solver.worked = 0;
  });
  afterAll(() => Promise.all([shop.close(), solver.close()]));

  const lathe = async () => {
    const added = machine();
    await shop.http.post('/api/machines').send(added).expect(201);
    return added.id;
  };
  const take = async (machineId: string, value = '-9.5 div', more: Partial<ReturnType<typeof round>> = {}) => {
    const begun = { ...round(machineId), ...more };
    await shop.http.post('/api/rounds').send(begun).expect(201);
    await shop.http
      .post(`/api/rounds/${begun.id}/readings`)
      .send([reading(20, '0 div'), reading(400, value)])
      .expect(201);
    return begun;
  };
  const heads = (machineId: string): Promise<RoundHead[]> => listHeads(shop.sequelize, solver, machineId);
  const offsets = async (machineId: string) =>
    (await heads(machineId)).map(({ finding }) => finding?.quantities['offsetHorizontal']?.value);

  it('tell what each said, with its moves, its number and how its dial counted', async () => {
    const id = await lathe();
    const first = await take(id);
    await shop.http.post('/api/moves').send(move(first.id)).expect(201);
    await take(id, '3 div', { at: '2026-03-02T08:00:00.000Z', instrument: { kind: 'lever', graduation: '0.002 mm', sense: -1 } });
    const [one, two] = await heads(id);
    expect([one.number, two.number]).toEqual([1, 2]);
    expect([one.sense, two.sense]).toEqual([1, -1]);
    expect([one.moves.length, two.moves.length]).toEqual([1, 0]);
    expect(one.finding?.quantities['offsetHorizontal']).toEqual(jasmine.objectContaining({ verdict: 'out' }));
    expect(one.conditions).toEqual({ quillLock: 'on' });
  });

  it('are worked out once, and again only for what changed', async () => {
    const id = await lathe();
    const [first] = [await take(id), await take(id), await take(id)];
    const worked = async () => {
      const before = solver.worked;
      await heads(id);
      return solver.worked - before;
    };
    expect(await worked()).toBe(3);
    expect(await worked()).toBe(0);
    await shop.http.post(`/api/rounds/${first.id}/readings`).send(reading(200, '1 div')).expect(201);
    expect(await worked()).toBe(1);
    await shop.http
      .put(`/api/rounds/${first.id}`)
      .send({ ...first, setup: { centreDistance: '500 mm' } })
      .expect(200);
    expect(await worked()).toBe(1);
    await FindingRow.update({ core: '0.0.0' }, { where: {} });
    expect(await worked()).toBe(3);
  });

  it('that another version of the program judges otherwise say so in the log, once', async () => {
    const id = await lathe();
    await take(id);
    await heads(id);
    const [row] = await FindingRow.findAll();
    const head = row.head as { finding: { quantities: Record<string, { verdict: string }> } };
    const name = 'offsetHorizontal';
    const before = {
      ...head,
      finding: { ...head.finding, quantities: { ...head.finding.quantities, [name]: { ...head.finding.quantities[name], verdict: 'in' } } },
    };
    await FindingRow.update({ core: 'an older one', head: before }, { where: {} });
    await heads(id);
    await heads(id);
    const log = (await shop.http.get(`/api/log?machine=${id}`)).body.entries as { what: string; text: string }[];
    const told = log.filter(({ what }) => what === 'judged-anew');
    expect(told.length).toBe(1);
    expect(told[0].text).toContain('Tailstock sideways: in, now out');
    // One that says the same says nothing.
    await FindingRow.update({ core: 'an older one' }, { where: {} });
    await heads(id);
    const again = (await shop.http.get(`/api/log?machine=${id}`)).body.entries as { what: string }[];
    expect(again.filter(({ what }) => what === 'judged-anew').length).toBe(1);
  });

  it('follow a reading that is put right, the round’s set-up, the survey’s limits and what is planned', async () => {
    const id = await lathe();
    const begun = await take(id);
    const [before] = await offsets(id);
    await shop.http
      .put(`/api/rounds/${begun.id}`)
      .send({ ...begun, setup: { centreDistance: '840 mm' } })
      .expect(200);
    expect((await offsets(id))[0]).toBeCloseTo(2 * (before ?? 0), 6);
    const [survey] = (await shop.http.get(`/api/machines/${id}/surveys`)).body as StoredSurvey[];
    await shop.http
      .put(`/api/surveys/${survey.id}`)
      .send({ ...surveyWriteOf(survey), limits: { sheet: 'toolroom', version: 1 }, by: 'AB' })
      .expect(200);
    expect((await heads(id))[0].finding?.quantities['offsetHorizontal'].limit).toEqual([-7.5, 7.5]);
    const planned = { change: { kind: 'weight', fields: { slope: '40 um/m' } } };
    const note = {
      id: uuid(),
      surveyId: survey.id,
      kind: 'planned',
      content: planned,
      supersedes: null,
      by: 'AB',
      at: '2026-03-01T08:00:00.000Z',
    };
    await shop.http.post(`/api/surveys/${survey.id}/notes`).send(note).expect(201);
    solver.worked = 0;
    await heads(id);
    expect(solver.worked).toBe(1);
  });

  it('are empty for a machine without rounds, and not there for none', async () => {
    expect(await heads(await lathe())).toEqual([]);
    await shop.http.get(`/api/machines/${uuid()}/heads`).expect(404);
  });

  it('what set-ups of earlier rounds have shown counts for the rounds after them, and only for those', async () => {
    const id = await lathe();
    const doubt = async () => (await heads(id)).map(({ finding }) => finding?.quantities['offsetHorizontal']?.expanded ?? 0);
    const first = await take(id);
    await take(id, '-9 div', { at: '2026-03-03T08:00:00.000Z' });
    const [before, later] = await doubt();
    expect(later).toBeCloseTo(before, 9);
    // The bar is set up twice more in the first round, 40 µm apart: this shop reseats badly.
    for (const [set, value] of [
      [2, '-19.5 div'],
      [3, '0 div'],
    ] as const)
      await shop.http
        .post(`/api/rounds/${first.id}/readings`)
        .send([reading(20, '0 div', { set }), reading(400, value, { set })])
        .expect(201);
    solver.worked = 0;
    const [, taught] = await doubt();
    expect(taught).toBeGreaterThan(1.5 * later);
    expect(solver.worked).toBe(2);
    // Worked out once: asked again, nothing is.
    expect((await doubt())[1]).toBe(taught);
    expect(solver.worked).toBe(2);
    const rounds = await shop.http.get(`/api/machines/${id}/rounds`);
    const { body } = await shop.http.get(`/api/rounds/${rounds.body[1].id}/finding`);
    expect(body.finding.quantities.offsetHorizontal.expanded).toBe(taught);
  });
});
