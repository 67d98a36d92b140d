import type { NoteKind, StoredSurvey, SurveyNote } from '@isometra/contract';
import { NoteRow } from '../db/surveyModels.js';
import { machine, openShop, round, uuid, type TestShop } from '../testing/shop.js';

describe('what is written down in a survey', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const lathe = async () => {
    const added = machine();
    await shop.http.post('/api/machines').send(added).expect(201);
    return { machineId: added.id, survey: await surveyOf(added.id) };
  };
  const surveyOf = async (machineId: string): Promise<StoredSurvey> =>
    (await shop.http.get(`/api/machines/${machineId}/surveys`).expect(200)).body[0];
  const note = (surveyId: string, kind: NoteKind, content: object, more: Pick<Partial<SurveyNote>, 'supersedes'> = {}) => ({
    ...{ id: uuid(), surveyId, kind, content, supersedes: null, by: 'AB', at: '2026-03-01T08:00:00.000Z' },
    ...more,
  });
  const send = (sent: ReturnType<typeof note>) => shop.http.post(`/api/surveys/${sent.surveyId}/notes`).send(sent);
  const log = async (machineId: string): Promise<string[]> =>
    ((await shop.http.get(`/api/log?machine=${machineId}`)).body.entries as { text: string }[]).map(({ text }) => text);

  it('is kept as rows, each in the log, and a survey that is changed does not touch them', async () => {
    const { machineId, survey } = await lathe();
    await send(note(survey.id, 'by-hand', { step: 'clean', note: 'a crack at the rear foot' })).expect(201);
    await send(note(survey.id, 'bearing', { endFloat: '7 um', drag: [], note: 'cold' })).expect(201);
    const { judge: _judge, notes: _notes, ...write } = survey;
    await shop.http
      .put(`/api/surveys/${survey.id}`)
      .send({ ...write, title: 'Another', by: 'AB' })
      .expect(200);
    expect((await surveyOf(machineId)).notes.map(({ kind }) => kind)).toEqual(['by-hand', 'bearing']);
    expect(await log(machineId)).toEqual(
      jasmine.arrayContaining(['Clean and inspect done: a crack at the rear foot', 'Bearings felt: cold']),
    );
  });

  it('is never changed: a later note supersedes it once, or takes it back', async () => {
    const { machineId, survey } = await lathe();
    const first = note(survey.id, 'bearing', { endFloat: '7 um', drag: [], note: null });
    await send(first).expect(201);
    await send({ ...first, content: { endFloat: '9 um', drag: [], note: null } }).expect(201);
    expect((await surveyOf(machineId)).notes.map(({ content }) => content)).toEqual([first.content as never]);
    await send(note(survey.id, 'bearing', { endFloat: '8 um', drag: [], note: null }, { supersedes: first.id })).expect(201);
    await send(note(survey.id, 'withdrawn', {}, { supersedes: first.id })).expect(409);
    expect(await log(machineId)).toContain('Corrected: Bearings felt');
  });

  it('sent twice, also at the same moment, is there once', async () => {
    const { survey } = await lathe();
    const same = note(survey.id, 'by-hand', { step: 'clean', note: null });
    const told = await Promise.all([1, 2, 3, 4].map(() => send(same)));
    expect(told.map(({ status }) => status)).toEqual([201, 201, 201, 201]);
    expect(await NoteRow.count()).toBe(1);
  });

  it('two people at once lose nothing', async () => {
    const { machineId, survey } = await lathe();
    await Promise.all(
      Array.from({ length: 10 }, (_, i) => send(note(survey.id, 'bearing', { endFloat: `${i} um`, drag: [], note: null })).expect(201)),
    );
    expect((await surveyOf(machineId)).notes.length).toBe(10);
  });

  it('is refused with what would do', async () => {
    const { machineId, survey } = await lathe();
    const refused = async (kind: NoteKind, content: object, more: Partial<SurveyNote> = {}) =>
      ((await send(note(survey.id, kind, content, more)).expect(400)).body as { errors: { path: string }[] }).errors.map(
        ({ path }) => path,
      );
    expect(await refused('by-hand', { step: 'oil', note: null })).toEqual(['content.step']);
    expect(await refused('acceptance', { check: 'seat', quantity: 'rok', roundId: uuid(), why: 'x' })).toEqual([
      'content.quantity',
      'content.roundId',
    ]);
    expect(await refused('planned-done', { planned: uuid() })).toEqual(['content.planned']);
    expect(await refused('tie', { standIn: uuid(), reading: 'a bit', roundId: null, value: null })).toEqual([
      'content.standIn',
      'content.reading',
    ]);
    expect(await refused('withdrawn', {})).toEqual(['supersedes']);
    expect(await refused('bearing', { endFloat: null, drag: [], note: null }, { supersedes: uuid() })).toEqual(['supersedes']);
    expect(await NoteRow.count()).toBe(0);
    const begun = round(machineId);
    await shop.http.post('/api/rounds').send(begun).expect(201);
    const accepted = { check: 'tailstock-traverse', quantity: 'offsetHorizontal', roundId: begun.id, why: 'short work' };
    await send(note(survey.id, 'acceptance', accepted)).expect(201);
  });
});
