import { TestBed } from '@angular/core/testing';
import { openShop, refusal, survey, until } from '../testing/fake-shop';
import { SurveyChanges } from './survey-changes';

describe('changes of a survey', () => {
  const open = async () => {
    const shop = await openShop();
    const changes = TestBed.runInInjectionContext(() => new SurveyChanges());
    return { ...shop, changes };
  };

  it('are seen at once and sent one after the other, each with the version the one before it left', async () => {
    const { server, desk, changes } = await open();
    server.latency = (method) => (method === 'PUT' ? 60 : 1);
    changes.save({ title: 'After the crash' }, 'Title kept.');
    changes.save({ school: 'top' }, 'School kept.');
    expect([desk.survey()?.title, desk.survey()?.school]).toEqual(['After the crash', 'top']);
    expect(server.sent.length).toBe(1);
    await until(() => server.sent.length === 2);
    // The first answer does not take the second change back.
    expect(desk.survey()?.school).toBe('top');
    await until(() => changes.told() === 'School kept.');
    expect(server.sent.map(({ body }) => [body.title, body.school, body.version])).toEqual([
      ['After the crash', 'cascade', 1],
      ['After the crash', 'top', 2],
    ]);
    expect([desk.survey()?.school, desk.survey()?.version]).toEqual(['top', 3]);
  });

  it('one that somebody else overtook is shown as it is now, and the next one is sent on that', async () => {
    const { server, desk, changes } = await open();
    const newer = { ...survey(), title: 'Theirs', version: 12 };
    server.refuse = refusal(409, 'changed', newer, 'version');
    changes.save({ title: 'Mine' }, 'Kept.');
    await until(() => changes.problem() !== '');
    expect(desk.survey()?.title).toBe('Theirs');
    expect(changes.problem()).toContain('Somebody else has changed this survey meanwhile');
    changes.save({ school: 'top' }, 'Kept.');
    await until(() => changes.problem() === '');
    expect([server.sent[0].body.title, server.sent[0].body.version]).toEqual(['Theirs', 12]);
  });

  it('one that is refused for another reason is taken back, with what was said', async () => {
    const { server, desk, changes } = await open();
    server.refuse = refusal(400, 'is missing: give it a title', undefined, 'title');
    changes.save({ title: '' }, 'Kept.');
    await until(() => changes.problem() !== '');
    expect(changes.problem()).toBe('The title is missing: give it a title.');
    expect(changes.told()).toBe('');
    expect(desk.survey()?.title).toBe('As found');
  });

  it('new limits judge the rounds anew, a new title does not', async () => {
    const { desk, changes } = await open();
    const refreshed = spyOn(desk, 'refresh');
    changes.save({ title: 'Other' }, 'Title kept.');
    await until(() => changes.told() === 'Title kept.');
    expect(refreshed).not.toHaveBeenCalled();
    changes.save({ limits: { sheet: 'toolroom', version: 1 } }, 'Sheet kept.');
    await until(() => changes.told() === 'Sheet kept.');
    expect(refreshed).toHaveBeenCalledTimes(1);
    expect(desk.survey()?.judge.name).toBe('Toolroom');
  });

  it('what is written down stands at once, and while the server is away', async () => {
    const { server, desk, changes } = await open();
    server.down = true;
    changes.note({ kind: 'by-hand', content: { step: 'clean', note: null } }, 'Written down.');
    expect(desk.byHand()[0].state).toBe('in');
    server.down = false;
    await until(() => server.surveys[0].notes.length === 1, 4000);
    expect(desk.byHand()[0].state).toBe('in');
  });
});
