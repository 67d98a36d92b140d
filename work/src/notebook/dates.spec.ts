import fc from 'fast-check';
import { daysBetween, shopDate, shopDay, shopShortDate, shopTime, timeInShop } from './dates.js';

const LATE = '2026-03-03T00:30:00.000Z';

describe('dates of the shop', () => {
  it('are those of its own time zone', () => {
    expect(shopDay(LATE, 'Europe/Berlin')).toBe('2026-03-03');
    expect(shopDay(LATE, 'America/Chicago')).toBe('2026-03-02');
    expect(shopDay(LATE, null)).toBe('2026-03-03');
    expect(shopDate(LATE, 'America/Chicago')).toBe('2 Mar 2026');
    expect(shopShortDate(LATE, 'Asia/Tokyo')).toBe('3 Mar');
    expect(shopTime(LATE, 'Europe/Berlin')).toBe('3 Mar 2026, 01:30');
    expect(shopTime('2026-03-02T23:05:00.000Z', 'Europe/Berlin')).toBe('3 Mar 2026, 00:05');
  });

  it('say which hour is meant where the clock shows it twice, and know none that it leaves out', () => {
    expect(shopTime('2026-10-25T00:30:00.000Z', 'Europe/Berlin')).toBe('25 Oct 2026, 02:30 summer time');
    expect(shopTime('2026-10-25T01:30:00.000Z', 'Europe/Berlin')).toBe('25 Oct 2026, 02:30 standard time');
    expect(shopTime('2026-10-25T02:30:00.000Z', 'Europe/Berlin')).toBe('25 Oct 2026, 03:30');
    expect(timeInShop('2026-10-25', '02:30', 'Europe/Berlin')).toBe('2026-10-25T00:30:00.000Z');
    expect(timeInShop('2026-03-29', '02:30', 'Europe/Berlin')).toBeUndefined();
    expect(timeInShop('2026-03-29', '03:30', 'Europe/Berlin')).toBe('2026-03-29T01:30:00.000Z');
  });

  it('lie whole days apart, also across the end of summer time', () => {
    expect(daysBetween('2026-10-24', '2026-10-26')).toBe(2);
    expect(daysBetween('2026-03-01', '2026-02-28')).toBe(-1);
  });

  it('are read back from what a clock on the wall showed', () => {
    expect(timeInShop('2026-03-03', '01:30', 'Europe/Berlin')).toBe(LATE);
    expect(timeInShop('2026-07-03', '9.05', 'America/Chicago')).toBe('2026-07-03T14:05:00.000Z');
    for (const [day, clock] of [
      ['2026-02-30', '10:00'],
      ['2026-13-01', '10:00'],
      ['3 Mar 2026', '10:00'],
      ['2026-03-03', '24:00'],
      ['2026-03-03', '10:60'],
      ['2026-03-03', ''],
    ])
      expect(timeInShop(day, clock, 'UTC'))
        .withContext(`${day} ${clock}`)
        .toBeUndefined();
  });

  it('come round: the day and time shown are the time that was meant', () => {
    const zones = ['Europe/Berlin', 'America/St_Johns', 'Asia/Kolkata', 'Pacific/Auckland', 'UTC'];
    fc.assert(
      fc.property(fc.constantFrom(...zones), fc.integer({ min: 0, max: 20 * 365 * 24 * 60 }), (zone, minutes) => {
        const at = new Date(Date.UTC(2015, 0, 1) + minutes * 60_000).toISOString();
        const [clock, twice] = shopTime(at, zone).split(', ')[1].split(/ (.*)/);
        const back = timeInShop(shopDay(at, zone), clock, zone) as string;
        // In the hour that a clock shows twice in autumn the first is meant.
        if (twice !== 'standard time') expect(back).toBe(at);
      }),
    );
  });
});
