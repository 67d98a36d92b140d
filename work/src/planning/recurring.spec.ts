import * as fc from 'fast-check';
import type { OwnItem } from '@isometra/contract';
import { everyTyped, everyWords, hasItsTurn, ownDone } from './recurring.js';

const OIL: OwnItem = {
  ...{ id: 'o', title: 'Oil the ways', minutes: [10, 20, 40], wait: null, people: 1, who: [], things: [], after: [] },
  ...{ notBefore: '2026-03-28', doneAt: null, every: 14, by: 'EK', at: '2026-01-01T08:00:00.000Z' },
};

describe('what comes round again', () => {
  it('is done until its next turn, counted from the day on which it was done', () => {
    const done = ownDone(OIL, '2026-04-02T18:00:00.000Z', '2026-04-02');
    expect(done).toEqual({ ...OIL, notBefore: '2026-04-16', lastAt: '2026-04-02T18:00:00.000Z' });
    expect(hasItsTurn(done, '2026-04-15')).toBeFalse();
    expect(hasItsTurn(done, '2026-04-16')).toBeTrue();
  });

  it('what is done once is done for good, and stands in the plan whatever its day', () => {
    const { every: _every, ...once } = OIL;
    expect(ownDone(once, '2026-04-02T18:00:00.000Z', '2026-04-02').doneAt).toBe('2026-04-02T18:00:00.000Z');
    expect(hasItsTurn({ ...once, notBefore: '2099-01-01' }, '2026-04-02')).toBeTrue();
  });

  it('is typed and told in days, weeks, months and years', () => {
    expect(['30 days', 'every 6 weeks', '6 months', 'year', '2y', '0 days', 'often', '20 years'].map(everyTyped)).toEqual([
      ...[30, 42, 180, 365, 730, undefined, undefined, undefined],
    ]);
    expect([1, 10, 7, 42, 180, 365].map(everyWords)).toEqual([
      ...['every day', 'every 10 days', 'every week', 'every 6 weeks', 'every 6 months', 'every year'],
    ]);
    fc.assert(fc.property(fc.integer({ min: 1, max: 3660 }), (days) => expect(everyTyped(everyWords(days))).toBe(days)));
  });
});
