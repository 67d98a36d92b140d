import { isTenTimes } from './tenTimes.js';

describe('a reading ten times its neighbours', () => {
  it('is asked about once two other places have been read', () => {
    expect(isTenTimes([0, 2.5], 25)).toBeTrue();
    expect(isTenTimes([1, -2.5], -22)).toBeTrue();
    expect(isTenTimes([2.5], 25)).toBeFalse();
  });

  it('what a bent line or a small needle shows is none', () => {
    expect(isTenTimes([0, 2, 5], 12)).toBeFalse();
    expect(isTenTimes([0, 0.5], 5)).toBeFalse();
    expect(isTenTimes([0, 0], 30)).toBeFalse();
    expect(isTenTimes([0, 1], 60))
      .withContext('that is no decimal place')
      .toBeFalse();
  });
});
