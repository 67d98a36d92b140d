import { wayProfile } from '@isometra/core';
import { levelStepsSheet } from '@isometra/core/practice';
import { openShop, show, until } from '../testing/fake-shop';
import { WayChart } from './way-chart';

const sheet = levelStepsSheet((z) => 10 * Math.sin((Math.PI * z) / 1000), 200, 5, { graduation: 20, zero: 0 });

describe('a way as it was read', () => {
  const open = async () => {
    await openShop();
    const profile = wayProfile(sheet);
    if (!profile) throw new Error('no profile');
    const straightness = { value: 8, limit: [null, 20] } as never;
    const chart = await show(WayChart, { profile, straightness });
    return { chart, profile, drawn: chart.fixture.componentInstance.drawn() };
  };

  it('lies inside its zone, touches both edges, and its heights add up to nothing', async () => {
    const { drawn } = await open();
    const gaps = drawn.heights.map((height, i) => [height - drawn.low[i], drawn.high[i] - height]);
    expect(Math.min(...gaps.flat())).toBeGreaterThan(-1e-9);
    expect(Math.min(...gaps.map(([low]) => low))).toBeCloseTo(0, 9);
    expect(Math.min(...gaps.map(([, high]) => high))).toBeCloseTo(0, 9);
    expect(drawn.heights.reduce((sum, height) => sum + height, 0)).toBeCloseTo(0, 9);
  });

  it('the limits lie about its middle, as far apart as the limit', async () => {
    const { drawn } = await open();
    const middle = (Math.max(...drawn.heights) + Math.min(...drawn.heights)) / 2;
    expect(drawn.limits[1] - drawn.limits[0]).toBeCloseTo(20, 9);
    expect((drawn.limits[0] + drawn.limits[1]) / 2).toBeCloseTo(middle, 9);
  });

  it('is drawn, and told for those who cannot see it', async () => {
    const { chart } = await open();
    expect(chart.element.querySelector('[role=img]')?.getAttribute('aria-label')).toMatch(/^Heights about the fitted line: 0 mm/);
    await until(() => chart.all('svg').length === 1);
    expect(chart.all('svg').length).toBe(1);
  });
});
