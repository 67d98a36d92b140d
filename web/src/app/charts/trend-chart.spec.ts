import { TestBed } from '@angular/core/testing';
import { until } from '../testing/fake-shop';
import { TrendChart, type TrendSeries } from './trend-chart';

const year = (at: number): number => Date.UTC(at, 2, 1);
const YEAR = year(2023) - year(2022);
const series = (more: Partial<TrendSeries> = {}): TrendSeries => ({
  ...{ name: 'Tailstock sideways', unit: 'mm', plus: 'toward you', minus: 'away from you', limit: [-0.015, 0.015], moves: [] },
  points: [2021, 2022, 2023, 2024].map((at, i) => ({ at: year(at), value: 0.004 * i, doubt: 0.003, told: i > 0 })),
  ...more,
});
const line = { from: year(2022), at: (time: number) => (0.004 * (time - year(2021))) / YEAR, band: () => 0.002 };

describe('a quantity over the years', () => {
  const draw = async (shown: TrendSeries) => {
    const fixture = TestBed.createComponent(TrendChart);
    fixture.componentRef.setInput('series', shown);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    await until(() => element.querySelectorAll('svg text').length > 3);
    return {
      chart: fixture.componentInstance,
      element,
      words: () => [...element.querySelectorAll('svg text')].map((text) => text.textContent?.trim() ?? ''),
    };
  };

  it('reaches from the first value to where it leaves its limits, with its line and both edges of its band', async () => {
    const leaves = { at: year(2025), from: year(2024) + 1, to: year(2026) };
    const { chart, words } = await draw(series({ line, leaves }));
    expect(chart.range()[0]).toBeLessThan(year(2021));
    expect(chart.range()[1]).toBeGreaterThan(year(2026));
    const [middle, low, high] = chart.lines();
    expect(middle[0]).toEqual([year(2022), line.at(year(2022))]);
    expect(high[5][1] - low[5][1]).toBeCloseTo(0.004, 12);
    await until(() => words().includes('leaves its limits'));
  });

  it('what lies far ahead takes no more room than what was read', async () => {
    const { chart, words } = await draw(series({ line, leaves: { at: year(2060), from: year(2040), to: null } }));
    expect(chart.range()[1]).toBeLessThan(year(2028));
    expect(words()).not.toContain('leaves its limits');
  });

  it('marks moves, names those that have room, and says which values are no part of the drift', async () => {
    const { element, words } = await draw(series({ moves: [year(2022) - 1000, year(2022), year(2023)] }));
    await until(() => words().includes('moved'));
    expect(words().filter((word) => word === 'moved').length).toBe(2);
    expect(element.textContent).toContain('hollow: read before the last move');
  });

  it('of one value draws that value, and is told for those who cannot see it', async () => {
    const { chart, element } = await draw(series({ points: [{ at: year(2021), value: 0.002, doubt: 0.001, told: true }] }));
    expect(chart.range()[1]).toBeGreaterThan(chart.range()[0]);
    expect(element.querySelector('[role=img]')?.getAttribute('aria-label')).toBe('Tailstock sideways over time: 1 Mar 2021 0.002 mm');
  });
});
