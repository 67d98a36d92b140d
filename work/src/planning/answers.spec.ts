import * as fc from 'fast-check';
import type { PlanItem, Span } from '@isometra/contract';
import { curedByMetal, hoursOfWork, threeAnswers } from './answers.js';
import { item } from './toDo.js';

const one = (key: string, part: Partial<PlanItem> = {}): PlanItem => ({
  ...item('read', '', { title: key, why: '', minutes: [60, 60, 60] }),
  key,
  ...part,
});
const keysOf = (items: readonly PlanItem[]): readonly string[] => items.map(({ key }) => key);

describe('three answers to what was found', () => {
  const items = [
    one('move twist adjust', { kind: 'move' }),
    one('again twist', { after: ['move twist adjust'] }),
    one('scrape f', { kind: 'scrape', minutes: [300, 300, 300] }),
    one('move saddle square', { kind: 'move', metal: true, after: ['scrape f'] }),
    one('again saddle', { after: ['move saddle square'] }),
    one('perhaps saddle', { kind: 'perhaps', after: ['again saddle'] }),
  ];

  it('leave it, adjust without metal and what is read because of it, rebuild with everything', () => {
    const [leave, adjust, rebuild] = threeAnswers(items);
    expect([leave, adjust, rebuild].map(({ code }) => code)).toEqual(['leave', 'adjust', 'rebuild']);
    expect(leave.items).toEqual([]);
    expect(keysOf(adjust.items)).toEqual(['move twist adjust', 'again twist', 'perhaps saddle']);
    expect(adjust.items[2].after).toEqual([]);
    expect(rebuild.hours.p50).toBeCloseTo(10, 9);
    expect(curedByMetal(items)).toEqual(['saddle square']);
  });

  it('hours by hand: a beta-PERT of 1, 2 and 6 hours has the mean 2.5 and a variance of 0.75', () => {
    const { p10, p50, p90 } = hoursOfWork([one('a', { minutes: [60, 120, 360] })]);
    expect(p50).toBeCloseTo(2.5, 9);
    // (2.5 − 1)(6 − 2.5)/7.
    expect(p90 - p50).toBeCloseTo(1.2816 * Math.sqrt(0.75), 9);
    expect(p50 - p10).toBeCloseTo(1.2816 * Math.sqrt(0.75), 9);
  });

  it('what has to be bought adds up, and what nobody has told the price of is named', () => {
    const wait = { minutes: null, wait: 0, people: 0 };
    const [leave, adjust] = threeAnswers([
      one('a', { ...wait, buys: { what: 'belt', price: 48 } }),
      one('b', { ...wait, buys: { what: 'felt', price: null } }),
      one('c', { buys: { what: 'pin', price: 0.5 } }),
      one('d'),
    ]);
    expect(leave.bought).toEqual({ price: 0, priced: 0, open: [] });
    expect(adjust.bought).toEqual({ price: 48.5, priced: 2, open: ['felt'] });
  });

  it('two people who lift for an hour are two hours of work, a wait is none', () => {
    expect(hoursOfWork([one('lift', { people: 2 }), one('wait', { minutes: null, wait: 48, people: 0 })]).p50).toBeCloseTo(2, 9);
  });

  it('whatever is left to do, adjusting never takes more hours than rebuilding', () => {
    const span = fc.tuple(fc.nat(60), fc.nat(60), fc.nat(60)).map(([a, b, c]): Span => [a, a + b, a + b + c]);
    const any = fc.array(fc.record({ minutes: span, metal: fc.boolean() }), { maxLength: 15 });
    fc.assert(
      fc.property(any, (all) => {
        const plan = all.map(({ minutes, metal }, i) => one(`i${i}`, { minutes, ...(metal && { metal: true as const }) }));
        const [leave, adjust, rebuild] = threeAnswers(plan).map(({ hours }) => hours.p50);
        expect(leave).toBe(0);
        expect(adjust).toBeLessThanOrEqual(rebuild + 1e-9);
      }),
    );
  });
});
