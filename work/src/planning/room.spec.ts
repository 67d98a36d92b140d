import * as fc from 'fast-check';
import { JOB_FORMAT } from '@isometra/contract';
import { layOutJob } from './planJob.js';
import { MOST_ROOM, roomFor } from './room.js';

/** One person, two hours a day. */
const job = (items: readonly object[], each = 2) => ({
  ...{ format: JOB_FORMAT, start: '2026-11-30', draws: 10, seed: 1 },
  people: [{ id: 'EK', hours: { mon: each, tue: each, wed: each, thu: each, fri: each } }],
  items,
});
const work = (id: string, hours: number, after: readonly string[] = []) => ({
  id,
  minutes: [60 * hours, 60 * hours, 60 * hours],
  people: 1,
  after,
});
const finish = (raw: unknown): string =>
  layOutJob(raw)
    .map(({ end }) => end)
    .sort()
    .at(-1) ?? '';

describe('how much later something may come', () => {
  it('not at all where everything after it waits for it', () => {
    expect(roomFor(job([{ id: 'glue', wait: { hours: 48 } }, work('a', 2, ['glue'])]))).toEqual([{ id: 'glue', days: 0 }]);
  });

  it('as long as there is other work to do meanwhile', () => {
    // Eight hours of other work are Monday to Thursday; the part is fitted in two hours on Friday, so that it may come on Thursday night.
    const raw = job([{ id: 'part', wait: { hours: 0 } }, ...['a', 'b', 'c', 'd'].map((id) => work(id, 2)), work('fit', 2, ['part'])]);
    const [{ days }] = roomFor(raw);
    expect(finish(raw)).toBe('2026-12-04');
    expect(days).toBeGreaterThanOrEqual(3);
    expect(days).toBeLessThanOrEqual(4);
  });

  it('what nothing comes after may come whenever it likes, up to the end; a job without waits has none to tell of', () => {
    expect(roomFor(job([work('a', 2)]))).toEqual([]);
    const [{ days }] = roomFor(job([{ id: 'kit', wait: { hours: 0 } }, ...Array.from({ length: 60 }, (_, i) => work(`a${i}`, 2))]));
    expect(days).toBe(MOST_ROOM);
  });

  it('so many days later the day of the end stands, one day more moves it', () => {
    const any = fc.record({
      wait: fc.integer({ min: 0, max: 96 }),
      before: fc.integer({ min: 0, max: 5 }),
      fit: fc.integer({ min: 1, max: 4 }),
    });
    fc.assert(
      fc.property(any, ({ wait, before, fit }) => {
        const made = (late: number) =>
          job([
            { id: 'part', wait: { hours: wait + 24 * late } },
            ...Array.from({ length: before }, (_, i) => work(`a${i}`, 2)),
            work('fit', fit, ['part']),
          ]);
        const [{ days }] = roomFor(made(0));
        expect(finish(made(days))).toBe(finish(made(0)));
        expect(finish(made(days + 1)) > finish(made(0))).toBeTrue();
      }),
      { numRuns: 40 },
    );
  });
});
