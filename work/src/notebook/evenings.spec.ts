import fc from 'fast-check';
import { dayOfEvening, eveningUpTo, eveningsOf, minutesOf } from './evenings.js';

const entries = (...at: readonly string[]) => at.map((time, i) => ({ id: String(i), at: `2026-03-0${time}:00.000Z`, kind: 'pass' }));

describe('evenings', () => {
  it('end with a long pause, or when somebody says so', () => {
    const written = [...entries('2T18:00', '2T20:59', '2T23:58'), { id: 'd', at: '2026-03-03T00:10:00.000Z', kind: 'done' }];
    const later = [...written, { id: 'e', at: '2026-03-03T00:20:00.000Z', kind: 'pass' }];
    const evenings = eveningsOf(later, ({ kind }) => kind === 'done');
    expect(evenings.map((evening) => evening.map(({ id }) => id))).toEqual([['0', '1', '2', 'd'], ['e']]);
    expect(minutesOf(evenings[0])).toBe(370);
    expect(minutesOf([])).toBe(0);
    expect(eveningsOf(entries('2T18:00', '2T21:01')).length).toBe(2);
  });

  it('are called by the day they began on, in the time of the shop', () => {
    const evening = entries('3T02:00', '3T03:30');
    expect(dayOfEvening(evening, 'America/Chicago')).toBe('2026-03-02');
    expect(dayOfEvening(evening, 'Asia/Tokyo')).toBe('2026-03-03');
    // Half past one at night: still the evening before.
    expect(dayOfEvening(entries('3T00:30'), 'Europe/Berlin')).toBe('2026-03-02');
    expect(dayOfEvening(entries('3T00:30'), null)).toBe('2026-03-02');
  });

  it('go by the clock on the wall in the nights in which it is put forward and back', () => {
    const at = (time: string) => dayOfEvening([{ at: time }], 'Europe/Berlin');
    // Half past four and half past three by the wall, 29 March: the clock went forward at two.
    expect(at('2026-03-29T02:30:00.000Z')).toBe('2026-03-29');
    expect(at('2026-03-29T01:30:00.000Z')).toBe('2026-03-28');
    // 25 October: it went back at three.
    expect(at('2026-10-25T02:59:00.000Z')).toBe('2026-10-24');
    expect(at('2026-10-25T03:00:00.000Z')).toBe('2026-10-25');
  });

  it('tell what was done up to an entry', () => {
    const written = entries('2T18:00', '3T18:00', '3T18:20', '3T18:40');
    expect(eveningUpTo(written, '2').map(({ id }) => id)).toEqual(['1', '2']);
    expect(eveningUpTo(written, 'none')).toEqual([]);
  });

  it('hold every entry once, in order', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 40 }), (gaps) => {
        let minutes = 0;
        const written = gaps.map((gap) => ({ at: new Date((minutes += gap) * 60_000).toISOString() }));
        const evenings = eveningsOf(written);
        expect(evenings.flat()).toEqual(written);
        expect(evenings.length).toBe(gaps.slice(1).filter((gap) => gap > 180).length + (gaps.length ? 1 : 0));
      }),
    );
  });
});
