import { machineCardSchema } from '@isometra/contract';
import { goodForDays } from './overdue.js';

describe('how long a result stays good', () => {
  const twist = { id: 'bed-twist', goodFor: 30 };

  it('by days, by hours of running with how many there are a week, whichever comes first; else the usual', () => {
    const rows = (part: object) => [{ check: 'bed-twist', ...part }];
    expect(goodForDays(twist)).toBe(30);
    expect(goodForDays({ id: 'seat' }, rows({ days: 90 }))).toBeUndefined();
    expect(goodForDays(twist, rows({ days: 90 }))).toBe(90);
    // By hand: 500 hours at 20 a week are 25 weeks.
    expect(goodForDays(twist, rows({ hours: 500, perWeek: 20 }))).toBe(175);
    expect(goodForDays(twist, rows({ days: 90, hours: 500, perWeek: 20 }))).toBe(90);
    expect(goodForDays(twist, rows({ days: 200, hours: 500, perWeek: 20 }))).toBe(175);
    // Hours of a machine that nobody knows the week of say nothing.
    expect(goodForDays(twist, rows({ hours: 500 }))).toBe(30);
  });

  it('the card says what a row lacks', () => {
    const faults = (row: object) =>
      (
        machineCardSchema.safeParse({ number: 'L-1', kind: 'engine-lathe', readAgain: [{ check: 'bed-twist', ...row }] }).error?.issues ??
        []
      ).map(({ path, message }) => `${path.join('.')}: ${message}`);
    expect(faults({ days: '90' })).toEqual([]);
    expect(faults({ hours: '500', perWeek: '20' })).toEqual([]);
    expect(faults({})).toEqual(['readAgain.0.days: is missing: give days, or hours of running']);
    expect(faults({ hours: '500' })).toEqual(['readAgain.0.perWeek: is missing: how many hours a week does the machine run?']);
    expect(faults({ hours: 'many', perWeek: 20 })).toEqual(['readAgain.0.hours: must be a number']);
    expect(faults({ hours: 10, perWeek: 200 })).toEqual(['readAgain.0.perWeek: must be 168 or fewer']);
  });
});
