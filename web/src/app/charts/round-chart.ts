import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { EChartsCoreOption } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { axisWords, BLUE, FONT, GRID, INK, echarts, limitArea, limitLines } from './parts';

export interface ChartSeries {
  readonly name: string;
  readonly unit: string;
  readonly plus: string;
  readonly minus: string;
  readonly limit: readonly [number | null, number | null];
  readonly points: readonly {
    readonly label: string;
    readonly value: number;
    readonly doubt: number;
    /** Where along something it was read, in the shown unit of length: drawn there instead of one after the other. */
    readonly at?: number;
  }[];
  /** What the points lie along; rounds when left out. */
  readonly along?: string;
}

/** Lines of the grid, about. */
const LINES = 6;

/** Error per round inside its limits. */
@Component({
  selector: 'iso-round-chart',
  imports: [NgxEchartsDirective],
  providers: [provideEchartsCore({ echarts })],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>{{ series().name }}</h2>
    <p class="soft">{{ axisWords(series()) }}{{ series().along ? ', ' + series().along : '' }}</p>
    <div echarts [options]="options()" [initOpts]="{ renderer: 'svg' }" class="chart" role="img" [attr.aria-label]="told()"></div>
  `,
  styles: `
    .chart {
      height: 240px;
    }
    p {
      font-size: 14px;
    }
  `,
})
export class RoundChart {
  protected readonly axisWords = axisWords;
  readonly series = input.required<ChartSeries>();

  protected readonly told = computed(
    () =>
      `${this.series().name} ${this.series().along ?? 'per round'}: ${this.series()
        .points.map((point) => `${this.series().along ? 'at' : 'round'} ${point.label} ${point.value.toFixed(3)} ${this.series().unit}`)
        .join(', ')}`,
  );

  /** Digits that tell one line of the grid from the next. */
  private readonly digits = computed(() => {
    const { points, limit } = this.series();
    const all = [0, ...points.map(({ value }) => value), ...limit.filter((bound) => bound !== null)];
    const step = (Math.max(...all) - Math.min(...all)) / LINES;
    return step > 0 ? Math.min(4, Math.max(0, Math.ceil(-Math.log10(step)))) : 2;
  });

  protected readonly options = computed((): EChartsCoreOption => {
    const { points, limit, unit, along } = this.series();
    const digits = this.digits();
    return {
      animation: false,
      grid: { left: 62, right: 16, top: 14, bottom: 34 },
      tooltip: { trigger: 'axis', valueFormatter: (value: unknown) => `${Number(value).toFixed(3)} ${unit}`, textStyle: FONT },
      xAxis: {
        ...(along
          ? { type: 'value', scale: true, splitLine: { show: false } }
          : { type: 'category', data: points.map((point) => point.label) }),
        axisLabel: FONT,
        axisLine: { lineStyle: { color: INK } },
        axisTick: { show: false },
      },
      yAxis: {
        type: 'value',
        axisLabel: { ...FONT, formatter: (value: number) => value.toFixed(digits) },
        splitLine: { lineStyle: { color: GRID } },
        scale: false,
      },
      series: [
        {
          type: 'line',
          name: this.series().name,
          data: points.map((point) => (point.at === undefined ? point.value : [point.at, point.value])),
          lineStyle: { color: BLUE, width: 2 },
          itemStyle: { color: BLUE },
          symbol: 'rect',
          symbolSize: 9,
          markLine: limitLines(limit),
          markArea: limitArea(limit),
        },
      ],
    };
  });
}
