import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemParams } from 'echarts';
import type { EChartsCoreOption } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { dateWords } from '../data/when';
import { PALETTE } from '../palette';
import { axisWords, BLUE, FONT, GRID, INK, RED, echarts, limitArea, limitLines } from './parts';

/** A quantity over the years, in the unit that is shown. Times in ms. */
export interface TrendSeries {
  readonly name: string;
  readonly unit: string;
  readonly plus: string;
  readonly minus: string;
  readonly limit: readonly [number | null, number | null];
  readonly points: readonly { readonly at: number; readonly value: number; readonly doubt: number; readonly told: boolean }[];
  /** When something was done that changes it. */
  readonly moves: readonly number[];
  /** The line through what was read since the last of them, with its 95 % band; undefined where there is none. */
  readonly line?: { readonly from: number; readonly at: (time: number) => number; readonly band: (time: number) => number };
  /** When it leaves its limits, and the range of that; undefined where nothing of that can be said. */
  readonly leaves?: { readonly at: number; readonly from: number; readonly to: number | null };
}

/** Places at which the band is drawn: it is a curve. */
const STEPS = 24;
/** What lies ahead takes so much of the drawing at most, as a part of what was read. */
const AHEAD = 1;

/** Half the length of the bars across the ends of a doubt, px. */
const CAP = 4;

/** A value with its doubt: a bar from its lower to its upper end. */
function doubtBar(_params: CustomSeriesRenderItemParams, api: CustomSeriesRenderItemAPI) {
  const [at, low, high] = [0, 1, 2].map((i) => Number(api.value(i)));
  const [[x, bottom], [, top]] = [api.coord([at, low]), api.coord([at, high])];
  const line = (x1: number, y1: number, x2: number, y2: number) => ({
    type: 'line' as const,
    shape: { x1, y1, x2, y2 },
    style: { stroke: BLUE, lineWidth: 1.5 },
  });
  return {
    type: 'group' as const,
    children: [line(x, bottom, x, top), line(x - CAP, bottom, x + CAP, bottom), line(x - CAP, top, x + CAP, top)],
  };
}

/** A quantity over the years: values with their doubts, limits, moves, and how it drifts since the last of them. */
@Component({
  selector: 'iso-trend-chart',
  imports: [NgxEchartsDirective],
  providers: [provideEchartsCore({ echarts })],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>{{ series().name }}</h2>
    <p class="soft">{{ axisWords(series()) }}{{ hollow() ? ' · hollow: read before the last move, or under other conditions' : '' }}</p>
    <div echarts [options]="options()" [initOpts]="{ renderer: 'svg' }" class="chart" role="img" [attr.aria-label]="told()"></div>
  `,
  styles: `
    .chart {
      height: 280px;
    }
    p {
      font-size: 14px;
    }
  `,
})
export class TrendChart {
  protected readonly axisWords = axisWords;
  readonly series = input.required<TrendSeries>();

  protected readonly told = computed(() => {
    const { name, points, unit } = this.series();
    return `${name} over time: ${points.map(({ at, value }) => `${dateWords(new Date(at).toISOString())} ${value.toFixed(3)} ${unit}`).join(', ')}`;
  });

  protected readonly hollow = computed(() => this.series().points.some(({ told }) => !told));

  /** The times that are drawn: from the first value to the last, and ahead to where it leaves its limits. */
  readonly range = computed((): readonly [number, number] => {
    const { points, leaves } = this.series();
    const times = points.map(({ at }) => at);
    const [first, last] = [Math.min(...times), Math.max(...times)];
    const room = Math.max(last - first, 30 * 86_400_000);
    const ahead = leaves ? Math.min(leaves.to ?? leaves.at + room / 4, last + AHEAD * room) : last;
    return [first - room / 40, Math.max(ahead, last) + room / 40];
  });

  /** The line and both edges of its band, as far as they are drawn. */
  readonly lines = computed(() => {
    const { line } = this.series();
    if (!line) return [];
    const to = this.range()[1];
    const times = Array.from({ length: STEPS + 1 }, (_, i) => line.from + ((to - line.from) * i) / STEPS);
    return [0, -1, 1].map((edge) => times.map((at): [number, number] => [at, line.at(at) + edge * line.band(at)]));
  });

  protected readonly options = computed((): EChartsCoreOption => {
    const { points, limit, unit, name, moves, leaves } = this.series();
    const [from, to] = this.range();
    const thin = (data: [number, number][], i: number) => ({
      ...{ type: 'line', data, showSymbol: false, silent: true, tooltip: { show: false } },
      lineStyle: { color: BLUE, width: i === 0 ? 2 : 1, type: i === 0 ? 'solid' : 'dotted' },
    });
    const upright = (at: number, text: string, color: string) => ({
      xAxis: at,
      label: { show: true, formatter: text, position: 'insideEndTop', ...FONT, fontFamily: 'Barlow, sans-serif', color },
      lineStyle: { color, type: 'solid' },
    });
    return {
      animation: false,
      grid: { left: 62, right: 16, top: 18, bottom: 34 },
      tooltip: {
        trigger: 'item',
        valueFormatter: (value: unknown) => `${Number([value].flat().at(-1)).toFixed(3)} ${unit}`,
        textStyle: FONT,
      },
      xAxis: {
        ...{ type: 'time', min: from, max: to, splitNumber: 5 },
        axisLabel: { ...FONT, hideOverlap: true, formatter: (at: number) => monthWords(at) },
        axisLine: { lineStyle: { color: INK } },
        splitLine: { show: false },
      },
      yAxis: { type: 'value', axisLabel: FONT, splitLine: { lineStyle: { color: GRID } }, scale: false },
      series: [
        {
          ...{ type: 'custom', renderItem: doubtBar, encode: { x: 0, y: [1, 2] }, tooltip: { show: false }, silent: true },
          data: points.map(({ at, value, doubt }) => [at, value - doubt, value + doubt]),
        },
        {
          ...{
            type: 'scatter',
            name,
            symbol: 'rect',
            symbolSize: 9,
            data: points.map(({ at, value, told }) => ({ value: [at, value], ...(!told && HOLLOW) })),
          },
          itemStyle: { color: BLUE },
          markLine: limitLines(limit, [
            ...apart(
              moves.filter((at) => at >= from && at <= to),
              (to - from) / 20,
            ).map(({ at, named }) => upright(at, named ? 'moved' : '', INK)),
            ...(leaves && leaves.at <= to ? [upright(leaves.at, 'leaves its limits', RED)] : []),
          ]),
          markArea: limitArea(limit),
        },
        ...this.lines().map(thin),
      ],
    };
  });
}

/** Times in order, each named where there is room for its name beside the one before. */
function apart(times: readonly number[], room: number): { readonly at: number; readonly named: boolean }[] {
  let last = -Infinity;
  return [...times]
    .sort((one, other) => one - other)
    .map((at) => {
      const named = at - last > room;
      if (named) last = at;
      return { at, named };
    });
}

/** A value that says nothing of the drift: it was read before the last move, or elsewhere. */
const HOLLOW = { itemStyle: { color: PALETTE.paper, borderColor: BLUE, borderWidth: 1.5 } } as const;

/** "Nov 2026": a date on the axis. */
const monthWords = (at: number): string => dateWords(new Date(at).toISOString()).split(' ').slice(1).join(' ');
