import * as fc from 'fast-check';
import type { PlanItem, PlannedPerson } from '@isometra/contract';
import { helps } from './helps.js';
import { jobOf } from './jobOf.js';
import { minutesTyped, minutesWords } from './minutesTold.js';
import { planJob } from './planJob.js';
import { item } from './toDo.js';
import { tonight } from './tonight.js';

const work = (key: string, minutes: number, part: Partial<PlanItem> = {}): PlanItem => ({
  ...item('read', key, { title: key, why: '', minutes: [minutes / 2, minutes, minutes * 2] }),
  key,
  ...part,
});
const EVENING = { minutes: 120, people: 1, today: '2026-12-01' };
const chosen = (items: readonly PlanItem[], more: Partial<typeof EVENING> = {}) =>
  tonight(items, { ...EVENING, ...more }).items.map(
    ({ item: { key }, minutes, carriedOn }) => `${key} ${minutes}${carriedOn ? ' on' : ''}`,
  );

describe('an evening', () => {
  it('takes what fits in the order of the plan, and what becomes free on the way', () => {
    const items = [work('a', 40), work('b', 30, { after: ['a'] }), work('c', 100), work('d', 20)];
    expect(chosen(items)).toEqual(['a 40', 'b 30', 'c 50 on']);
    expect(chosen(items, { minutes: 80 })).toEqual(['a 40', 'b 30']);
  });

  it('leaves out what waits, what may never be needed, what comes later and what needs more hands', () => {
    const items = [
      work('wait', 0, { wait: 48, minutes: null }),
      work('after', 10, { after: ['wait'] }),
      work('later', 10, { notBefore: '2026-12-02' }),
      work('lift', 10, { people: 2 }),
      work('perhaps', 10, { kind: 'perhaps' }),
      work('today', 10, { notBefore: '2026-12-01' }),
    ];
    expect(chosen(items)).toEqual(['today 10']);
    expect(chosen(items, { people: 2 })).toEqual(['lift 10', 'today 10']);
  });

  it('says what to lay out, who must come and what to look out for, each once', () => {
    const told = tonight(
      [
        work('a', 10, { things: ['Level'], cautions: ['Two people.'], people: 2, who: ['EK'] }),
        work('b', 10, { things: ['Level', 'Square'], cautions: ['Two people.'] }),
      ],
      { ...EVENING, people: 2 },
    );
    expect(told).toEqual(
      jasmine.objectContaining({ layOut: ['Level', 'Square'], people: 2, who: ['EK'], cautions: ['Two people.'], over: 100 }),
    );
  });

  it('is never longer than it is, and nothing stands before what it comes after', () => {
    const any = fc.array(fc.record({ minutes: fc.integer({ min: 1, max: 200 }), back: fc.nat(5) }), { maxLength: 20 });
    fc.assert(
      fc.property(any, fc.integer({ min: 10, max: 600 }), (all, minutes) => {
        const items = all.map(({ minutes: each, back }, i) =>
          work(`w${i}`, each, { after: back > 0 && i >= back ? [`w${i - back}`] : [] }),
        );
        const told = tonight(items, { ...EVENING, minutes });
        const used = told.items.reduce((sum, one) => sum + one.minutes, 0);
        expect(used + told.over).toBe(minutes);
        const keys = told.items.map((one) => one.item.key);
        told.items.forEach((one, i) => expect(one.item.after.every((key) => keys.slice(0, i).includes(key))).toBeTrue());
        expect(told.items.slice(0, -1).filter(({ carriedOn }) => carriedOn).length).toBe(0);
      }),
    );
  });
});

describe('what would help', () => {
  const person: PlannedPerson = { id: 'EK', name: '', hours: { tue: 2, sat: 4 }, off: ['2026-12-12'], from: 'own' };
  const plan = (items: readonly PlanItem[]) => [{ machineId: 'm', number: 'L-14', items }];
  const circumstances = { start: '2026-12-01', timeZone: 'Europe/Lisbon', people: [person], draws: 20 };
  const finish = (plans: ReturnType<typeof plan>, more = circumstances) => planJob(jobOf(plans, more)?.job).finish.p50;

  it('each is the same job otherwise, and none makes it later', () => {
    const plans = plan([
      work('part', 0, { kind: 'part', wait: 0, minutes: null, people: 0, notBefore: '2027-01-20' }),
      work('fit', 60, { kind: 'assemble', after: ['part'] }),
      work('read', 300),
      work('perhaps', 300, { kind: 'perhaps', after: ['read'] }),
      work('scrape', 600, { kind: 'scrape' }),
    ]);
    const all = helps(plans, circumstances);
    expect(all.map(({ code }) => code)).toEqual(['person', 'evening', 'waits', 'nothing-more']);
    const now = finish(plans);
    for (const help of all)
      expect(planJob(jobOf(help.plans, help.circumstances)?.job).finish.p50 <= now)
        .withContext(help.code)
        .toBeTrue();
    const waits = all.find(({ code }) => code === 'waits');
    expect(planJob(jobOf(waits?.plans ?? [], circumstances)?.job).finish.p50 <= now).toBeTrue();
  });

  it('nothing that is not there is offered', () => {
    expect(helps(plan([work('read', 30)]), circumstances).map(({ code }) => code)).toEqual(['person', 'evening']);
    expect(helps(plan([work('read', 30)]), { ...circumstances, people: [] })).toEqual([]);
  });
});

describe('minutes', () => {
  it('are said and read as people say them', () => {
    expect([5, 60, 90, 125, 700].map(minutesWords)).toEqual(['5 min', '1 h', '1 h 30', '2 h 05', '12 h']);
    const typed = ['40', '40 min', '2 h', '1 h 30', '1:30', '1.5 h', '1,5h', '', 'soon', '1:75', 'h'];
    expect(typed.map(minutesTyped)).toEqual([40, 40, 120, 90, 90, 90, 90, undefined, undefined, undefined, undefined]);
  });
});
