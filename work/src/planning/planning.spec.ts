import fc from 'fast-check';
import { FaultError } from '@isometra/core';
import type { Schedule } from '@isometra/contract';
import { jobSchema } from '@isometra/contract';
import { Calendar } from './calendar.js';
import { jobRun, layOutJob, planJob } from './planJob.js';
import { Scheduler } from './schedule.js';

// 2 March 2026 is a Monday.
const EK = { id: 'EK', hours: { mon: 2, wed: 2, sat: 6 } };
const HB = { id: 'HB', hours: { mon: 3, tue: 3, wed: 1 } };
type Item = Record<string, unknown>;
const job = (items: readonly Item[], more: object = {}) => ({
  ...{ format: 'isometra-job/1', start: '2026-03-02', timeZone: 'Europe/London', people: [EK], draws: 400, seed: 3, items },
  ...more,
});
const plan = (items: readonly Item[], more: object = {}): Schedule => planJob(job(items, more));
const faults = (raw: unknown): readonly string[] => {
  try {
    planJob(raw);
  } catch (error) {
    if (error instanceof FaultError) return error.faults.map(({ path, message }) => `${path}: ${message}`);
    throw error;
  }
  return [];
};
const days = (schedule: Schedule): string[] =>
  schedule.items.map(({ id, start, end }) => `${id} ${start.p50.slice(5)} ${end.p50.slice(5)}`);

describe('a job', () => {
  it('fills the hours of a person in the order given, and carries on over days', () => {
    // Monday 120 min: a 90, b 30; the other 60 of b on Wednesday, c on Wednesday and Saturday.
    const told = plan([
      { id: 'a', minutes: 90 },
      { id: 'b', minutes: 90 },
      { id: 'c', minutes: 100 },
    ]);
    expect(days(told)).toEqual(['a 03-02 03-02', 'b 03-02 03-04', 'c 03-04 03-07']);
    expect(told.finish).toEqual({ p10: '2026-03-07', p50: '2026-03-07', p90: '2026-03-07' });
    expect(told.chain).toEqual(['a', 'b', 'c']);
    expect(told.items.map(({ decides }) => decides)).toEqual([1, 1, 1]);
    expect(told.first).toEqual(['a', 'b', 'c']);
  });

  it('laid out once, tells who does what on which day', () => {
    const told = layOutJob(
      job(
        [
          { id: 'a', minutes: [60, 90, 200] },
          { id: 'b', minutes: 90, after: ['a'] },
          { id: 'settle', wait: { hours: 30 }, after: ['b'] },
          { id: 'lift', minutes: 30, who: ['EK', 'HB'], after: ['settle'] },
        ],
        { people: [EK, HB] },
      ),
    );
    expect(
      told.map(({ id, crew, days: on }) => [id, crew.join(' '), ...on.map(({ date, minutes }) => `${date.slice(5)} ${minutes}`)]),
    ).toEqual([
      ['a', 'EK', '03-02 90'],
      ['b', 'HB', '03-02 90'],
      ['settle', ''],
      ['lift', 'EK HB', '03-04 30'],
    ]);
    expect(told[2]).toEqual(jasmine.objectContaining({ start: '2026-03-02', end: '2026-03-03' }));
  });

  it('however it is laid out, the minutes of its days are those of the item, in the hours of everybody who does it', () => {
    const hours = fc.record({ mon: fc.integer({ min: 0, max: 5 }), thu: fc.integer({ min: 1, max: 5 }) });
    fc.assert(
      fc.property(hours, hours, fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 1, maxLength: 8 }), (one, other, minutes) => {
        const people = [
          { id: 'A', hours: one },
          { id: 'B', hours: other },
        ];
        const told = layOutJob(
          job(
            minutes.map((each, i) => ({ id: `i${i}`, minutes: each })),
            { people },
          ),
        );
        const used = new Map<string, number>();
        told.forEach(({ days: on, crew }, i) => {
          expect(on.reduce((sum, day) => sum + day.minutes, 0)).toBeCloseTo(minutes[i], 6);
          for (const day of on) used.set(`${crew.join()} ${day.date}`, (used.get(`${crew.join()} ${day.date}`) ?? 0) + day.minutes);
        });
        for (const [key, total] of used) {
          const [who, date] = key.split(' ');
          const own = who === 'A' ? one : other;
          const weekday = new Date(`${date}T12:00:00Z`).getUTCDay();
          expect(total).toBeLessThanOrEqual(60 * (weekday === 1 ? own.mon : weekday === 4 ? own.thu : 0) + 1e-6);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('the end of some items alone is told, with what it had to wait for among the others', () => {
    const raw = job([
      { id: 'first', minutes: 240 },
      { id: 'ours', minutes: 60 },
      { id: 'last', minutes: 900 },
    ]);
    const run = jobRun(raw, ['ours']);
    run.step(run.draws);
    const told = run.result();
    // Monday and Wednesday are full of the first: ours is done on Saturday.
    expect(told.finish.p50).toBe('2026-03-07');
    expect(told.chain).toEqual(['first', 'ours']);
    expect(planJob(raw).finish.p50 > told.finish.p50).toBeTrue();
  });

  it('draws in steps say the same as all at once, and can be stopped', () => {
    const raw = job([
      { id: 'a', minutes: [30, 90, 400] },
      { id: 'b', minutes: [30, 60, 90], after: ['a'] },
    ]);
    const run = jobRun(raw);
    while (run.step(70) < run.draws) continue;
    expect(run.result()).toEqual(planJob(raw));
    const early = jobRun(raw);
    expect(early.step(50)).toBe(50);
    expect(early.result().items[0].decides).toBe(1);
  });

  it('works together only in hours that all share, and leaves out days off', () => {
    const both = plan([{ id: 'lift', minutes: 150, who: ['EK', 'HB'] }], { people: [EK, HB] });
    // Monday two hours, Wednesday one hour of HB.
    expect(days(both)).toEqual(['lift 03-02 03-04']);
    const off = plan([{ id: 'lift', minutes: 150, who: ['EK', 'HB'] }], { people: [{ ...EK, off: ['2026-03-02'] }, HB] });
    expect(days(off)).toEqual(['lift 03-04 03-09']);
    const thing = plan([{ id: 'square', minutes: 60, things: ['granite'] }], { things: [{ id: 'granite', off: ['2026-03-02'] }] });
    expect(days(thing)).toEqual(['square 03-04 03-04']);
  });

  it('waits by the clock from the end of what it comes after', () => {
    const told = plan([
      { id: 'twist', minutes: 60 },
      { id: 'settle', wait: { hours: 24 }, after: ['twist'] },
      { id: 'again', minutes: 30, after: ['settle'] },
      { id: 'long', wait: { hours: 100 }, after: ['again'] },
    ]);
    expect(days(told)).toEqual(['twist 03-02 03-02', 'settle 03-02 03-03', 'again 03-04 03-04', 'long 03-04 03-08']);
    expect(told.chain).toEqual(['twist', 'settle', 'again', 'long']);
  });

  it('takes any people that are free first, and one machine does one thing at a time', () => {
    const apart = plan(
      [
        { id: 'a', minutes: 60 },
        { id: 'b', minutes: 60 },
      ],
      { people: [EK, HB] },
    );
    expect(apart.items.map(({ decides }) => decides)).toEqual([1, 0]);
    expect(days(apart)).toEqual(['a 03-02 03-02', 'b 03-02 03-02']);
    const one = plan(
      [
        { id: 'a', minutes: 120, machine: 'L-14', who: ['EK'] },
        { id: 'b', minutes: 90, machine: 'L-14', who: ['HB'] },
      ],
      { people: [EK, HB] },
    );
    // HB has an hour left after EK on Monday, and half an hour more on Tuesday.
    expect(days(one)).toEqual(['a 03-02 03-02', 'b 03-02 03-03']);
    const two = plan([{ id: 'lift', minutes: 30, people: 2 }], { people: [EK, HB] });
    expect(days(two)).toEqual(['lift 03-02 03-02']);
  });

  it('an item that was begun is not interleaved with another of the same people', () => {
    const told = plan([
      { id: 'long', minutes: 130, who: ['EK'] },
      { id: 'short', minutes: 10, who: ['EK'] },
    ]);
    expect(days(told)).toEqual(['long 03-02 03-04', 'short 03-04 03-04']);
  });

  it('an item later in the list fills a gap that is long enough', () => {
    const told = plan([
      { id: 'late', minutes: 60, notBefore: '2026-03-07' },
      { id: 'early', minutes: 60 },
      { id: 'too long', minutes: 300 },
    ]);
    expect(days(told)).toEqual(['late 03-07 03-07', 'early 03-02 03-02', 'too long 03-07 03-07']);
    expect(told.first).toEqual(['early', 'too long']);
  });

  it('what is listed before what it comes after is taken after it', () => {
    const told = plan([
      { id: 'cut', minutes: 30, after: ['align'] },
      { id: 'align', minutes: 120 },
    ]);
    expect(days(told)).toEqual(['cut 03-04 03-04', 'align 03-02 03-02']);
    expect(told.first).toEqual(['align']);
  });

  it('times are right over a change to summer time: a day of 23 hours, and one of 25', () => {
    // On 29 March the clocks of London go forward: 24 hours after Saturday 01:00 it is Sunday 02:00.
    const calendar = new Calendar(jobSchema.parse(job([{ id: 'a', minutes: 1 }], { start: '2026-03-28' })));
    expect((calendar.begin(2) - calendar.begin(1)) / 3_600_000).toBe(23);
    const told = plan(
      [
        { id: 'a', wait: { hours: 47 } },
        { id: 'b', wait: { hours: 47.5 } },
      ],
      { start: '2026-03-28' },
    );
    expect(told.items.map(({ end }) => end.p50)).toEqual(['2026-03-29', '2026-03-30']);
    for (let day = 0; day < 500; day++)
      expect([calendar.at(calendar.begin(day)), calendar.at(calendar.begin(day + 1) - 1)]).toEqual([day, day]);
  });

  it('draws durations from a beta-PERT distribution: mean (a + 4m + b)/6, and the same for the same seed', () => {
    // Hours without end, so that dates tell minutes: one item of about 10 days of 24 hours.
    const round = { id: 'R', hours: { mon: 24, tue: 24, wed: 24, thu: 24, fri: 24, sat: 24, sun: 24 } };
    const [a, m, b] = [8, 10, 24].map((count) => count * 1440);
    const told = plan([{ id: 'x', minutes: [a, m, b] }], { people: [round], draws: 4000 });
    // Beta(1.5, 4.5) over 8 to 24 days, integrated by hand: 8.96, 11.54 and 15.74 days.
    expect(told.finish).toEqual({ p10: '2026-03-10', p50: '2026-03-13', p90: '2026-03-17' });
    expect(plan([{ id: 'x', minutes: [a, m, b] }], { people: [round], draws: 4000 })).toEqual(told);
  });

  it('names the chain that decides the end in most draws, with the share of each', () => {
    const told = plan(
      [
        { id: 'often', minutes: [60, 100, 140], who: ['EK'] },
        { id: 'seldom', minutes: [10, 30, 125], who: ['HB'] },
        { id: 'last', minutes: 30, after: ['often', 'seldom'] },
      ],
      { people: [EK, HB] },
    );
    const [often, seldom, last] = told.items.map(({ decides }) => decides);
    expect(often + seldom).toBeCloseTo(1, 9);
    expect(often).toBeGreaterThan(0.8);
    expect(last).toBe(1);
    expect(told.chain).toEqual(['often', 'last']);
  });

  it('is refused by name: a circle, what is not known, what nobody can ever do', () => {
    const circle = [
      { id: 'a', minutes: 1, after: ['b'] },
      { id: 'b', minutes: 1, after: ['a'] },
    ];
    expect(faults(job(circle))).toEqual(['items[0].after: goes in a circle: a after b after a']);
    expect(faults(job([{ id: 'a', minutes: 1, who: ['XY'], after: ['zz'], things: ['square'] }]))).toEqual([
      'items[0].who[0]: "XY" is not known in this job',
      'items[0].things[0]: "square" is not known in this job',
      'items[0].after[0]: "zz" is not known in this job',
    ]);
    expect(faults(job([{ id: 'lift', minutes: 30, people: 2 }]))).toEqual([
      'items[0].people: nobody can ever do "lift": it needs more people than there are',
    ]);
    const never = [EK, { id: 'SD', hours: { sun: 3 } }];
    expect(faults(job([{ id: 'lift', minutes: 30, who: ['EK', 'SD'] }], { people: never }))).toEqual([
      'items[0].who: nobody can ever do "lift": those it needs have no hours on one day',
    ]);
    expect(
      faults(
        job([
          { id: 'a', minutes: 1 },
          { id: 'a', minutes: 1 },
        ]),
      ),
    ).toEqual(['items[1].id: "a" is there twice: give each its own name']);
    expect(faults(job([{ id: 'a', minutes: [3, 2, 1] }]))).toEqual(['items[0].minutes: must rise from least to likely to most']);
    expect(faults(job([{ id: 'a' }]))).toEqual(['items[0]: must have either minutes or a wait']);
    expect(faults(job([{ id: 'a', wait: { hours: 3 }, who: ['EK'] }]))).toEqual(['items[0].who: "a" waits: nobody is needed for that']);
    expect(faults({ ...job([{ id: 'a', minutes: 1 }]), format: 'isometra-job/2', start: '2026-02-30' }).length).toBe(2);
    expect(faults(job([{ id: 'slow', minutes: 1_000_000 }], { people: [{ id: 'EK', hours: { mon: 0.1 } }] }))).toEqual([
      'items[0]: "slow" would not be done within forty years',
    ]);
  });

  it('breaks no order, and books no person, thing or machine twice, whatever the job', () => {
    const ids = ['a', 'b', 'c', 'd', 'e', 'f'];
    const item = fc.record({
      minutes: fc.integer({ min: 0, max: 400 }),
      who: fc.subarray(['EK', 'HB']),
      extra: fc.integer({ min: 0, max: 1 }),
      things: fc.subarray(['square', 'bar']),
      machine: fc.option(fc.constantFrom('L-14', 'M-03'), { nil: undefined }),
      after: fc.nat(63),
      wait: fc.option(fc.integer({ min: 0, max: 60 }), { nil: undefined }),
    });
    fc.assert(
      fc.property(fc.array(item, { minLength: 1, maxLength: 6 }), (list) => {
        const items = list.map(({ minutes, who, extra, things, machine, after, wait }, i) => ({
          id: ids[i],
          // Only on what stands before it: never a circle.
          after: ids.slice(0, i).filter((_, k) => (after >> k) % 2 === 1),
          ...(wait === undefined
            ? { minutes, who, people: Math.min(2, Math.max(1, who.length) + extra), things }
            : { wait: { hours: wait } }),
          ...(machine && wait === undefined && { machine }),
        }));
        const parsed = jobSchema.parse(job(items, { people: [EK, HB], things: [{ id: 'square' }, { id: 'bar' }] }));
        const placed = new Scheduler(parsed).run(list.map(({ minutes }) => minutes));
        parsed.items.forEach((one, i) => {
          for (const before of one.after ?? []) expect(placed[i].start).toBeGreaterThanOrEqual(placed[ids.indexOf(before)].end);
          parsed.items.forEach((other, k) => {
            const shared = [
              ...(one.things ?? []).filter((id) => other.things?.includes(id)),
              ...(one.who ?? []).filter((id) => other.who?.includes(id)),
              ...(one.machine && one.machine === other.machine ? [one.machine] : []),
            ];
            if (k <= i || shared.length === 0) return;
            expect(placed[i].end <= placed[k].start || placed[k].end <= placed[i].start)
              .withContext(`${one.id} and ${other.id}`)
              .toBeTrue();
          });
        });
      }),
    );
  });

  it('does ten thousand draws of forty items in seconds, also on a busy machine', () => {
    const items = Array.from({ length: 40 }, (_, i) => ({
      id: `i${i}`,
      minutes: [20, 45, 120],
      ...(i % 3 === 0 ? { people: 2 } : {}),
      ...(i > 0 && i % 4 === 0 && { after: [`i${i - 1}`] }),
      machine: `m${i % 3}`,
    }));
    const begun = performance.now();
    plan(items, { people: [EK, HB, { id: 'SD', hours: { sat: 5, sun: 5 } }], draws: 10_000 });
    expect(performance.now() - begun).toBeLessThan(30_000);
  });
});
