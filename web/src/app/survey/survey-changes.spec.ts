import { TestBed } from '@angular/core/testing';
import { Subject, type Observable } from 'rxjs';
import type { Survey, SurveyWrite } from '@isometra/contract';
import { ApiFailure } from '../data/api';
import { Surveys } from '../data/surveys';
import { openShop, survey } from '../testing/fake-shop.spec';
import { SurveyChanges } from './survey-changes';

describe('changes of a survey', () => {
  const open = () => {
    const shop = openShop();
    const answers: Subject<Survey>[] = [];
    const sent: SurveyWrite[] = [];
    spyOn(TestBed.inject(Surveys), 'change').and.callFake((write: SurveyWrite): Observable<Survey> => {
      sent.push(write);
      answers.push(new Subject<Survey>());
      return answers[answers.length - 1];
    });
    const changes = TestBed.runInInjectionContext(() => new SurveyChanges());
    const answer = (at: number, version: number) => {
      answers[at].next({ ...survey(), ...sent[at], version });
      answers[at].complete();
    };
    return { ...shop, changes, sent, answers, answer };
  };

  it('are seen at once and sent one after the other, each with the version the one before it left', () => {
    const { desk, changes, sent, answer } = open();
    changes.save({ title: 'After the crash' }, 'Title kept.');
    changes.save({ school: 'top' }, 'School kept.');
    expect([desk.survey()?.title, desk.survey()?.school]).toEqual(['After the crash', 'top']);
    expect(sent.length).toBe(1);
    answer(0, 7);
    expect(sent.length).toBe(2);
    expect([sent[1].title, sent[1].school, sent[1].version]).toEqual(['After the crash', 'top', 7]);
    // The first answer does not take the second change back.
    expect(desk.survey()?.school).toBe('top');
    answer(1, 8);
    expect([desk.survey()?.school, desk.survey()?.version]).toEqual(['top', 8]);
    expect(changes.told()).toBe('School kept.');
  });

  it('one that somebody else overtook is shown as it is now, and the next one is sent on that', () => {
    const { desk, changes, sent, answers, answer } = open();
    changes.save({ title: 'Mine' }, 'Kept.');
    const newer = { ...survey(), title: 'Theirs', version: 12 };
    answers[0].error(new ApiFailure(409, [{ path: 'version', message: 'changed', example: '' }], newer));
    expect(desk.survey()?.title).toBe('Theirs');
    expect(changes.problem()).toContain('Somebody else has changed this survey meanwhile');
    changes.save({ school: 'top' }, 'Kept.');
    expect([sent[1].title, sent[1].version]).toEqual(['Theirs', 12]);
    answer(1, 13);
    expect(changes.problem()).toBe('');
  });

  it('one that is refused for another reason is taken back, with what was said', () => {
    const { desk, changes, answers } = open();
    changes.save({ title: '' }, 'Kept.');
    answers[0].error(new ApiFailure(400, [{ path: 'title', message: 'is missing: give it a title', example: '' }]));
    expect(changes.problem()).toBe('title: is missing: give it a title');
    expect(changes.told()).toBe('');
    expect(desk.survey()?.title).toBe('As found');
  });

  it('new limits judge the rounds anew, a new title does not', () => {
    const { desk, changes, answer } = open();
    const refreshed = spyOn(desk, 'refresh');
    changes.save({ title: 'Other' }, 'Kept.');
    answer(0, 2);
    expect(refreshed).not.toHaveBeenCalled();
    changes.save({ limits: { sheet: 'toolroom', version: 1 } }, 'Kept.');
    answer(1, 3);
    expect(refreshed).toHaveBeenCalledTimes(1);
  });
});
