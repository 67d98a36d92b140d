import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
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
export const INK = '#1E252B';
export const BLUE = '#1B4C8C';
export const RED = '#C23B16';
export const GRID = '#D5DBD7';
export const FONT = { fontFamily: 'IBM Plex Mono, monospace', fontSize: 13, color: INK } as const;
