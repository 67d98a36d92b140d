import { CHECKS, trendOf, YEAR, type QuantityInfo } from '@isometra/core';
import { driftWords } from './drift-words';

const INFO = CHECKS.get('tailstock-traverse')?.quantities['offsetHorizontal'] as QuantityInfo;
const mm = { system: 'mm', fineness: 'coarse' } as const;
const START = Date.UTC(2024, 0, 1);
const drift = (...values: readonly number[]) => ({
  ...{ rounds: values.length, since: '', after: '2023-12-01T08:00:00.000Z' },
  trend: trendOf(
    values.map((value, i) => ({ at: START + i * YEAR, value, u: 0.5 })),
    [-10, 10],
  ),
});
const words = (...values: readonly number[]) => driftWords(drift(...values), INFO, mm, (at) => String(new Date(at).getUTCFullYear()));

describe('a drift in words', () => {
  it('names its date, the range of that date, and when to read again', () => {
    expect(words(0, 2, 4)).toBe(
      `${INFO.label} drifts by 0.002 mm ± 0.001 mm a year, by 3 rounds since it was last moved. It leaves its limits about 2028 (2027 to 2031). Read it again after ${(drift(0, 2, 4).trend as { readAgainAfter: number }).readAgainAfter} days.`,
    );
  });

  it('says nothing of a move where there was none, and is finer where a doubt would be rounded to nothing', () => {
    const tight = {
      ...drift(0, 0.4, 0.8, 1.2),
      after: null,
      trend: trendOf(
        [0, 0.4, 0.8, 1.2].map((value, i) => ({ at: START + i * YEAR, value, u: 0.05 })),
        [-10, 10],
      ),
    };
    expect(driftWords(tight, INFO, mm, () => '2040')).toMatch(/drifts by 0\.4 µm ± 0\.\d µm a year, by 4 rounds\./);
  });

  it('refuses where the figures do not allow it', () => {
    expect(words(1)).toContain('nothing can be said yet');
    expect(words(0, 1)).toContain('two rounds make no trend. They differ by 0.001 mm, no more than the ± 0.001 mm of both.');
    expect(words(0, 1, 0)).toContain('no drift is told, by 3 rounds since it was last moved');
  });
});
