import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { PALETTE } from '../palette';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

// The parts of the chart library that are used, taken in one place so that nothing else is loaded.
echarts.use([
  LineChart,
  ScatterChart,
  CustomChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  AriaComponent,
  SVGRenderer,
]);

export { echarts };
export const { ink: INK, blue: BLUE, red: RED, iron: GRID } = PALETTE;
export const FONT = { fontFamily: 'IBM Plex Mono, monospace', fontSize: 13, color: INK } as const;

type Limit = readonly [number | null, number | null];

/** The bounds of a limit as lines across a chart; with what else stands on it. */
export const limitLines = (limit: Limit, others: readonly object[] = []) => ({
  silent: true,
  precision: 9,
  symbol: 'none',
  label: { show: false },
  lineStyle: { color: INK, type: 'dashed' },
  data: [...limit.filter((bound) => bound !== null).map((bound) => ({ yAxis: bound })), ...others],
});

/** What is shaded as in. Left open it reaches to the edge of the drawing; "min" would be the least of what was read. */
export const limitArea = ([low, high]: Limit) =>
  low === null && high === null
    ? undefined
    : {
        silent: true,
        itemStyle: { color: BLUE, opacity: 0.09 },
        data: [[low === null ? {} : { yAxis: low }, high === null ? {} : { yAxis: high }]],
      };

/** Under the name of a chart: what up and down mean, and its unit. */
export function axisWords({ plus, minus, unit }: { readonly plus: string; readonly minus: string; readonly unit: string }): string {
  return `${plus || minus ? `up: ${plus} · down: ${minus} · ` : ''}in ${unit}`;
}
