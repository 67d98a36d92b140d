import { TestBed } from '@angular/core/testing';
import { until } from '../testing/fake-shop';
import { RoundChart, type ChartSeries } from './round-chart';

const series = (limit: ChartSeries['limit'], ...values: number[]): ChartSeries => ({
  ...{ name: 'Width along the dovetail', unit: 'mm', plus: '', minus: '', limit },
  points: values.map((value, i) => ({ label: String(i + 1), value, doubt: 0.003 })),
});

describe('the chart of rounds', () => {
  const draw = async (shown: ChartSeries) => {
    const fixture = TestBed.createComponent(RoundChart);
    fixture.componentRef.setInput('series', shown);
    await fixture.whenStable();
    await until(() => (fixture.nativeElement as HTMLElement).querySelectorAll('svg text').length > 3);
    return fixture;
  };
  /** What is shaded as in, and what is drawn as the limit, px from above; the lowest line of the grid. */
  const drawn = (element: HTMLElement) => {
    const box = (path: Element) => (path as SVGGraphicsElement).getBBox();
    const paths = [...element.querySelectorAll('svg path')];
    const area = paths.filter((path) => path.getAttribute('fill-opacity') === '0.09').map(box);
    const limit = paths.filter((path) => path.getAttribute('stroke-dasharray')).map(box);
    return { area, limit, words: [...element.querySelectorAll('svg text')].map((text) => text.textContent?.trim() ?? '') };
  };

  it('shades what is within a one-sided limit, not what lies beyond it', async () => {
    const fixture = await draw(series([null, 0.01], 0.029));
    const { area, limit } = drawn(fixture.nativeElement as HTMLElement);
    expect(area.length).toBe(1);
    expect(limit.length).toBe(1);
    // From the limit down to the edge of the drawing.
    expect(area[0].y).toBeCloseTo(limit[0].y, 0);
    expect(area[0].height).toBeGreaterThan(20);
    expect(area[0].y + area[0].height).toBeGreaterThan(limit[0].y + 20);
    const above = await draw(series([0.01, null], 0.029));
    const upper = drawn(above.nativeElement as HTMLElement);
    expect(upper.area[0].y + upper.area[0].height).toBeCloseTo(upper.limit[0].y, 0);
  });

  it('numbers its lines so that each reads otherwise, and says no directions where there are none', async () => {
    const fixture = await draw(series([null, 0.01], 0.029));
    const element = fixture.nativeElement as HTMLElement;
    const numbers = drawn(element).words.filter((word) => /^\d+\.\d+$/.test(word));
    expect(numbers.length).toBeGreaterThan(3);
    expect(new Set(numbers).size).toBe(numbers.length);
    expect(element.querySelector('p')?.textContent).not.toContain('up:');
  });
});
