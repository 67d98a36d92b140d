import * as fc from 'fast-check';
import type { OwnItem, PlanItem, PlanSettled, RoundHead, StoredStripDown } from '@isometra/contract';
import { campaignOf, freshSurvey, type Campaign } from '../ladder/campaign.js';
import { Diary, finding, move, quantity } from '../testing/heads.js';
import { arranged, circleWith, shifted } from './arranged.js';
import { durationsIn } from './durations.js';
import { jobItems } from './jobItems.js';
import { jobOf } from './jobOf.js';
import { howGood, knownToDo, plannedPeople } from './known.js';
import { planJob } from './planJob.js';
import { lookFaults, roughlyOut } from './roughLooks.js';

const MACHINE = { id: 'm', card: { number: 'L-14', kind: 'engine-lathe' } };
const survey = (part: Partial<Campaign> = {}): Campaign => ({
  ...campaignOf(freshSurvey({ id: 'm', kind: 'engine-lathe' }, 's', 'First', Diary.at(0))),
  ...part,
});

let made = 0;
/** A round of a check that said so much, in µm against ± 10. */
function head(check: string, name: string, value: number, part: Partial<RoundHead> = {}): RoundHead {
  made += 1;
  const verdict = Math.abs(value) > 10 ? 'out' : 'in';
  return {
    ...{ id: `r${made}`, machineId: 'm', surveyId: 's', check, number: made, instrumentName: 'Lever dial', conditions: {}, by: 'EK' },
    ...{ at: Diary.at(made), version: 1, last: 4, mounting: null, sense: null, moves: [] },
    finding: finding({ [name]: quantity({ value, verdict, aim: 0, limit: [-10, 10] }) }),
    ...part,
  };
}

const known = (heads: readonly RoundHead[] = [], more: Partial<Parameters<typeof knownToDo>[0]> = {}) =>
  knownToDo(
    { machine: MACHINE, heads, surveys: [survey()], surfaces: [], stripDowns: [], notes: [], looks: [], ...more },
    { kit: [], takes: durationsIn([], undefined), now: Diary.at(60), zone: null, firsts: new Map([['spindle-axis', { out: 8, all: 8 }]]) },
  );
const keys = (items: readonly PlanItem[]): string[] => items.map(({ key }) => key);
const one = (items: readonly PlanItem[], key: string): PlanItem => {
  const found = items.find((item) => item.key === key);
  if (!found) throw new Error(`no ${key} among ${keys(items).join(', ')}`);
  return found;
};

const SETTLED: PlanSettled = { changes: [], own: [], order: [] };
const own = (id: string, part: Partial<OwnItem> = {}): OwnItem => ({
  ...{ id, title: id, minutes: [10, 20, 40], wait: null, people: 1, who: [], things: [], after: [], notBefore: null, doneAt: null },
  ...{ by: 'EK', at: Diary.at(1) },
  ...part,
});
const signed = { by: 'EK', at: Diary.at(1), why: 'known' };

/** Everything stands after what it comes after. */
const inOrder = (items: readonly PlanItem[]): boolean =>
  items.every((item, i) => item.after.every((key) => items.findIndex((other) => other.key === key) < i));

describe('what is left to do on a machine', () => {
  it('before anything was measured: the steps by hand, every rung to be read, and perhaps corrected', () => {
    const items = jobItems(known());
    expect(items[0].kind).toBe('by-hand');
    expect(keys(items)).toContain('read bed-twist');
    expect(one(items, 'perhaps bed-twist').minutes?.[0]).toBe(0);
    expect(one(items, 'perhaps bed-twist').why).toContain('50 %');
    expect(inOrder(items)).toBeTrue();
  });

  it('a check that is often out at first counts so: by the machines of its kind, check by check', () => {
    const items = jobItems(known());
    // By hand: four of a half, and eight of eight: (2 + 8)/12.
    expect(one(items, 'perhaps spindle-axis').why).toContain('83 %');
  });

  it('what a rough look said counts until it is measured: out by much is moved, what looks right is only read', () => {
    const look = (check: string, quantity: string, out: string | null) => ({ check, quantity, out, by: 'EK', at: Diary.at(1) });
    const looks = [look('bed-twist', 'twistPerMetre', '0.3 mm/m per m'), look('spindle-axis', 'slopeH', null)];
    const items = jobItems(known([], { looks }));
    const moved = one(items, 'move bed-twist twistPerMetre');
    expect(moved.after).toEqual(['read bed-twist']);
    expect(moved.why).toContain('By a rough look: Bed twist about 0.3 mm/m per m out (EK).');
    expect(keys(items)).toEqual(jasmine.arrayContaining(['again bed-twist', 'perhaps bed-twist', 'read spindle-axis']));
    // One side of it looks right; the other nobody has looked at.
    expect(keys(items)).toContain('perhaps spindle-axis');
    const both = [...looks, look('spindle-axis', 'slopeV', null)];
    expect(keys(jobItems(known([], { looks: both })))).not.toContain('perhaps spindle-axis');
    expect(inOrder(items)).toBeTrue();
    const read = known([head('bed-twist', 'twistPerMetre', 1), head('spindle-axis', 'slopeH', 60)], { looks });
    const measured = keys(jobItems(read));
    expect(measured).not.toContain('move bed-twist twistPerMetre');
    expect(measured).toContain('move spindle-axis slopeH');
  });

  it('a rough look takes a figure with its unit, whichever way it is out, and says what would do', () => {
    const slope = { dimension: 'slope' } as const;
    expect(roughlyOut('-0.3 mm/m', slope)).toBeCloseTo(300, 9);
    expect(roughlyOut('8 thou', { dimension: 'deviation' })).toBeCloseTo(203.2, 9);
    expect(roughlyOut('0.1/300', slope)).toBeCloseTo(333.333, 2);
    expect(roughlyOut('0.2', { dimension: 'deviation' })).toEqual({
      fault: '"0.2" does not say its unit; 0.2 mm would do',
    });
    const look = { check: 'bed-twist', quantity: 'twistPerMetre', out: 'much', by: 'EK', at: Diary.at(1) };
    expect(lookFaults([{ ...look, out: null }, look, { ...look, quantity: 'x' }]).map(({ path }) => path)).toEqual([
      'looks[1].out',
      'looks[2].quantity',
    ]);
  });

  it('what is out is moved and read again, and what that upsets is read once, however many moves upset it', () => {
    const heads = [
      head('bed-twist', 'twistPerMetre', 60),
      head('spindle-run', 'parallelHorizontal', 0),
      head('tailstock-traverse', 'offsetHorizontal', 40),
    ];
    const items = jobItems(known(heads));
    const all = keys(items);
    expect(all.filter((key) => key.startsWith('move ')).length).toBeGreaterThan(0);
    for (const key of all)
      expect(all.filter((other) => other === key).length)
        .withContext(key)
        .toBe(1);
    const again = one(items, 'again bed-twist');
    expect(again.after.some((key) => key.startsWith('move bed-twist'))).toBeTrue();
    // A move of the bed upsets the tailstock: its move comes after the bed was read again.
    const tailstock = items.find(({ key }) => key.startsWith('move tailstock-traverse'));
    expect(tailstock?.after).toContain('again bed-twist');
    expect(inOrder(items)).toBeTrue();
  });

  it('what was left out or accepted asks for nothing; what waits for a certificate comes after it', () => {
    const skipped = [{ check: 'bed-twist', why: 'no level here', by: 'EK', at: Diary.at(1) }];
    const items = jobItems(known([], { surveys: [survey({ skipped })] }));
    expect(keys(items).some((key) => key.includes('bed-twist'))).toBeFalse();
    const late = knownToDo(
      {
        ...{ machine: MACHINE, surveys: [survey()], surfaces: [], stripDowns: [], notes: [], looks: [] },
        heads: [
          head('bed-twist', 'twistPerMetre', 60, {
            moves: [move({ quantity: 'twistPerMetre', doneAt: Diary.at(50), begunAt: Diary.at(49) })],
          }),
        ],
      },
      {
        ...{ takes: durationsIn([], undefined), now: Diary.at(60), zone: null, firsts: new Map() },
        kit: [{ id: 'k', kind: 'instrument', name: 'Lever dial', data: {}, care: { due: '2020-01-01' }, photos: [], version: 1 }],
      },
    );
    const waiting = jobItems(late);
    expect(one(waiting, 'kit k').wait).toBe(336);
    expect(one(waiting, 'read bed-twist').after).toContain('kit k');
  });

  it('a machine that is apart goes together first: parts backwards, what is needed before each, two people where two lift', () => {
    const part = (number: number, details: object, more: object = {}) => ({
      ...{ id: `p${number}`, stripDownId: 'd', number, place: number, details: { name: `Part ${number}`, ...details }, need: null },
      ...{ fitted: null, pictures: [], version: 1 },
      ...more,
    });
    const apart = {
      ...{ id: 'd', machineId: 'm', name: 'Headstock', version: 1, begunAt: Diary.at(2) },
      parts: [
        part(1, {}),
        part(2, {}),
        part(3, { lift: 'two' }),
        part(4, { condition: 'order' }, { need: { state: 'ordered', expected: '2027-01-10' } }),
        part(5, {}, { fitted: { by: 'EK', at: Diary.at(3), ticks: [] } }),
      ],
    } as unknown as StoredStripDown;
    const items = jobItems(known([], { stripDowns: [apart] }));
    const fits = items.filter(({ kind }) => kind === 'assemble');
    expect(fits.map(({ key, people }) => [key, people])).toEqual([
      ['assemble p4', 1],
      ['assemble p3', 2],
      ['assemble p2', 1],
    ]);
    expect(fits[0].after).toContain('part p4');
    expect(one(items, 'part p4')).toEqual(jasmine.objectContaining({ notBefore: '2027-01-10', people: 0, wait: 0 }));
    expect(fits[2].title).toBe('Put back parts 2 to 1');
    expect(items.find(({ kind }) => kind === 'by-hand')?.after).toEqual(['assemble p2']);
  });

  it('things to do in notes are on the list, what is ticked is not', () => {
    const note = {
      ...{ id: 'n', machineId: 'm', part: null, pictures: [], supersedes: null, by: 'EK', at: Diary.at(1) },
      ...{ text: 'Belt\n[ ] order a belt\n[x] measure it', place: { path: '/machines/m', words: 'L-14' } },
    };
    const items = jobItems(known([], { notes: [note] }));
    expect(items.filter(({ kind }) => kind === 'to-do').map(({ title }) => title)).toEqual(['order a belt']);
  });
});

const laid = (items: readonly PlanItem[], settled: PlanSettled, today = '2026-12-01') => arranged(items, settled, today);

describe('a plan as people have settled it', () => {
  const items = jobItems(known([head('bed-twist', 'twistPerMetre', 60)]));

  it('minutes that are told stand, with the reason; what is left out leaves no gap in the order', () => {
    const key = 'again bed-twist';
    const now = laid(items, {
      ...SETTLED,
      changes: [
        { key, minutes: [5, 6, 7], ...signed },
        { key: 'perhaps bed-twist', left: true, ...signed },
      ],
    });
    expect(one(now, key)).toEqual(jasmine.objectContaining({ minutes: [5, 6, 7], from: 'told' }));
    expect(one(now, key).told?.why).toBe('known');
    expect(keys(now)).not.toContain('perhaps bed-twist');
    expect(now.every(({ after }) => !after.includes('perhaps bed-twist'))).toBeTrue();
    expect(now.some(({ after }) => after.includes(key))).toBeTrue();
    expect(inOrder(now)).toBeTrue();
  });

  it('own items are added; one that would close a circle is put in without that', () => {
    const now = laid(items, {
      ...SETTLED,
      own: [own('a', { after: ['own b', 'again bed-twist'] }), own('b', { after: ['own a'] }), own('c', { doneAt: Diary.at(2) })],
    });
    expect(keys(now)).toContain('own a');
    expect(keys(now)).not.toContain('own c');
    expect(inOrder(now)).toBeTrue();
    expect(circleWith(now, 'again bed-twist', ['own a'])).toBe('own a');
  });

  it('an item may pass what it does not depend on, and is told what it may not pass', () => {
    const now = laid(items, { ...SETTLED, own: [own('a')] });
    const up = shifted(now, 'own a', -1);
    expect(up && 'order' in up && up.order.indexOf('own a')).toBe(now.length - 2);
    const at = now.findIndex(({ key }) => key === 'again bed-twist');
    const barred = shifted(now, 'again bed-twist', -1);
    expect(barred).toEqual({ before: now[at - 1], after: now[at] });
    expect(shifted(now, now[0].key, -1)).toBeUndefined();
  });

  it('whatever order is asked for, everything stands after what it comes after, and nothing is lost', () => {
    const all = keys(items);
    fc.assert(
      fc.property(fc.shuffledSubarray(all), (order) => {
        const now = laid(items, { ...SETTLED, order });
        expect(inOrder(now)).toBeTrue();
        expect(keys(now).sort()).toEqual([...all].sort());
      }),
      { numRuns: 60 },
    );
  });

  it('what was put before something else that it does not depend on stands before it', () => {
    const now = laid(items, { ...SETTLED, own: [own('a')] });
    const order = ['own a', ...keys(now).filter((key) => key !== 'own a')];
    expect(keys(laid(items, { ...SETTLED, own: [own('a')], order }))).toEqual(order);
  });

  it('what comes round again stands in the plan only when it has its turn: a far one moves no date', () => {
    const oil = own('oil', { every: 180, notBefore: '2027-05-01' });
    expect(keys(laid(items, { ...SETTLED, own: [oil] }))).not.toContain('own oil');
    expect(keys(laid(items, { ...SETTLED, own: [oil] }, '2027-05-01'))).toContain('own oil');
  });

  it('becomes a job file that can be planned, with the people and the kit of the shop', () => {
    const now = laid(items, SETTLED);
    const people = plannedPeople([{ initials: 'EK', name: '', entries: 9 }], undefined);
    expect(people[0].from).toBe('starting');
    const made = jobOf([{ machineId: 'm', number: 'L-14', items: now }], {
      ...{ start: '2026-12-01', timeZone: 'Europe/Lisbon', people, draws: 40 },
    });
    const { finish, items: dates } = planJob(made?.job);
    expect(dates.length).toBe(now.length);
    expect(finish.p10 <= finish.p50 && finish.p50 <= finish.p90).toBeTrue();
    expect(finish.p10 > '2026-12-01').toBeTrue();
    expect(jobOf([], { start: '2026-12-01', timeZone: null, people })).toBeUndefined();
  });

  it('a second person never makes it later, and more hands than there are, are all of them', () => {
    const two = [own('lift', { people: 3 })];
    const now = laid(items, { ...SETTLED, own: two });
    const person = (id: string) => ({ id, name: '', hours: { tue: 2, thu: 2, sat: 4 }, off: [], from: 'own' as const });
    const finish = (ids: readonly string[]) =>
      planJob(
        jobOf([{ machineId: 'm', number: 'L-14', items: now }], {
          ...{ start: '2026-12-01', timeZone: null, draws: 60, people: ids.map(person) },
        })?.job,
      ).finish.p50;
    expect(finish(['EK', 'JT']) <= finish(['EK'])).toBeTrue();
  });

  it('what needs two who never work on one day is planned as if somebody came to help, and says so', () => {
    const lift = { ...SETTLED, own: [own('lift', { people: 2 })] };
    const plans = [{ machineId: 'm', number: 'L-14', items: laid([], lift) }];
    const person = (id: string, day: 'mon' | 'tue') => ({ id, name: '', hours: { [day]: 2 }, off: [], from: 'own' as const });
    const made = (people: readonly ReturnType<typeof person>[]) => jobOf(plans, { start: '2026-12-01', timeZone: null, draws: 20, people });
    const apart = made([person('EK', 'mon'), person('JT', 'tue')]);
    expect(apart?.helped).toEqual([{ machineId: 'm', key: 'own lift' }]);
    expect(planJob(apart?.job).finish.p50).toBe('2026-12-01');
    expect(made([person('EK', 'tue'), person('JT', 'tue')])?.helped).toEqual([]);
  });
});

describe('what a shop has learned of its plans', () => {
  it('with whom it is planned: whose hours are told, else the one who wrote most at the hours of the shop', () => {
    const people = [
      { initials: 'EK', name: 'E', entries: 3 },
      { initials: 'JT', name: 'J', entries: 30 },
    ];
    const hours = [
      { day: 'Tuesday' as const, from: '19:00', to: '21:30' },
      { day: 'Tuesday' as const, from: '08:00', to: '09:00' },
    ];
    expect(plannedPeople(people, hours)).toEqual([{ id: 'JT', name: 'J', hours: { tue: 3.5 }, off: [], from: 'shop' }]);
    const told = { hours: { mon: 1 }, off: ['2026-12-24'] };
    expect(plannedPeople([{ ...people[0], working: told }, people[1]], hours).map(({ id, off }) => [id, off])).toEqual([
      ['EK', ['2026-12-24']],
    ]);
  });

  it('nothing is said of nine dates; of ten that came too late ranges are widened until eight would have held', () => {
    const late = (by: number) => ({ p10: 80, p50: 100, p90: 110, came: 100 + by });
    const dates = [5, 5, 5, 5, 20, 20, 20, 20, 40, 40].map(late);
    expect(howGood(dates.slice(1))).toBeUndefined();
    const told = howGood(dates);
    expect(told?.share).toBe(0.4);
    // By hand: the eighth of ten lies 20 days late, where the range left room for 10.
    expect(told?.widen).toBeCloseTo(2, 9);
    expect(howGood(Array.from({ length: 10 }, () => late(4)))).toEqual({ share: 1, widen: 1 });
  });
});
