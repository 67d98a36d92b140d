import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { EChartsCoreOption } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { DIMENSIONS, prettyUnit, shownIn, type Quantity, type WayProfile } from '@isometra/core';
import { Settings } from '../data/settings';
import { BLUE, FONT, GRID, INK, RED, echarts } from './parts';

/** A way as it was read: heights about the fitted line, the narrowest zone that holds them, and the limits. */
@Component({
  selector: 'iso-way-chart',
  imports: [NgxEchartsDirective],
  providers: [provideEchartsCore({ echarts })],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      Heights about the fitted line, in {{ unit() }}. <b class="blue">—</b> read · <b>- -</b> narrowest zone · <b class="red">—</b> limits
    </p>
    <div echarts [options]="options()" [initOpts]="{ renderer: 'svg' }" class="chart" role="img" [attr.aria-label]="told()"></div>
  `,
  styles: `
    .chart {
      height: 200px;
    }
    p {
      font-size: 14px;
    }
    .blue {
      color: var(--blue);
    }
    .red {
      color: var(--red);
    }
  `,
})
export class WayChart {
  readonly profile = input.required<WayProfile>();
  /** The straightness that was found, with its limit. */
  readonly straightness = input<Quantity>();
  private readonly settings = inject(Settings);

  private readonly scale = computed(() => {
    const { unit } = shownIn('deviation', this.settings.system(), 'fine');
    return { unit, factor: DIMENSIONS.deviation.factors[unit.toLowerCase()] };
  });
  private readonly length = computed(() => {
    const { unit } = shownIn('length', this.settings.system(), 'coarse');
    return { unit, factor: DIMENSIONS.length.factors[unit.toLowerCase()] };
  });
  protected readonly unit = computed(() => prettyUnit(this.scale().unit));

  /** Everything about the fitted line, in the units shown: places, heights, both edges of the zone, both limits. */
  readonly drawn = computed(() => {
    const { points, line, zone } = this.profile();
    const { factor } = this.scale();
    const about = (at: number, height: number) => (height - line.at0 - line.slope * at) / factor;
    const limit = this.straightness()?.limit?.[1];
    return {
      places: points.map(({ at }) => at / this.length().factor),
      heights: points.map(({ at, height }) => about(at, height)),
      low: points.map(({ at }) => about(at, zone.low + zone.slope * at)),
      high: points.map(({ at }) => about(at, zone.high + zone.slope * at)),
      limits:
        limit === undefined || limit === null
          ? []
          : this.limitsAbout(
              limit / factor,
              points.map(({ at, height }) => about(at, height)),
            ),
    };
  });

  /** The limit is on the whole range: it is laid about the middle of what was read. */
  private limitsAbout(range: number, heights: readonly number[]): number[] {
    const middle = (Math.max(...heights) + Math.min(...heights)) / 2;
    return [middle - range / 2, middle + range / 2];
  }

  protected readonly told = computed(() => {
    const { places, heights } = this.drawn();
    const length = prettyUnit(this.length().unit);
    return `Heights about the fitted line: ${places.map((at, i) => `${at.toFixed(0)} ${length} ${heights[i].toFixed(1)} ${this.unit()}`).join(', ')}`;
  });

  protected readonly options = computed((): EChartsCoreOption => {
    const { places, heights, low, high, limits } = this.drawn();
    const pairs = (values: readonly number[]) => places.map((at, i) => [at, values[i]]);
    const edge = (name: string, values: readonly number[]) => ({
      type: 'line',
      name,
      data: pairs(values),
      symbol: 'none',
      silent: true,
      lineStyle: { color: INK, width: 1.5, type: 'dashed' },
    });
    return {
      animation: false,
      grid: { left: 56, right: 18, top: 10, bottom: 30 },
      xAxis: {
        type: 'value',
        min: 'dataMin',
        max: 'dataMax',
        axisLabel: { ...FONT, formatter: (at: number) => `${Math.round(at)}` },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'value',
        axisLabel: FONT,
        splitLine: { lineStyle: { color: GRID } },
        // The limits are always in sight.
        min: (found: { min: number }) => Math.floor(Math.min(found.min, ...limits)),
        max: (found: { max: number }) => Math.ceil(Math.max(found.max, ...limits)),
      },
      series: [
        {
          type: 'line',
          name: 'read',
          data: pairs(heights),
          lineStyle: { color: BLUE, width: 2 },
          itemStyle: { color: BLUE },
          symbol: 'rect',
          symbolSize: 8,
          markLine: {
            silent: true,
            symbol: 'none',
            label: { show: false },
            lineStyle: { color: RED, type: 'solid', width: 1.5 },
            data: limits.map((yAxis) => ({ yAxis })),
          },
        },
        edge('zone, low', low),
        edge('zone, high', high),
        { type: 'line', name: 'line', data: pairs(places.map(() => 0)), symbol: 'none', silent: true, lineStyle: { color: INK, width: 1 } },
      ],
    };
  });
}
